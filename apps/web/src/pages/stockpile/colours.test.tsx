import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { sceneFrom } from '@quarry/core/document';
import { compileRelief } from '@quarry/core/terrain';
import { renderOn } from '../../../test/renderOn.tsx';
import { useScene } from '../../data/useDisplay.tsx';
import { CustomGrounds } from './CustomGrounds.tsx';
import { LeavesPart } from './LeavesPart.tsx';
import { RecipeSheet } from './RecipeSheet.tsx';

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const scene = sceneFrom({
  display: {
    ...{ name: 'Wood', kind: 'diorama', season: 'autumn', month: 10 },
    leaves: [
      {
        month: 10,
        tones: [
          { colour: 'rust', share: 2 },
          { colour: 'ochre', share: 1 },
        ],
      },
    ],
  },
  levels: [{ id: 'l', name: 'Low', height: 9 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 16, d: 16 }],
  pads: [{ id: 'p', name: 'Field', x: 0, y: 0, w: 16, d: 12, level: 'l', ground: 'custom-1' }],
  customGrounds: [
    {
      ...{ id: 'custom-1', name: 'Snow', colour: 'chalk', hatch: 'flakes' },
      layers: [{ colour: 'ice', plates: 2 }],
    },
  ],
  trees: [1, 2, 3, 4, 5, 6].map((i) => ({ id: `t${i}`, name: `Tree ${i}`, x: 2 * i, y: 2, season: 'month' })),
  recipes: [
    {
      ...{ id: 'r', name: 'Grass', ground: 'grass' },
      tones: [
        { colour: 'moss', share: 3 },
        { colour: 'fern', share: 1 },
      ],
    },
  ],
});
const cells = (table: string) =>
  within(screen.getByRole('table', { name: table }))
    .getAllByRole('row')
    .slice(1)
    .map((row) => row.textContent?.trim());

describe('leaves by month', () => {
  test('what the trees come to in the month that is shown; a tone changed changes the count', async () => {
    const user = userEvent.setup();
    const acts = await renderOn(scene, <LeavesPart />);
    expect(screen.getByRole('link', { name: 'October' }).getAttribute('href')).toBe('/d/d/brief?sheet=rules');
    expect(screen.getByText('6 plants')).toBeTruthy();
    expect(cells('Plants by colour')).toEqual(['Rust4', 'Ochre2']);
    const parts = screen.getByRole('textbox', { name: 'Parts of tone 2' });
    await user.clear(parts);
    await user.type(parts, '2{Enter}');
    expect(cells('Plants by colour')).toEqual(['Rust3', 'Ochre3']);
    expect(acts).toMatchObject([{ label: 'changed a tone of October' }]);
  });
  test('a month is written from the usual colour of the season, in the order of the year, and removed again', async () => {
    const user = userEvent.setup();
    const acts = await renderOn(scene, <LeavesPart />);
    await user.selectOptions(screen.getByRole('combobox', { name: 'Month' }), 'May (not written)');
    await user.click(screen.getByRole('button', { name: 'Write the leaves of May' }));
    const [written] = acts.at(-1)?.changes ?? [];
    expect(written?.op === 'patch' && written.set).toEqual({
      leaves: [{ month: 5, tones: [{ colour: 'rust', share: 1 }] }, expect.objectContaining({ month: 10 })],
    });
    await user.click(screen.getByRole('button', { name: 'Remove the leaves of May' }));
    const [removed] = acts.at(-1)?.changes ?? [];
    expect(removed?.op === 'patch' && removed.set).toEqual({
      leaves: [expect.objectContaining({ month: 10 })],
    });
  });
  test('who only looks sees the numbers and can change none', async () => {
    await renderOn(scene, <LeavesPart />, { actor: { role: 'viewer', person: null } });
    expect(screen.queryByRole('button', { name: 'Remove the leaves of October' })).toBeNull();
    expect(screen.getByRole('textbox', { name: 'Parts of tone 1' }).hasAttribute('disabled')).toBe(true);
  });
});

describe('custom grounds', () => {
  test('a layer that ends at a height is drawn so; its studs and the pieces of a patch are told', async () => {
    const user = userEvent.setup();
    const relief = compileRelief(scene);
    const acts = await renderOn(scene, <CustomGrounds />, { derived: { ground: { relief, tiles: [] } } });
    const built = screen.getByRole('region', { name: 'As it is built' });
    expect(within(built).getByText('192 studs')).toBeTruthy();
    // A cover and two plates.
    expect(built.textContent).toContain('1b = 9.6 mm');
    const upTo = screen.getByRole('textbox', { name: 'Layer 1 on ground up to' });
    await user.type(upTo, '2b{Enter}');
    expect(acts.at(-1)?.changes[0]).toMatchObject({
      set: { layers: [{ colour: 'ice', plates: 2, upTo: 6 }] },
    });
    expect(built.textContent).toContain('on ground up to 2b');
    expect(built.textContent).toContain('where it is deepest');
    await user.clear(upTo);
    await user.type(upTo, '{Enter}');
    expect(acts.at(-1)?.changes[0]).toMatchObject({ set: { layers: [{ upTo: null }] } });
  });
  test('a layer is added in the colour of the cover and removed; six are the most', async () => {
    const user = userEvent.setup();
    const acts = await renderOn(scene, <CustomGrounds />);
    const add = screen.getByRole('button', { name: 'Layer' });
    for (let i = 1; i < 6; i++) await user.click(add);
    expect(add.hasAttribute('disabled')).toBe(true);
    expect(screen.getAllByRole('group', { name: /^Layer \d$/ })).toHaveLength(6);
    await user.click(screen.getByRole('button', { name: 'Remove layer 1' }));
    expect(acts.at(-1)).toMatchObject({ label: 'removed a layer of Snow' });
    expect(screen.getAllByRole('group', { name: /^Layer \d$/ })).toHaveLength(5);
  });
});

/** The recipe as it stands. */
function Grass() {
  return <RecipeSheet recipe={useScene('recipe').recipe.r} plans />;
}

describe('a recipe', () => {
  test('shares follow the parts; a recipe may hold from a height up; the last tone stays', async () => {
    const user = userEvent.setup();
    const acts = await renderOn(scene, <Grass />);
    expect(screen.getByRole('group', { name: 'Tone 1' }).textContent).toContain('75 %');
    await user.type(screen.getByRole('textbox', { name: 'From this height up' }), '7b{Enter}');
    expect(acts.at(-1)?.changes[0]).toMatchObject({ set: { above: 21 } });
    await user.click(screen.getByRole('button', { name: 'Remove tone 2' }));
    expect(acts.at(-1)).toMatchObject({ label: 'removed a tone of Grass' });
  });
});
