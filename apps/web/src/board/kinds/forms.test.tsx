import { act, cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter } from 'react-router';
import { sceneFrom, type Kind, type Scene } from '@quarry/core/document';
import { BOARD_KINDS, PLACED, shapeAt, thingFrom, toolOf } from './index.ts';
import { DisplayLink } from '../../data/displayLink.ts';
import { linkOn, type Act } from '../../../test/linkOn.ts';
import { DisplayProvider } from '../../data/useDisplay.tsx';
import { EntityFields } from '../../ui/EntityForm.tsx';
import type { FieldSpec } from '../../ui/fieldSpec.ts';

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const scene = sceneFrom({
  display: { name: 'Quay', kind: 'diorama' },
  levels: [
    { id: 'low', name: 'Low', height: 3 },
    { id: 'high', name: 'High', height: 18 },
  ],
  footprint: [{ id: 'f', name: 'Ground', x: 0, y: 0, w: 64, d: 32 }],
  pads: [{ id: 'p', name: 'Yard', x: 0, y: 0, w: 16, d: 8, level: 'low', ground: 'paving' }],
  plots: [{ id: 'h', name: 'House', x: 20, y: 4, w: 8, d: 8, height: 30 }],
});

async function form(of: Scene, kind: Kind, id: string, fields: readonly FieldSpec[], disabled = false) {
  const acts: Act[] = [];
  jest.mocked(DisplayLink.open).mockResolvedValue(linkOn(of, acts));
  await act(async () => {
    render(
      <MemoryRouter>
        <DisplayProvider id="d" user="u" loading="opening" failed={() => 'failed'}>
          <EntityFields picked={{ kind, id }} fields={fields} disabled={disabled} />
        </DisplayProvider>
      </MemoryRouter>,
    );
  });
  return acts;
}
const fieldsOf = (kind: 'pad' | 'plot' | 'run') => BOARD_KINDS[kind].fields ?? [];
const box = (name: string) => screen.getByRole('textbox', { name });

test('a field changes its own field, with words for the history; what is not changed is not sent', async () => {
  const user = userEvent.setup();
  const acts = await form(scene, 'pad', 'p', fieldsOf('pad'));
  await user.clear(box('Name'));
  await user.type(box('Name'), 'Coal yard{Enter}');
  await user.clear(box('Width, east'));
  await user.type(box('Width, east'), '12.5{Enter}');
  await user.clear(box('Depth, south'));
  await user.type(box('Depth, south'), '8 studs{Enter}');
  await user.selectOptions(screen.getByRole('combobox', { name: 'Level' }), 'High, 6b');
  expect(acts.map(({ label, changes }) => [label, changes[0].op === 'patch' && changes[0].set])).toEqual([
    ['renamed Yard', { name: 'Coal yard' }],
    ['resized Coal yard', { w: 12.5 }],
    ['changed the level of Coal yard', { level: 'high' }],
  ]);
});
test('what the schema does not take is refused in the field, with the value and the limit', async () => {
  const user = userEvent.setup();
  const acts = await form(scene, 'plot', 'h', fieldsOf('plot'));
  await user.clear(box('Storeys'));
  await user.type(box('Storeys'), '61{Enter}');
  expect(screen.getByRole('alert').textContent).toContain('61 is above the most, 60');
  await user.clear(box('Walls'));
  await user.type(box('Walls'), '0.3 studs{Enter}');
  expect(screen.getAllByRole('alert')).toHaveLength(2);
  expect(acts).toEqual([]);
});
test('a length may be unknown, and is so again when it is emptied; fields come and go with what they depend on', async () => {
  const user = userEvent.setup();
  const acts = await form(scene, 'plot', 'h', fieldsOf('plot'));
  expect(screen.queryByRole('textbox', { name: 'Pavement' })).toBeNull();
  await user.click(screen.getByRole('checkbox', { name: 'Street front' }));
  expect(box('Pavement').getAttribute('placeholder')).toBe('not known');
  await user.type(box('Pavement'), '8{Enter}');
  expect(box('Pavement').getAttribute('value')).toBe('8 studs');
  expect(screen.queryByRole('combobox', { name: 'Slopes' })).toBeNull();
  await user.type(box('Roof from'), '6b{Enter}');
  expect(screen.getByRole('combobox', { name: 'Slopes' })).toBeTruthy();
  await user.clear(box('Roof from'));
  await user.keyboard('{Enter}');
  expect(box('Roof from').getAttribute('placeholder')).toBe('flat roof');
  expect(screen.queryByRole('combobox', { name: 'Slopes' })).toBeNull();
  await user.click(screen.getByRole('button', { name: 'Good sides: north' }));
  await user.click(screen.getByRole('button', { name: 'Good sides: west' }));
  await user.click(screen.getByRole('button', { name: 'Good sides: north' }));
  const last = acts.at(-1)?.changes[0];
  expect(last?.op === 'patch' && last.set).toEqual({ goodSides: ['w'] });
});
const choicesOf = (name: string) =>
  [...screen.getByRole<HTMLSelectElement>('combobox', { name }).options].map(({ text }) => text);
