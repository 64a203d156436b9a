import { screen, waitFor, within } from '@testing-library/react';
import { sceneFrom } from '@quarry/core/document';
import { onTable } from '../../../test/onTable.ts';
import { LONGEST, openPage } from '../../../test/openPage.tsx';
import { CutPage } from './CutPage.tsx';

// What a lead does on Cut by hand; what a module weighs, and the order.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));
// Nothing is drawn here.
jest.mock('../../board/Board.tsx', () => ({ Board: () => null }));

const base = (x: number, y: number) => ({ x, y, w: 48, d: 48 });
const file = {
  display: { name: 'Quay', kind: 'diorama', method: 'solid', place: 'hall', moduleMaxW: 96, moduleMaxD: 48 },
  bases: [{ id: 'b48', w: 48, d: 48, price: 14, stock: 9 }],
  ...onTable(144, 96),
  modules: [
    { id: 'a1', name: 'A1', x: 0, y: 0, w: 48, d: 48, bases: [base(0, 0)] },
    { id: 'a2', name: 'A2', x: 48, y: 0, w: 96, d: 48, bases: [base(48, 0), base(96, 0)] },
    { id: 'a3', name: 'A3', x: 0, y: 48, w: 96, d: 48, bases: [base(0, 48), base(48, 48)] },
    { id: 'a4', name: 'A4', x: 96, y: 48, w: 48, d: 48, bases: [base(96, 48)] },
  ],
} satisfies Parameters<typeof sceneFrom>[0];
const scene = sceneFrom(file);
const open = (sheet: string) => openPage(scene, <CutPage />, `cut?sheet=${sheet}`);

test('a locked module is not cut by hand; the price of a split is told before it is made, and both are undone', async () => {
  const page = await open('hand');
  await page.press('Lock A1');
  await page.press('A1');
  await page.sees('Module A1 is locked; unlock it to cut it.');
  await page.press('A1');
  await page.press('A2');
  await page.sees('Split A2');
  await page.press(/^Split \+/);
  await page.sees('Current: 5 modules');
  await page.undo();
  await page.sees('Current: 4 modules');
  await page.undo();
  await waitFor(() => screen.getByRole('button', { name: 'Lock A1' }), LONGEST);
});

test('what a module weighs, and in which order they go on', async () => {
  const page = await open('lift');
  await page.press('A3');
  await page.sees('A3: how the limit is made');
  await page.tab('Order');
  await page.sees('Building up');
  await page.sees('Set down A1');
  expect(within(document.body).getAllByText(/Set down A\d/).length).toBeGreaterThanOrEqual(4);
});

test('a castle stands loose over a seam: one piece more, both modules wait for it, and two sheets say the same of it', async () => {
  const plot = { id: 'c', name: 'Castle', x: 44, y: 8, w: 8, d: 8, height: 18, mount: 'loose' as const };
  const page = await openPage(sceneFrom({ ...file, plots: [plot] }), <CutPage />, 'cut?sheet=hand');
  await page.sees('Castle');
  const pieces = await page.rowsOf('What is carried');
  const castle = pieces.find(([name]) => name === 'Castle') ?? [];
  expect(castle[1]).toBe('module A1, module A2');
  // Its mass nobody has set: its shell is a guess.
  expect(castle[4]).toMatch(/^\d+ g guess$/);
  expect(pieces.filter(([, , first]) => first === 'Castle').map(([name]) => name)).toEqual([
    'module A2',
    'module A1',
  ]);
  await page.tab('Lifting');
  const [, [, mass] = []] = await page.rowsOf('Carried by themselves');
  expect(mass).toBe(castle[4]);
});
