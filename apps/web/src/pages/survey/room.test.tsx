import { screen } from '@testing-library/react';
import { displayOf, listOf, sceneFrom, type Actor } from '@quarry/core/document';
import { openPage } from '../../../test/openPage.tsx';
import { SurveyPage } from './SurveyPage.tsx';

// The room and what stands in it, by figures: what can be reached, what the public sees, what tables carry.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const walls = (w: number, d: number) => [
  { x: 0, y: 0 },
  { x: w, y: 0 },
  { x: w, y: d },
  { x: 0, y: d },
];
/** 96 × 96 studs on one table that stands in the far corner: free in the south and in the east. */
const file = {
  display: { name: 'Quay', kind: 'diorama', method: 'solid', place: 'hall', viewedSides: ['s'] },
  levels: [{ id: 'low', name: 'Low', height: 3 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 96 }],
  pads: [{ id: 'p', name: 'Yard', x: 0, y: 0, w: 96, d: 96, level: 'low', ground: 'paving' }],
  sections: [
    { id: 'a', letter: 'A', name: 'Back', x: 0, y: 0, w: 96, d: 48 },
    { id: 'b', letter: 'B', name: 'Front', x: 0, y: 48, w: 96, d: 48 },
  ],
  places: [{ id: 'hall', name: 'Pier hall', walls: walls(4000, 3000) }],
  tables: [{ id: 't', name: 'Long table', x: 0, y: 0, w: 768, d: 768, height: 740, place: 'hall' }],
} satisfies Parameters<typeof sceneFrom>[0];
const open = (sheet: string, more: object = {}, actor?: Actor) =>
  openPage(sceneFrom({ ...file, ...more }), <SurveyPage />, `survey?sheet=${sheet}`, actor);

test('a room has its size, a corner more is a room of another form, and it is turned with the scene', async () => {
  const page = await open('room');
  await page.sees('12 m²');
  await page.fill('Room, east to west', '5 m');
  await page.sees('15 m²');
  await page.fill('Room, east to west', '50 m');
  await page.sees('50 m is above the most, 40000 mm');
  // No ceiling is known until one is typed.
  expect(page.valueOf('Ceiling')).toBe('');
  await page.fill('Ceiling', '2.4 m');
  expect(page.scene().place.hall?.ceiling).toBe(2400);
  await page.press('Corners');
  await page.press('Put a corner in after 2');
  await page.sees('5 of at most 60 corners');
  // The middle of the east wall is pushed out by 2 m: half of 2 m × 3 m more.
  await page.fill('Corner 3, from west', '7000');
  await page.sees('18 m²');
  expect(screen.queryByText('Room, east to west')).toBeNull();
  await page.press('Take corner 3 out');
  await page.sees('15 m²');
  // A quarter turn about its middle: as large as it is deep, it lies where it lay.
  await page.press('Turn the scene by 90°');
  await page.sees('turned 90°');
  expect(page.scene().place.hall).toMatchObject({ sceneX: 768, sceneY: 0, turn: 90 });
  await page.press('Remove the place');
  await page.sees('No room yet');
  expect(listOf(page.scene(), 'table')).toEqual([]);
  expect(displayOf(page.scene()).place).toBeNull();
  await page.undo();
  await page.sees('turned 90°');
});

test('what can be reached from two free sides, by section; with a longer arm everything', async () => {
  const page = await open('reach', { places: [{ ...file.places[0], armReach: 400, ladderReach: 600 }] });
  // Past 400 mm of both sides lie 46 × 46 of 96 × 96 studs, past 600 mm 21 × 21.
  await page.sees('Past an arm’s reach23 %2,116 of 9,216 studs');
  await page.sees('Past a step ladder’s5 %farthest 764 mm');
  // In the front section nothing is farther than 380 mm from the south.
  expect(await page.rowsOf('Reach by section')).toEqual([
    ['Section', 'Past arm', 'Past ladder', 'Farthest'],
    ['A Back', '△ 46 %', '! 10 %', '764 mm'],
    ['B Front', '0 %', '0 %', '380 mm'],
  ]);
  // What is tried is told by the same numbers: pulled off both walls, three sides are free.
  await page.sees('23 % → 0 % past an arm');
  await page.fill('An arm reaches', '77 cm');
  await page.sees('Everything can be reached by hand.');
});

test('the public: an aisle that is too narrow, and what a front hides from each eye by similar triangles', async () => {
  const page = await open('public', {
    barriers: [{ id: 'r', name: 'Rope', x1: 0, y1: 2200, x2: 4000, y2: 2200, place: 'hall' }],
  });
  // 3,000 − 2,200 to the wall behind it, 2,200 − 768 to the scene.
  await page.sees('Rope! 800 mm clear behind it1,432 mm from the scene');
  await page.fill('Aisle asked for', '75 cm');
  await page.seesNo('! 800 mm');
  await page.fill('A front as high as', '10b');
  // 30 plates are 96 mm. The eye of an adult is 860 mm over the table: 1,432 × 96 / (860 − 96) = 180 mm, 22 studs.
  const rows = await page.rowsOf('Eyes of the public');
  expect(rows.find(([who]) => who === 'Adult')).toEqual(['Adult', '860 mm', '22 studs']);
  await page.fill('Eyes of a child', '700');
  expect((await page.rowsOf('Eyes of the public')).find(([who]) => who === 'Child')).toEqual([
    ...['Child', '△ 40 mm below', 'everything'],
  ]);
});

test('tables: what hangs over, the joint between two of them and its shim, and a load over what one bears', async () => {
  const page = await open('support', {
    tables: [
      { ...file.tables[0], w: 400, ratedKg: 1 },
      { id: 'u', name: 'Low table', x: 400, y: 0, w: 328, d: 768, height: 734, place: 'hall', ratedKg: 50 },
    ],
  });
  // 768 − 728 mm: five studs hang over in the east.
  await page.sees('Hangs over, east5 st, 40 mm');
  expect(await page.rowsOf('Joints of tables')).toEqual([
    ['Between', 'Gap', 'Step', 'Shim'],
    // 6 mm are one plate of 3.2 mm, and 2.8 mm.
    ['Long table, Low table', '0 mm', '△ 6 mm', expect.stringMatching(/^1p.*under Low table$/)],
  ]);
  const [, long, low] = await page.rowsOf('Load of each table');
  expect([long?.[0], low?.[0]]).toEqual(['Long table', 'Low table']);
  // 50 of 96 columns of studs stand on the first.
  expect([long?.[1], low?.[1]]).toEqual(['4,800', '4,416']);
});

test('a viewer reads the room and changes nothing', async () => {
  const page = await open('room', {}, { role: 'viewer', person: null });
  await page.sees('12 m²');
  expect(page.isDisabled('Room, east to west')).toBe(true);
  expect(screen.queryByRole('button', { name: 'Place' })).toBeNull();
});
