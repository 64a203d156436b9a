import { screen, within } from '@testing-library/react';
import { listOf, sceneFrom, type Actor } from '@quarry/core/document';
import { onTable } from '../../../test/onTable.ts';
import { openPage, stopAt } from '../../../test/openPage.tsx';
import { useDisplay } from '../../data/useDisplay.tsx';
import { useDerived } from '../../workers/useDerived.ts';
import { NeedSheet } from './NeedSheet.tsx';
import { StockpilePage } from './StockpilePage.tsx';
import { rowsOf } from './rows.ts';

// Bases, placeholders, shortages by colour, and one need with what may stand in for it.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const people = [
  { id: 'ada', name: 'Ada Fenn', initials: 'AF' },
  { id: 'bo', name: 'Bo Marl', initials: 'BM' },
];
const sections = [
  { id: 'a', letter: 'A', name: 'West', x: 0, y: 0, w: 48, d: 96, owner: 'ada' },
  { id: 'b', letter: 'B', name: 'East', x: 48, y: 0, w: 48, d: 96, owner: 'bo' },
];
const file = {
  display: { name: 'Quay', kind: 'diorama', currency: 'kr', viewedSides: ['s'], spares: 0 },
  ...{ people, sections },
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 96 }],
} satisfies Parameters<typeof sceneFrom>[0];
const PLANNER: Actor = { role: 'planner', person: 'ada' };
const open = (sheet: string, more: object, actor = PLANNER) =>
  openPage(sceneFrom({ ...file, ...more }), <StockpilePage />, `stockpile?sheet=${sheet}`, actor);
beforeAll(() => stopAt('2031-06-02'));

test('bases: what is owned covers both ways round, the rest has a price; a size is typed in any unit, and once', async () => {
  const base = (x: number, y: number, w: number, d: number) => ({ x, y, w, d });
  const page = await open('bases', {
    bases: [{ id: 'b48', w: 48, d: 48, price: 14, stock: 1 }],
    modules: [
      { id: 'm1', name: 'A1', x: 0, y: 0, w: 96, d: 48, bases: [base(0, 0, 48, 48), base(48, 0, 48, 48)] },
      { id: 'm2', name: 'A2', x: 0, y: 48, w: 48, d: 48, bases: [base(0, 48, 48, 32), base(0, 80, 48, 16)] },
      {
        id: 'm3',
        name: 'A3',
        x: 48,
        y: 48,
        w: 48,
        d: 48,
        bases: [base(48, 48, 16, 48), base(64, 48, 32, 48)],
      },
    ],
  });
  const of = (size: string) => within(screen.getByRole('listitem', { name: `Base ${size}` }));
  await page.sees('1 owned');
  expect(of('48×48').getByText('1 short')).toBeTruthy();
  expect(of('48×48').getByText('14.00 kr for 1')).toBeTruthy();
  // 48 × 16 lies in two modules, one turned: both are one size. It is on no list yet.
  expect(of('48×16').getByText('2 short')).toBeTruthy();
  expect(of('48×16').getByText('This size is not on the list.')).toBeTruthy();
  await page.sees('Bases short5');
  const size = async (words: string) => {
    await page.fill('Another size', words);
    return screen.getByRole('alert').textContent;
  };
  expect(await size('48 by')).toContain('Base:');
  expect(await size('48 × 48')).toBe('Base size: 48×48 is listed already.');
  // 128 × 384 mm, as a tape says it: 16 × 48 studs, listed the long way first.
  expect(await size('128 × 384 mm')).toBe('');
  expect(listOf(page.scene(), 'baseType').map(({ w, d }) => [w, d])).toContainEqual([48, 16]);
  await page.press('Remove base 48×16 from the list');
  expect(of('48×16').getByText('This size is not on the list.')).toBeTruthy();
});

test('placeholders: the seen ones first; what is here or comes is given to one of them, not to all', async () => {
  const stands = { part: 'brick-2x4', colour: 'slate', stands: 'pebble', qty: 6 };
  const page = await open('swaps', {
    placeholders: [
      { ...stands, id: 'back', x: 10, y: 4, section: 'a', notes: 'rear wall' },
      { ...stands, id: 'front', x: 60, y: 90, section: 'b' },
      { ...stands, id: 'middle', x: 10, y: 60, section: 'a' },
    ],
    lots: [{ id: 'l', part: 'brick-2x4', colour: 'slate', qty: 8, owner: 'ada' }],
    orders: [
      {
        ...{ id: 'o', name: 'Walls', by: 'ada', state: 'mail', expected: '2031-06-09' },
        lines: [{ part: 'brick-2x4', colour: 'slate', qty: 5, price: 0.2 }],
      },
    ],
  });
  // None of it waits until the ground is counted.
  const rows = () =>
    [...document.querySelectorAll('[data-swap]')].map((row) => [
      row.getAttribute('data-swap'),
      (row.textContent ?? '').replace(/^.*(seen|deep)/, '$1'),
    ]);
  expect(rows()).toEqual([
    ['front', 'seen: 6 studs from the viewers · what replaces it is hereSwapped'],
    // Two of the eight are left, four of the five that come are wanted.
    ['middle', 'seen: 36 studs from the viewers · 4 to come, on the way for 9 Jun 2031Swapped'],
    [
      'back',
      'deep in: 92 studs from the viewers · 1 to come, on the way for 9 Jun 2031 · 5 not ordered yetSwapped',
    ],
  ]);
  await page.press('Swapped');
  await page.sees('1 swapped so far');
  expect(page.scene().placeholder.front?.swapped).toBe('2031-06-02');
  await page.undo();
  await page.sees('0 swapped so far');
});

