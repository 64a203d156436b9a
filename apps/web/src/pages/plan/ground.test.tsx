import { act, screen } from '@testing-library/react';
import { padsInOrder, sceneFrom, type Kind, type Scene } from '@quarry/core/document';
import { onTable } from '../../../test/onTable.ts';
import { openPage, type OpenPage } from '../../../test/openPage.tsx';
import { useView } from '../../data/view.ts';
import { PlanPage } from './PlanPage.tsx';

// Ground, decks, track, plants and several things at once, worked by their data sheets.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));
// Nothing is drawn here.
jest.mock('../../board/Board.tsx', () => ({ Board: () => null }));
jest.mock('../../board/Profile.tsx', () => ({ Profile: () => null }));

const pad = (id: string, name: string, more: object = {}) => ({
  ...{ id, name, x: 0, y: 0, w: 16, d: 16, level: 'low', ground: 'grass' as const },
  ...more,
});
const file = {
  display: { name: 'Quay', kind: 'diorama', method: 'solid', place: 'hall' },
  ...onTable(96, 48),
  pads: [
    pad('p', 'Yard', { w: 96, d: 48 }),
    pad('a', 'Apron', { x: 8 }),
    pad('k', 'Knoll', { x: 4, offset: 6 }),
  ],
} satisfies Parameters<typeof sceneFrom>[0];
const open = (more: object = {}) =>
  openPage(sceneFrom({ ...file, ...more }), <PlanPage />, 'plan', { role: 'planner', person: null });
/** Picks a thing, as on the board. */
async function pick(page: OpenPage, kind: Kind, id: string): Promise<void> {
  act(() => useView.getState().pick({ kind, id }));
  await page.seesNo('Opening its data sheet');
}
const orderOf = (scene: Scene) => padsInOrder(scene).map(({ name }) => name);
/** What stands beside a word of a data sheet. */
const answer = (label: string) =>
  screen.getByText(label, { selector: 'dt, dt *' }).closest('div')?.textContent?.replace(/\s+/g, ' ') ?? '';

test('pads all of one order are laid by name of their id; first is first, and on top is on top', async () => {
  const page = await open();
  expect(orderOf(page.scene())).toEqual(['Apron', 'Knoll', 'Yard']);
  await pick(page, 'pad', 'k');
  await page.sees('2 of 3');
  await page.press('First');
  expect(orderOf(page.scene())).toEqual(['Knoll', 'Apron', 'Yard']);
  await page.sees('1 of 3');
  await page.press('Last, on top');
  expect(orderOf(page.scene())).toEqual(['Apron', 'Yard', 'Knoll']);
  await pick(page, 'pad', 'p');
  await page.press('First');
  expect(orderOf(page.scene())).toEqual(['Yard', 'Apron', 'Knoll']);
  await page.undo();
  expect(orderOf(page.scene())).toEqual(['Apron', 'Yard', 'Knoll']);
});

test('an edge that slopes has its run, and what a pad comes to', async () => {
  const page = await open();
  await pick(page, 'pad', 'k');
  expect(answer('Ground at')).toContain('3b');
  await page.choose('South edge', 'Slope');
  await page.fill('South run, studs a brick', '20 mm');
  expect(page.scene().pad.k?.edges.s).toEqual({ kind: 'slope', run: 2.5 });
  await page.fill('South run, studs a brick', '65');
  await page.sees('65');
  expect(page.scene().pad.k?.edges.s.run).toBe(2.5);
});

test('a road over a rise: how steep it comes out, a height that is held, and a point more', async () => {
  const page = await open({
    ways: [
      {
        ...{ id: 'w', name: 'Hill road', use: 'road', width: 4, ground: 'paving' },
        points: [
          { x: 30, y: 24, z: 3 },
          { x: 70, y: 24, z: 11 },
        ],
      },
    ],
  });
  await pick(page, 'way', 'w');
  // Eight plates on 40 studs: 25.6 mm on 320 mm.
  await page.sees('40.0 studs long');
  await page.sees('8 %');
  await page.fill('Point 2, east', '50');
  await page.sees('20.0 studs long');
  await page.sees('16 %');
  await page.press('Point');
  await page.sees('28.0 studs long');
  const points = () => page.scene().way.w?.points.map(({ x, z }) => [x, z]);
  expect(points()).toEqual([
    [30, 3],
    [50, 11],
    [58, 11],
  ]);
  await page.press('Point 3, height: let go');
  expect(points()?.[2]).toEqual([58, null]);
  await page.press('Remove point 3');
  expect(points()).toHaveLength(2);
  expect(screen.getByRole('button', { name: 'Remove point 1' }).hasAttribute('disabled')).toBe(true);
});

