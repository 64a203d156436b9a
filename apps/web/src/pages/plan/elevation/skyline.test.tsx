import { act, screen } from '@testing-library/react';
import { sceneFrom } from '@quarry/core/document';
import { onTable } from '../../../../test/onTable.ts';
import { openPage } from '../../../../test/openPage.tsx';
import { useView } from '../../../data/view.ts';
import { SkylineDialog } from './SkylineDialog.tsx';

// The street elevation: fronts from the left, and how much of each is seen.

jest.mock('../../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const plot = (id: string, name: string, x: number, y: number, w: number, height: number) => ({
  ...{ id, name, x, y, w, d: 8, height },
});
const scene = sceneFrom({
  display: { name: 'Quay', kind: 'city', viewedSides: ['s'] },
  ...onTable(96, 48),
  plots: [
    // The low inn stands before the left half of the tall mill.
    plot('mill', 'Mill', 40, 4, 16, 60),
    plot('inn', 'Inn', 40, 30, 8, 30),
    plot('barn', 'Barn', 8, 30, 16, 18),
  ],
});

test('from the side that visitors look at first: what stands before what, and from behind the other way', async () => {
  const onClose = jest.fn();
  const page = await openPage(scene, <SkylineDialog onClose={onClose} />, 'plan');
  const rows = async () => (await page.rowsOf('Fronts from the left')).slice(1);
  // On ground of 3 plates; walls of 30 plates before walls of 60 hide half of the width by half of the height.
  const seen = async () => (await rows()).map(([name, foot, , , share]) => [name, foot, share]);
  expect(await seen()).toEqual([
    ['Barn', '1b', '100 %'],
    ['Mill', '1b', '75 %'],
    ['Inn', '1b', '100 %'],
  ]);
  expect((await rows())[0]?.slice(2, 4)).toEqual(['7b', expect.stringMatching(/^7b.* · /)]);
  await page.tab('From the north');
  await page.sees('From the left');
  // From behind the mill hides the inn wholly, and left is right.
  await screen.findByRole('img', { name: 'The display from the north, 3 fronts' });
  expect(await seen()).toEqual([
    ['Mill', '1b', '100 %'],
    ['Inn', '1b', '△ 0 %'],
    ['Barn', '1b', '100 %'],
  ]);
  await page.press('Inn');
  expect(onClose).toHaveBeenCalledTimes(1);
  expect(useView.getState().picked).toMatchObject({ kind: 'plot', id: 'inn' });
  act(() => useView.getState().pick(null));
});