test('a placeholder is noted by names as people say them, in the middle of its section', async () => {
  const page = await open('swaps', {}, { role: 'builder', person: 'bo' });
  await page.sees('No placeholder stands');
  const note = async () => {
    await page.press('Note it');
    return screen.getByRole('alert').textContent ?? '';
  };
  expect(await note()).toContain('Part: “” is not known');
  await page.fill('Part', '2x4 plate');
  expect(await note()).toBe('Stands in: “” is no colour of the palette.');
  await page.fill('Stands in', 'PEBBLE');
  await page.fill('Should be', 'Slaty');
  expect(await note()).toBe('Should be: “Slaty” is no colour of the palette.');
  await page.fill('Pieces', '2.5');
  // Enter in a field notes it, if it can be.
  await page.fill('Should be', 'slate');
  await page.sees('Pieces: “2.5” must be a whole number from 1 to 1,000,000.');
  await page.fill('Pieces', '1,200');
  expect(listOf(page.scene(), 'placeholder')).toMatchObject([
    { part: 'plate-2x4', stands: 'pebble', colour: 'slate', qty: 1200, section: 'b', x: 72, y: 48 },
  ]);
  await page.sees('1200 × plate 2×4: stands in Pebble, should be Slate');
});

const needed: Partial<Parameters<typeof sceneFrom>[0]> = {
  partLists: [
    {
      ...{ id: 'mill', name: 'Mill', use: 'need', section: 'a' },
      lines: [
        { part: 'brick-2x4', colour: 'slate', qty: 30 },
        { part: 'plate-2x4', colour: 'moss', qty: 10 },
        { part: 'brick-1x2', colour: 'slate', qty: 4 },
      ],
    },
  ],
  lots: [
    { id: 'own', part: 'brick-2x4', colour: 'slate', qty: 12, owner: 'ada', place: 'drawer 3' },
    { id: 'small', part: 'brick-2x2', colour: 'slate', qty: 40, owner: 'ada' },
    { id: 'moss', part: 'plate-2x4', colour: 'moss', qty: 50, owner: 'ada' },
  ],
  promises: [{ id: 'p', part: 'brick-1x2', colour: 'slate', qty: 4, person: 'bo', section: 'a' }],
};

test('shortages by colour and family are those of the needs', async () => {
  const page = await open('matrix', needed);
  await page.sees('Shortages by colour and family');
  const [heads, ...rows] = await page.rowsOf('Pieces short by colour and family');
  expect(heads).toEqual(['Colour', 'brick', 'plate', 'all']);
  // 18 of 30 are short, and 4 that nobody has.
  expect(rows).toEqual([
    ['Slate', '22', '', '! 22'],
    ['Moss', '', '10', '10'],
  ]);
  expect(screen.getByRole('button', { name: 'brick in Slate: 22 short and 0 late of 34' })).toBeTruthy();
  await page.press(/^brick in Slate/);
  await page.sees('Nothing since this display was opened');
  expect(page.valueOf('Find parts')).toBe('Slate');
});

function OneNeed({ part }: { part: string }) {
  const scene = useDisplay(({ scene: now }) => now);
  const rows = useDerived(({ materials }) => materials?.rows);
  const row = rows && rowsOf(scene, rows).find((one) => one.part === part);
  return row ? <NeedSheet row={row} onClose={() => undefined} /> : null;
}

test('one need: what covers it, what may stand in, and what its part weighs and costs', async () => {
  const given: Parameters<typeof sceneFrom>[0] = { ...file, ...onTable(96, 96), pads: [], ...needed };
  const scene = sceneFrom(given);
  const page = await openPage(scene, <OneNeed part="brick-2x4" />, 'stockpile', PLANNER);
  await page.sees('18 short');
  await page.sees('own stock12drawer 3');
  // Two 2×2 make a 2×4: forty of them make twenty.
  await page.sees('2 × brick 2×2 in Slate');
  await page.sees('stock makes 20');
  await page.press('Always');
  await page.sees('accepted always');
  await page.sees('all covered');
  expect(listOf(page.scene(), 'substitute')).toMatchObject([
    {
      part: 'brick-2x4',
      colour: 'slate',
      use: [{ part: 'brick-2x2', colour: 'slate', qty: 2 }],
      section: null,
    },
  ]);
  await page.press('Take back');
  await page.sees('18 short');
  await page.choose('Put by for it from', 'Bo Marl');
  await page.sees('Bo Marl puts 18 by');
  await page.press('Let go');
  await page.seesNo('Bo Marl puts');
  await page.fill('One weighs', '2.32');
  await page.sees('as weighed');
  await page.fill('One costs', '0');
  expect(page.scene().partType['brick-2x4']).toMatchObject({ grams: 2.32, price: 0 });
  await page.fill('One weighs', '0');
  await page.sees('One weighs');
  expect(page.scene().partType['brick-2x4']?.grams).toBe(2.32);
});
