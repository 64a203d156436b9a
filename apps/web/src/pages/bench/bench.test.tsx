import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { reduce, sceneFrom } from '@quarry/core/document';
import { compile } from '@quarry/core/terrain';
import type { Act } from '../../../test/linkOn.ts';
import { renderOn } from '../../../test/renderOn.tsx';
import { BaysPanel } from './BaysPanel.tsx';
import { FitsPanel } from './FitsPanel.tsx';
import { HingePanel } from './HingePanel.tsx';
import { RingPanel } from './RingPanel.tsx';
import { RoofPanel } from './RoofPanel.tsx';
import { StackPanel } from './StackPanel.tsx';
import { TurnPanel } from './TurnPanel.tsx';
import { VolumePanel } from './VolumePanel.tsx';

// Calculators of the Bench as a person uses them: fields, answers with their numbers, and what is put into the display.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const scene = sceneFrom({
  display: { name: 'Yard', kind: 'diorama' },
  levels: [{ id: 'l', name: 'Street', height: 3 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 64 }],
});
beforeEach(() => localStorage.clear());

/** What stands beside a word of an answer. */
const answer = (label: string) =>
  screen.getByText(label, { selector: 'dt' }).nextElementSibling?.textContent ?? '';
const type = async (label: string, text: string) => {
  const user = userEvent.setup();
  const field = screen.getByLabelText(label);
  await user.clear(field);
  await user.type(field, `${text}{Enter}`);
};
const valueOf = (label: string) => screen.getByLabelText<HTMLInputElement>(label).value;
const press = (name: string) => userEvent.setup().click(screen.getByRole('button', { name }));
const added = (acts: readonly Act[]) => {
  const change = acts.at(-1)?.changes[0];
  return change?.op === 'add' ? change.data : null;
};

describe('rings', () => {
  test('bays that do not part evenly are told with the rings that do; too few pieces are refused', async () => {
    await renderOn(scene, <RingPanel />);
    expect(answer('Parted in 6 bays')).toBe('4 pieces each');
    expect(answer('Opposite a bay')).toBe('another bay');
    await type('Pieces', '25');
    expect(answer('Parted in 6 bays')).toBe('△ 1 left over; 24 or 30 pieces part evenly');
    expect(answer('Opposite a bay')).toBe('–');
    await type('Pieces', '2');
    expect(screen.getByRole('alert').textContent).toContain('2 is below the least, 3');
  });
  test('a radius picks the nearest ring, in any unit', async () => {
    await renderOn(scene, <RingPanel />);
    // 32 mm ÷ (2 tan 7.5°).
    expect(valueOf('Inner radius, nearest ring')).toBe('121.5 mm');
    // 100 mm lie between rings of 19 and 20: 32 ÷ (2 tan (180° ÷ 20)) is 101.0, of 19 it is 95.9.
    await type('Inner radius, nearest ring', '10 cm');
    expect(valueOf('Pieces')).toBe('20');
  });
  test('within bricks the floor is wider than within wedges; on the plan wall and floor count their own pieces', async () => {
    const ground = { relief: compile(scene).relief, tiles: [] };
    const acts = await renderOn(scene, <RingPanel />, { derived: { ground } });
    // 15.19 studs to a side: 14.5 fit within bricks, 14 within wedges, which are a stud thick.
    expect(answer('Floor inside it')).toBe('673 studs49 plates, 5.5 mm short of its north side');
    await press('Add to needs');
    expect(added(acts)).toMatchObject({ name: 'Ring of 24 × 4 studs', use: 'need' });
    expect(added(acts)?.lines).toContainEqual(expect.objectContaining({ part: 'brick-1x4', qty: 24 * 6 }));
    await press('Put wall and floor on the plan');
    // Its floor is an odd number of studs wide: the middle is that of a stud.
    const [wall] = acts.at(-1)?.changes ?? [];
    expect(wall.op === 'add' && wall.data).toMatchObject({
      ...{ use: 'wall', ring: 24, panel: 4, height: 18 },
      points: [
        { x: 48.5, y: 32.5 },
        { x: 48.5, y: 17.5 },
      ],
    });
    const after = reduce(scene, acts.at(-1)?.changes ?? []);
    if (!after.ok) throw new Error(after.refusal.sentence);
    const { relief } = compile(after.scene);
    // A plate above the ground on each stud of the floor, and nowhere else.
    expect(relief.height.filter((height) => height === 1)).toHaveLength(673);
    expect(relief.height.filter((height) => height > 1)).toHaveLength(0);
    expect(screen.queryByRole('button', { name: 'Add to needs' })).toBeNull();
    await userEvent.setup().selectOptions(screen.getByLabelText('Faces that meet'), 'Outer: wedges');
    expect(answer('Floor inside it')).toContain('1.5 mm short of its north side');
    expect(screen.queryByRole('button', { name: /on the plan/ })).toBeNull();
  });
});