test('a deck over a yard: what it covers and the room under it; a cavity under a knoll has its roof', async () => {
  const page = await open({
    pads: [pad('p', 'Yard', { w: 96, d: 48 }), pad('k', 'Knoll', { x: 4, offset: 6, order: 1 })],
    decks: [
      {
        id: 'd',
        name: 'Mezzanine',
        x: 40,
        y: 8,
        w: 16,
        d: 8,
        level: 'low',
        offset: 18,
        thick: 2,
        ground: 'paving',
      },
    ],
    cavities: [{ id: 'c', name: 'Cellar', x: 6, y: 2, w: 6, d: 6, level: 'low', offset: 0, clear: 4 }],
  });
  await pick(page, 'deck', 'd');
  await page.sees('Over air');
  expect(answer('Covers')).toContain('128 studs');
  // Its top at 3 + 18, two plates thick, over ground at 3.
  expect(answer('Least room under it')).toContain('5b1p');
  await pick(page, 'cavity', 'c');
  await page.sees('Under its roof');
  expect(answer('Roofed')).toContain('36 studs');
  // The knoll is at 9, the ceiling at 7.
  expect(answer('Thinnest roof')).toContain('2p');
});

test('a track says where it ends, in degrees, and by how much it misses the next', async () => {
  const straight = { go: 'straight', length: 16 } as const;
  const page = await open({
    tracks: [
      {
        ...{ id: 't', name: 'Tip line', x: 20, y: 40, level: 'low' },
        pieces: [straight, { go: 'left', radius: 20 }, { go: 'left', radius: 20 }],
      },
      { id: 'u', name: 'Siding', x: 51, y: 34, heading: 14, level: 'low', pieces: [straight] },
    ],
  });
  await pick(page, 'track', 't');
  // 16 east, then an eighth of a circle of 20: 36 + 20 sin 45°, 40 − 20 (1 − cos 45°).
  expect(answer('Ends at')).toContain('50.1, 34.1 heading 315°');
  // 0.9 studs from the siding, which goes on as it does.
  expect(answer('Meets Siding')).toContain('misses by 0.9 st');
});

test('plants of a mix by their parts, and a row of lamps that stands off the grid', async () => {
  const page = await open({
    plantings: [
      {
        ...{ id: 'g', name: 'Larch wood', x: 40, y: 8, w: 24, d: 24, seed: 4 },
        mix: [
          { name: 'Larch', share: 3, low: 12, high: 20, crown: 3 },
          { name: 'Birch', share: 1, low: 9, high: 12, crown: 2 },
        ],
      },
    ],
    repeats: [
      {
        ...{ id: 'r', name: 'Lamps', use: 'lamp', spacing: 'count', count: 4 },
        points: [
          { x: 8, y: 40 },
          { x: 57, y: 40 },
        ],
      },
    ],
  });
  await pick(page, 'planting', 'g');
  const plants = Number(answer('Plants').replace(/\D/g, ''));
  const counts = ['Plants of Larch', 'Plants of Birch'].map((title) =>
    Number(screen.getByTitle(title).textContent),
  );
  const [larches = 0, birches = 0] = counts;
  expect(larches + birches).toBe(plants);
  expect(larches / plants).toBeGreaterThan(0.6);
  await page.press('Plant');
  await page.fill('Plant 3, parts', '0');
  expect(Number(screen.getByTitle('Plants of Plant 3').textContent)).toBe(0);
  await page.press('Remove Birch');
  expect(page.scene().planting.g?.mix.map(({ name }) => name)).toEqual(['Larch', 'Plant 3']);
  await pick(page, 'repeat', 'r');
  await page.sees('Some stand off the grid');
});

test('several at once: lined up, spread evenly, raised, laid in one ground, let go; each act is one undo', async () => {
  const hill = (id: string, name: string, x: number, y: number, w: number) => ({
    ...{ id, name, x, y, w, d: w, level: 'low', height: 9, ground: 'grass' as const },
  });
  const page = await open({
    hills: [hill('x', 'Tump', 20, 8, 8), hill('y', 'Howe', 31, 20, 6), hill('z', 'Cairn', 60, 30, 4)],
  });
  act(() => useView.getState().pickAll(['x', 'y', 'z'].map((id) => ({ kind: 'hill', id }))));
  await page.sees('3 things');
  const hills = () => ['x', 'y', 'z'].map((id) => page.scene().hill[id]);
  await page.press('North');
  expect(hills().map((one) => one?.y)).toEqual([8, 8, 8]);
  // From 20 to 64 are 44 studs, 18 of them hills: gaps of 13.
  await page.press('West to east');
  expect(hills().map((one) => one?.x)).toEqual([20, 41, 60]);
  expect(page.acts.at(-1)?.label).toBe('spread west to east: 3 things');
  await page.press('+1b');
  expect(hills().map((one) => one?.offset)).toEqual([3, 3, 3]);
  await page.undo();
  expect(hills().map((one) => one?.offset)).toEqual([0, 0, 0]);
  await page.choose('Ground', 'Rock');
  expect(hills().map((one) => one?.ground)).toEqual(['rock', 'rock', 'rock']);
  await page.press('Let go of Cairn');
  await page.sees('2 things');
  await page.press('Remove all');
  expect(Object.keys(page.scene().hill)).toEqual(['z']);
  await page.undo();
  expect(Object.keys(page.scene().hill)).toHaveLength(3);
});
