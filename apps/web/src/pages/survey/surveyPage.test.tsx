import { sceneFrom } from '@quarry/core/document';
import { openPage } from '../../../test/openPage.tsx';
import { SurveyPage } from './SurveyPage.tsx';

// What a lead finds out about the way into the hall.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const scene = sceneFrom({
  display: { name: 'Quay', kind: 'diorama', place: 'hall', showPlace: 'hall' },
  levels: [{ id: 'low', name: 'Low', height: 3 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 48 }],
  places: [
    {
      ...{ id: 'hall', name: 'Pier hall', ceiling: 3000, sceneX: 1000, sceneY: 1000 },
      walls: [
        { x: 0, y: 0 },
        { x: 6000, y: 0 },
        { x: 6000, y: 5000 },
        { x: 0, y: 5000 },
      ],
    },
  ],
  tables: [{ id: 't', name: 'Table', x: 0, y: 0, w: 768, d: 384, place: 'hall' }],
  passages: [
    { id: 'door', name: 'hall door', kind: 'door', place: 'hall', width: 830, height: 2010, order: 1 },
    {
      ...{ id: 'lift', name: 'goods lift', kind: 'lift', place: 'hall', width: 800, height: 2000, order: 2 },
      ...{ insideW: 1100, insideD: 700, insideH: 2050 },
    },
  ],
});

test('the module limit comes from the lift, not the door; smaller, it stops what was agreed', async () => {
  const page = await openPage(scene, <SurveyPage />, 'survey?sheet=way');
  await page.sees('The tightest is the goods lift: 96 × 80 studs');
  await page.press('Make it the module limit');
  await page.sees('The limit agreed is 96 × 80 studs: it passes.');
  // The lift turns out smaller: what was agreed no longer passes, in the words of the lift.
  await page.fill('Inside, depth', '52 cm');
  expect(page.valueOf('Inside, depth')).toBe('520 mm');
  await page.sees('△ The limit agreed, 96 × 80, does not pass the goods lift.');
  await page.press('Make it the module limit');
  // 512 mm of modules in 520 mm.
  await page.sees('The limit agreed is 96 × 64 studs: it passes.');
  await page.undo();
  await page.undo();
  await page.undo();
  await page.sees('The limit agreed is 96 × 48 studs: it passes.');
});