test('bays: three to a base leave nothing and go to the plan; what is left over is told, and which divide it', async () => {
  const acts = await renderOn(scene, <BaysPanel />);
  expect([answer('Bays to a base'), answer('Left over')]).toEqual(['3', 'nothing']);
  await press('Put on the plan as a repeat');
  expect(added(acts)).toMatchObject({ spacing: 'base', count: 3, base: 48 });
  await type('Bay with its post', '15');
  expect([answer('Bays to a base'), answer('Left over')]).toEqual(['3', '△ 3 studs']);
  expect(screen.queryByRole('button', { name: 'Put on the plan as a repeat' })).toBeNull();
  const table = screen.getByRole('table', { name: 'Bays that divide the base' });
  // Divisors of 48 from 4 to 24.
  expect(
    within(table)
      .getAllByRole('button')
      .map(({ textContent }) => Number(textContent)),
  ).toEqual([24, 16, 12, 8, 6, 4]);
  await press('12');
  expect(valueOf('Bay with its post')).toBe('12');
  expect(answer('Bays to a base')).toBe('4');
});

test('tall stacks: three tenths of a millimetre on thirty plates are nine on ninety', async () => {
  await renderOn(scene, <StackPanel />);
  expect([answer('Of bricks'), answer('Of plates'), answer('Apart by')]).toEqual([
    ...['288.0 mm', '288.9 mm', '△ 0.9 mm'],
  ]);
  // 0.03 mm a brick: half a millimetre is passed over the sixteenth.
  expect(answer('Meets up to')).toContain('16 bricks');
  await type('Thirty plates, measured', '96');
  expect(answer('Meets up to')).toBe('any height');
});

test('sideways: five plates close two studs; a row that nothing closes is told by how much', async () => {
  await renderOn(scene, <FitsPanel />);
  await type('Row to fill', '2');
  expect([answer('Stack'), answer('Against the row')]).toEqual(['5 plates16.0 mm', 'closes16.0 mm']);
  await type('Row to fill', '1');
  // 8 mm are two plates and a half; whole ones are 1.6 mm off.
  expect(answer('Stack')).toContain('2½ plates');
  await userEvent.setup().click(screen.getByLabelText('Half plates too (leaves of brackets)'));
  expect(answer('Against the row')).toMatch(/^△ −1\.6 mm/);
});

test('turned walls: of whole studs by Pythagoras; a short one meets nothing unless it may be amiss', async () => {
  const acts = await renderOn(scene, <TurnPanel />);
  await press('13');
  expect(answer('Turned by')).toBe('22.62°');
  await press('Put on the plan as a wall');
  expect(added(acts)).toMatchObject({
    points: [
      { x: 48, y: 32 },
      { x: 48 + 12, y: 32 + 5 },
    ],
  });
  await type('Longest wall', '4');
  expect(screen.getByText('No wall up to 4 studs meets')).toBeTruthy();
  await type('May be amiss', '4');
  expect(screen.queryByText('No wall up to 4 studs meets')).toBeNull();
});

test('hinges: the angle that is told is that of the triangle (law of cosines)', async () => {
  await renderOn(scene, <HingePanel />);
  const [a, b] = answer('Walls, from pin to pin').match(/\d+/g)?.map(Number) ?? [];
  const base = Number.parseFloat(answer('Far ends apart, in one row'));
  const angle = (Math.acos((a * a + b * b - base * base) / (2 * a * b)) * 180) / Math.PI;
  expect(Number.parseFloat(answer('Between the walls'))).toBeCloseTo(angle, 2);
  expect(Math.abs(angle - 135)).toBeLessThanOrEqual(1);
});

test('roofs: eight courses of a stud a side over sixteen, and what another ridge wants', async () => {
  await renderOn(scene, <RoofPanel />);
  expect([answer('Courses, each side').slice(0, 1), answer('Ridge over the eaves').slice(0, 2)]).toEqual([
    '8',
    '8b',
  ]);
  await type('Ridge to meet, over the eaves', '9b1p');
  expect(answer('To meet the other ridge')).toContain('raise by 1 brick and 1 plate');
});

test('a block: 32 × 32 × 6 bricks are 768 bricks 2×4; hollow it is less', async () => {
  const acts = await renderOn(scene, <VolumePanel />);
  expect(answer('Pieces')).toBe('768');
  await press('Add to needs');
  expect(added(acts)?.lines).toEqual([expect.objectContaining({ part: 'brick-2x4', qty: 768 })]);
  await userEvent.setup().click(screen.getByLabelText('Hollow, closed by plates'));
  expect(Number(answer('Pieces'))).toBeLessThan(400);
});
