import { cleanup } from '@testing-library/react';
import { sceneFrom, type Scene } from '@quarry/core/document';
import { openPage } from '../../../test/openPage.tsx';
import { StockpilePage } from './StockpilePage.tsx';

// Grounds of one's own.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const scene = sceneFrom({
  display: { name: 'Quay', kind: 'diorama', method: 'solid' },
  levels: [{ id: 'low', name: 'Low', height: 9 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 32, d: 32 }],
  pads: [{ id: 'p', name: 'Yard', x: 0, y: 0, w: 16, d: 32, level: 'low', ground: 'soil' }],
});

test('snow is described with a layer under it, a yard is laid in it, and it is taken off again', async () => {
  const first = await openPage(scene, <StockpilePage />, 'stockpile?sheet=colours');
  await first.press('Custom grounds');
  await first.sees('No custom ground yet');
  await first.press('New ground');
  await first.press('Layer');
  await first.choose('Colour of layer 2', 'Frost');
  await first.fill('Plates of layer 2', '3');
  // A cover, a plate and three more: five plates, 16 mm; the three are bricks.
  await first.sees('1b2p = 16 mm');
  await first.sees('0 studs');
  await first.sees('brick 2×4 in Frost');
  const snow = 'custom-1';
  expect(Object.keys(first.scene().customGround)).toEqual([snow]);
  const laid = { ...first.scene(), pad: { p: { ...scene.pad.p, ground: snow } } } satisfies Scene;
  cleanup();
  const page = await openPage(laid, <StockpilePage />, 'stockpile?sheet=colours');
  await page.press('Custom grounds');
  // 16 × 32 studs of yard.
  await page.sees('512 studs');
  // Removed, what was of it is of what it was like.
  await page.press('Remove this ground');
  await page.sees('No custom ground yet');
  expect(page.scene().pad.p.ground).toBe('soil');
});
