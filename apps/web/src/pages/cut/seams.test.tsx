import { cleanup, screen } from '@testing-library/react';
import { listOf, sceneFrom, type Actor } from '@quarry/core/document';
import { onTable } from '../../../test/onTable.ts';
import { openPage, stopAt } from '../../../test/openPage.tsx';
import { CutPage } from './CutPage.tsx';

// A seam between two builders: read, signed by both, reopened by what changes, and measured at the table.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));
// Nothing is drawn here.
jest.mock('../../board/Board.tsx', () => ({ Board: () => null }));

const file = {
  display: { name: 'Quay', kind: 'diorama', method: 'solid', moduleMaxW: 48, moduleMaxD: 48 },
  bases: [{ id: 'b48', w: 48, d: 48, price: 14, stock: 2 }],
  people: [
    { id: 'ada', name: 'Ada Fenn', initials: 'AF' },
    { id: 'bo', name: 'Bo Marl', initials: 'BM' },
  ],
  sections: [
    { id: 'a', letter: 'A', name: 'West', x: 0, y: 0, w: 48, d: 48, owner: 'ada' },
    { id: 'b', letter: 'B', name: 'East', x: 48, y: 0, w: 48, d: 48, owner: 'bo' },
  ],
  ...onTable(96, 48),
  ways: [
    {
      ...{ id: 'w', name: 'Quay road', use: 'road', width: 8 },
      points: [
        { x: 0, y: 12 },
        { x: 96, y: 12 },
      ],
    },
  ],
  modules: [
    { id: 'm1', name: 'A1', x: 0, y: 0, w: 48, d: 48, bases: [{ x: 0, y: 0, w: 48, d: 48 }] },
    { id: 'm2', name: 'A2', x: 48, y: 0, w: 48, d: 48, bases: [{ x: 48, y: 0, w: 48, d: 48 }] },
  ],
} satisfies Parameters<typeof sceneFrom>[0];
const open = (scene = sceneFrom(file), actor: Actor = { role: 'planner', person: 'ada' }) =>
  openPage(scene, <CutPage />, 'cut?sheet=seams', actor);
beforeAll(() => stopAt('2031-06-02'));

test('what crosses a seam, signed by both, and opened again by a pad that is raised at it', async () => {
  const page = await open();
  await page.sees('0 of 1 agreed');
  expect(await page.rowsOf('What crosses the seam')).toEqual([
    ['Name', 'Middle at stud', 'Wide', 'From square', 'Height'],
    ['Quay road', '12.0', '8.0 st', '0°', '1b'],
  ]);
  await page.sees('8–9, 24–25, 40–41');
  await page.press('Sign for A1');
  await page.sees('A1 by Ada Fenn, 2031-06-02');
  expect(screen.queryByRole('button', { name: 'Sign for A1' })).toBeNull();
  await page.press('Sign for A2');
  await page.sees('1 of 1 agreed');
  const signed = page.scene();
  cleanup();
  // A knoll of two studs beside the line, raised by 2 plates where one is tolerated.
  const knoll = { ...signed.pad.p, id: 'k', name: 'Knoll', x: 47, y: 30, w: 1, d: 2, offset: 2, order: 1 };
  const later = await open({ ...signed, pad: { ...signed.pad, k: knoll } } as typeof signed);
  await later.sees('0 of 1 agreed');
  await later.sees('2 studs are not as they were signed');
  await later.fill('Rough ground may differ by', '2p');
  expect(listOf(later.scene(), 'seam')).toMatchObject([{ tolerance: 2 }]);
  await later.press('Sign for A1');
  await later.sees('A1 by Ada Fenn');
});

test('readings from the table are kept in the words of the trade, and one that is none is told with its line', async () => {
  const page = await open();
  const write = async (text: string) => {
    await page.fill('Readings at the seam of A1 and A2', text);
    await page.press('Keep readings');
  };
  await write('A1, 12, tall');
  await page.sees('“tall”');
  await write('A9, 12, 3');
  await page.sees('A9');
  await write('A1, 12, 1b\nA2, 12, 2b');
  expect(listOf(page.scene(), 'seam')).toMatchObject([
    {
      readings: [
        { side: 'a', at: 11, height: 3 },
        { side: 'b', at: 11, height: 6 },
      ],
    },
  ]);
  await page.sees('To mend');
});

test('a builder signs for the own module alone', async () => {
  const page = await open(sceneFrom(file), { role: 'builder', person: 'bo' });
  await page.sees('0 of 1 agreed');
  expect(screen.getByRole('button', { name: 'Sign for A1' }).hasAttribute('disabled')).toBe(true);
  await page.press('Sign for A2');
  await page.sees('A2 by Bo Marl');
});
