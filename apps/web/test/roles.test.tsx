import { cleanup } from '@testing-library/react';
import { sceneFrom, type Actor } from '@quarry/core/document';
import { FindingsPanel } from '../src/frame/Findings.tsx';
import { BriefPage } from '../src/pages/brief/BriefPage.tsx';
import { CutPage } from '../src/pages/cut/CutPage.tsx';
import { PlanPage } from '../src/pages/plan/PlanPage.tsx';
import { ProgressPage } from '../src/pages/progress/ProgressPage.tsx';
import { openPage, pickFromOutline } from './openPage.tsx';

// What pages let a builder and a viewer do.

jest.mock('../src/data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));
// Nothing is drawn here.
jest.mock('../src/board/Board.tsx', () => ({ Board: () => null }));
jest.mock('../src/board/Profile.tsx', () => ({ Profile: () => null }));
jest.mock('../src/ui/useChart.ts', () => ({ useChart: () => undefined }));

const scene = sceneFrom({
  display: { name: 'Quay', kind: 'diorama', method: 'solid', moduleMaxW: 48, moduleMaxD: 48 },
  levels: [{ id: 'low', name: 'Low', height: 3 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 48 }],
  pads: [{ id: 'p', name: 'Yard', x: 0, y: 0, w: 96, d: 48, level: 'low', ground: 'paving' }],
  bases: [{ id: 'b48', w: 48, d: 48, price: 14, stock: 9 }],
  people: [{ id: 'bo', name: 'Bo Marl', initials: 'BM' }],
  sections: [
    { id: 'a', letter: 'A', name: 'West', x: 0, y: 0, w: 48, d: 48, owner: 'bo' },
    { id: 'b', letter: 'B', name: 'East', x: 48, y: 0, w: 48, d: 48 },
  ],
  plots: [
    { id: 'mill', name: 'Mill', x: 8, y: 8, w: 16, d: 8, height: 18 },
    // It leaves the footprint: a finding.
    { id: 'barn', name: 'Barn', x: 88, y: 8, w: 16, d: 8, height: 18 },
  ],
});
const BUILDER: Actor = { role: 'builder', person: 'bo' };
const VIEWER: Actor = { role: 'viewer', person: null };

test('a builder works in a section of their own and nowhere else', async () => {
  const page = await openPage(scene, <PlanPage />, 'plan', BUILDER);
  await pickFromOutline(page, 'Barn');
  await page.sees('Barn does not lie wholly in a section of yours');
  expect(page.isDisabled('Width, east')).toBe(true);
  await pickFromOutline(page, 'Mill');
  expect(page.isDisabled('Width, east')).toBe(false);
  await page.fill('Height', '15b');
  expect(page.acts.at(-1)?.changes).toMatchObject([{ kind: 'plot', id: 'mill', set: { height: 45 } }]);
  cleanup();
  const brief = await openPage(scene, <BriefPage />, 'brief', BUILDER);
  expect(brief.isDisabled('Agreed step between levels')).toBe(true);
  cleanup();
  const cut = await openPage(scene, <CutPage />, 'cut', BUILDER);
  await cut.press('Cut');
  await cut.sees('Proven');
  const use = [...document.querySelectorAll('button')].filter(
    ({ textContent }) => textContent === 'Use this cutting',
  );
  expect(use.map(({ disabled }) => disabled)).toEqual([true]);
});

test('a viewer looks', async () => {
  const page = await openPage(scene, <PlanPage />, 'plan', VIEWER);
  await page.sees('Viewers may look at this display but not change it.');
  await pickFromOutline(page, 'Mill');
  expect([page.valueOf('Height'), page.isDisabled('Height')]).toEqual(['6b', true]);
  cleanup();
  const panel = await openPage(
    scene,
    <FindingsPanel page="plan" onClose={() => undefined} />,
    'plan',
    VIEWER,
  );
  await panel.sees('“Barn”');
  await panel.seesNo('Accept with a reason');
  cleanup();
  const owner = await openPage(scene, <FindingsPanel page="plan" onClose={() => undefined} />, 'plan');
  await owner.sees('Accept with a reason');
  cleanup();
  const progress = await openPage(scene, <ProgressPage />, 'progress', VIEWER);
  await progress.sees('Section');
  const on = document.querySelector<HTMLButtonElement>('button[aria-label^="Section B on to"]');
  expect(on?.disabled).toBe(true);
});
