import { cleanup, waitFor } from '@testing-library/react';
import { listOf } from '@quarry/core/document';
import { demoScene } from '../../../test/demoScene.ts';
import { LONGEST, openPage } from '../../../test/openPage.tsx';
import { BriefPage } from './BriefPage.tsx';

// What a weekend builder and a city keeper read on the Brief.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

test('a contest card is held against the scene, and begun anew from another', async () => {
  const page = await openPage(demoScene('heron-weir'), <BriefPage />, 'brief');
  const expectKept = (verdicts: Readonly<Record<string, string>>) =>
    waitFor(async () => {
      const rows = await page.rowsOf('The card against the scene');
      expect(Object.fromEntries(rows.map(([rule, , , kept]) => [rule, kept]))).toEqual({
        ...{ Rule: 'Kept', Base: 'yes', 'All that is placed': 'yes', 'Over the base': 'yes' },
        ...verdicts,
      });
    }, LONGEST);
  // Twelve bricks at most, and its rock is two plates higher; six clear rounds asked for and four placed.
  await expectKept({ 'Height from the base': '! no', 'Required pieces': '! no' });
  await page.fill('Placed of clear round 1×1', '6');
  await page.choose('Begin from', '16 × 16');
  expect(page.valueOf('Height at most')).toBe('24b');
  await expectKept({ 'Height from the base': 'yes', 'Required pieces': 'yes' });
});

test('a hut pushed over the edge from the ground up is told on the card; two studs from two bricks up it allows', async () => {
  const scene = demoScene('heron-weir');
  const [hut] = listOf(scene, 'plot');
  const expectOver = async (x: number, told: readonly string[]) => {
    const moved = { ...hut, x };
    const page = await openPage({ ...scene, plot: { [moved.id]: moved } }, <BriefPage />, 'brief');
    await waitFor(
      async () => expect(await page.rowsOf('The card against the scene')).toContainEqual(told),
      LONGEST,
    );
    cleanup();
  };
  await expectOver(13, ['Over the base', 'east 3 studs', '2 studs from 2b up', '! no']);
  await expectOver(12, ['Over the base', 'east 2 studs', '2 studs from 2b up', 'yes']);
});

test('how little of a room its plot holds, whether a seat fits a figure, and sizes of one symmetry', async () => {
  const page = await openPage(demoScene('larch-lane'), <BriefPage />, 'brief?sheet=space');
  await page.press('Add a room or yard');
  await page.fill('True width of main room', '60 ft');
  expect(page.valueOf('True width of main room')).toBe('18.288 m');
  await page.fill('True depth of main room', '12');
  await page.choose('Plot of main room', 'Tailor');
  // 18.288 m ÷ 30 ÷ 8 mm = 76.2 studs, 12 m = 50: 30 × 30 inside of 3,810.
  await page.sees('△ 24 % of the floor it needs');
  await page.sees('needs 79 × 52, has 32 × 32');
  await page.fill('True width of main room', '12000 m');
  await page.sees('is past the limit of 10000 m');
  await page.tab('Scale');
  await page.press('Add a piece');
  await page.fill('Height of bench', '9');
  await page.sees('△ reaches the chest');
  await page.fill('Height of bench', '1b');
  await page.seesNo('reaches the chest');
  // A real thing, even for symmetry; the display's own scale decides.
  await page.fill('True width', '2.55');
  await page.choose('Symmetry', 'Even');
  const [, ...sizes] = await page.rowsOf('Buildable sizes');
  expect(sizes.length).toBeGreaterThan(2);
  for (const [size = ''] of sizes) {
    const [long, wide] = size.split(' × ').map(Number);
    expect([size, long % 2, wide % 2]).toEqual([size, 0, 0]);
  }
});
