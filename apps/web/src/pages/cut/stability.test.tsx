import { waitFor } from '@testing-library/react';
import { sceneFrom } from '@quarry/core/document';
import { LONGEST, openPage } from '../../../test/openPage.tsx';
import { CutPage } from './CutPage.tsx';

// Whether modules stand by their pieces.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));
// Nothing is drawn here.
jest.mock('../../board/Board.tsx', () => ({ Board: () => null }));

const scene = sceneFrom({
  display: { name: 'Beck', kind: 'diorama', method: 'solid' },
  levels: [{ id: 'low', name: 'Low', height: 12 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 64, d: 16 }],
  pads: [
    { id: 'west', name: 'West bank', x: 0, y: 0, w: 12, d: 16, level: 'low', ground: 'soil' },
    { id: 'east', name: 'East bank', x: 36, y: 0, w: 28, d: 16, level: 'low', ground: 'soil', offset: 8 },
  ],
  ways: [
    {
      ...{ id: 'bridge', name: 'Beck bridge', use: 'path', width: 4, bridges: true, bridgeThick: 2 },
      ...{ maxGrade: 60, onSteep: 'follow', pierEvery: 32 },
      points: [
        { x: 8, y: 8, z: 12 },
        { x: 40, y: 8, z: 20 },
      ],
    },
  ],
  modules: [
    { id: 'a1', name: 'A1', x: 0, y: 0, w: 48, d: 16, bases: [{ x: 0, y: 0, w: 48, d: 16 }] },
    { id: 'a2', name: 'A2', x: 48, y: 0, w: 16, d: 16, bases: [{ x: 48, y: 0, w: 16, d: 16 }] },
  ],
});

test('the module with the thin sloping bridge falls, what is offered mends it', async () => {
  const page = await openPage(scene, <CutPage />, 'cut?sheet=stability');
  const verdicts = async () =>
    Object.fromEntries(
      (await page.rowsOf('How they stand')).slice(1).map(([name, , , verdict]) => [name, verdict]),
    );
  await page.press('Judge all');
  await page.sees('Judged as it is planned now');
  expect(await verdicts()).toEqual({ A1: '! comes apart', A2: '✓ stands' });
  // The worst module is shown first, with pieces of its bridge that nothing ties.
  await page.sees('A1: weakest joints');
  await page.sees('Make the bridge of “Beck bridge” 3 plates thick');
  await page.press('Apply');
  await page.sees('judge again');
  await page.press('Judge again');
  await waitFor(async () => expect(await verdicts()).toEqual({ A1: '✓ stands', A2: '✓ stands' }), LONGEST);
});
