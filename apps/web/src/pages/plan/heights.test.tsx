import { screen } from '@testing-library/react';
import { listOf, sceneFrom } from '@quarry/core/document';
import { compileRelief } from '@quarry/core/terrain';
import { openPage } from '../../../test/openPage.tsx';
import { HeightsDialog } from './HeightsDialog.tsx';
import type { ReadHeights } from './imports.ts';

// A file of heights, laid as ground: where, and how high.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const scene = sceneFrom({
  display: { name: 'Quay', kind: 'diorama' },
  levels: [{ id: 'low', name: 'Low', height: 3 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 8, d: 4 }],
});
const file = (values: readonly number[], cell: number | null): ReadHeights => ({
  ...{ file: 'fell.asc', name: 'fell' },
  grid: { columns: 4, rows: 2, values: Float64Array.from(values), cell, corner: null },
});
const open = (heights: ReadHeights, onDone = () => undefined as void) =>
  openPage(scene, <HeightsDialog heights={heights} onDone={onDone} />, 'plan', {
    role: 'planner',
    person: null,
  });

test('a grid in its own size lies from the corner with the heights it says; over the whole display each is four studs', async () => {
  const onDone = jest.fn();
  const page = await open(file([1, 2, 3, 4, 5, 6, 7, 8], 8), onDone);
  expect(page.valueOf('Where')).toBe('corner');
  await page.sees('Over studs 0 to 4 east, 0 to 2 south');
  await page.press('Lay as ground');
  expect(onDone).toHaveBeenCalledTimes(1);
  expect(listOf(page.scene(), 'terrain')).toHaveLength(1);
  const relief = compileRelief(page.scene());
  const height = (x: number, y: number) => relief.height[(y - relief.y) * relief.w + x - relief.x];
  expect([height(0, 0), height(3, 0), height(0, 1), height(3, 1)]).toEqual([1, 4, 5, 8]);
});

test('a grey picture is spread between two heights; the lowest must be below the highest', async () => {
  const page = await open(file([0, 0, 1, 1, 0, 0, 1, 1], null));
  expect(page.valueOf('Where')).toBe('display');
  await page.fill('Lowest', '4b');
  await page.fill('Highest', '2b');
  await page.sees('The lowest, 4b, must be below the highest, 2b.');
  expect(screen.getByRole('button', { name: 'Lay as ground' }).hasAttribute('disabled')).toBe(true);
  await page.fill('Highest', '24p');
  await page.press('Lay as ground');
  const relief = compileRelief(page.scene());
  // Dark at 12, light at 24, above the level at 3.
  expect([relief.height[0], relief.height[7]]).toEqual([15, 27]);
  await page.undo();
  expect(listOf(page.scene(), 'terrain')).toEqual([]);
});