test('a roof has the forms that its building can have; one that it keeps and cannot have says what it is instead', async () => {
  const roofed = (more: object) =>
    sceneFrom({
      display: { name: 'Quay', kind: 'diorama' },
      plots: [{ id: 'h', name: 'House', x: 20, y: 4, w: 16, d: 16, height: 40, eaves: 20, ...more }],
    });
  const notches = [{ corner: 'ne', w: 6, d: 6 }];
  const user = userEvent.setup();
  const first = await form(roofed({}), 'plot', 'h', fieldsOf('plot'));
  expect(choicesOf('Roof falls to')).toEqual(['Two sides', 'All sides', 'The front alone']);
  await user.selectOptions(screen.getByRole('combobox', { name: 'Roof falls to' }), 'All sides');
  const set = first.at(-1)?.changes[0];
  expect(set?.op === 'patch' && set.set).toEqual({ roofForm: 'hip' });
  cleanup();
  await form(roofed({ notches }), 'plot', 'h', fieldsOf('plot'));
  expect(choicesOf('Roof falls to')).toEqual(['Two sides', 'All sides', 'Rings of bricks']);
  expect(screen.queryByRole('combobox', { name: 'Rings draw in' })).toBeNull();
  cleanup();
  await form(roofed({ notches, roofForm: 'lean-to' }), 'plot', 'h', fieldsOf('plot'));
  expect(choicesOf('Roof falls to')).toContain('Two sides (The front alone needs a box)');
  cleanup();
  await form(roofed({ notches, roofForm: 'stepped' }), 'plot', 'h', fieldsOf('plot'));
  expect(screen.queryByRole('combobox', { name: 'Slopes' })).toBeNull();
  expect(screen.getByRole('combobox', { name: 'Rings draw in' })).toBeTruthy();
});
test('arches, their side and colour, and a fence are of walls alone', async () => {
  const user = userEvent.setup();
  const run = { id: 'r', name: 'Quay wall', points: [4, 28].map((x) => ({ x, y: 4 })), height: 12, thick: 2 };
  const walled = sceneFrom({ display: { name: 'Quay', kind: 'diorama' }, runs: [run] });
  const acts = await form(walled, 'run', 'r', fieldsOf('run'));
  expect(screen.queryByRole('combobox', { name: 'On its' })).toBeNull();
  await user.selectOptions(screen.getByRole('combobox', { name: 'Arches at its face' }), 'Arch 1×8×2');
  await user.selectOptions(screen.getByRole('combobox', { name: 'Arches in' }), 'Limestone');
  await user.selectOptions(screen.getByRole('combobox', { name: 'On its' }), 'Right, along the line');
  await user.click(screen.getByRole('checkbox', { name: 'A fence on it' }));
  expect(acts.map(({ changes: [one] }) => one.op === 'patch' && one.set)).toEqual([
    { arches: 'arch-1x8x2' },
    { archColour: 'limestone' },
    { archSide: 'right' },
    { topFence: true },
  ]);
  await user.selectOptions(screen.getByRole('combobox', { name: 'It is a' }), 'Hedge');
  for (const name of ['Arches at its face', 'Arches in', 'On its'])
    expect(screen.queryByRole('combobox', { name })).toBeNull();
  expect(screen.queryByRole('checkbox', { name: 'A fence on it' })).toBeNull();
});
test.each(PLACED.filter((kind) => toolOf(kind) && BOARD_KINDS[kind].fields))(
  'all fields of a drawn %s are shown with their labels, and locked for those who may not change it',
  async (kind) => {
    const tool = toolOf(kind);
    const thing = tool && thingFrom(scene, kind, shapeAt(tool.draws, { x: 4, y: 4, w: 16, d: 8 }));
    if (!thing) throw new Error(`nothing draws a ${kind}`);
    const link = linkOn(scene);
    link.change('', [...(thing.before ?? []), { op: 'add', kind, id: 'new', data: thing.data }]);
    const fields = BOARD_KINDS[kind].fields ?? [];
    await form(link.getState().scene, kind, 'new', fields, true);
    const shown = fields.filter(({ when }) => !when);
    for (const { label } of shown) expect(screen.getAllByText(label).length).toBeGreaterThan(0);
    const inputs = [
      ...screen.queryAllByRole('textbox'),
      ...screen.queryAllByRole('combobox'),
      ...screen.queryAllByRole('checkbox'),
      ...screen.queryAllByRole('button'),
    ];
    expect(inputs.length).toBeGreaterThanOrEqual(shown.length);
    for (const input of inputs) expect(input.matches(':disabled')).toBe(true);
  },
);
test('a slope that the list does not name, since a file brought it, is shown by its name and stays', async () => {
  const wider = 'slope-4x2-45';
  const roofed = sceneFrom({
    display: { name: 'Quay', kind: 'diorama' },
    plots: [{ id: 'h', name: 'House', x: 0, y: 0, w: 16, d: 12, height: 30, eaves: 18, slope: wider }],
  });
  const acts = await form(roofed, 'plot', 'h', fieldsOf('plot'));
  const list = screen.getByRole<HTMLSelectElement>('combobox', { name: 'Slopes' });
  expect([list.value, list.selectedOptions[0].textContent]).toEqual([wider, 'Slope 4×2 45°']);
  const user = userEvent.setup();
  await user.selectOptions(list, 'Nearest to its height');
  expect(acts.map(({ changes: [one] }) => one.op === 'patch' && one.set)).toEqual([{ slope: null }]);
});
