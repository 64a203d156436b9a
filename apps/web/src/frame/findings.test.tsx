import { cleanup, screen } from '@testing-library/react';
import { sceneFrom } from '@quarry/core/document';
import { openPage } from '../../test/openPage.tsx';
import { renderOn } from '../../test/renderOn.tsx';
import { FindingsPanel } from './Findings.tsx';

jest.mock('../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

test('no number of findings is told before the scene is checked; then those that are listed', async () => {
  // A plot leaves the footprint.
  const scene = sceneFrom({
    display: { name: 'Quay', kind: 'diorama' },
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 48, d: 48 }],
    plots: [{ id: 'b', name: 'Mill', x: 40, y: 20, w: 16, d: 8, height: 18 }],
  });
  const panel = <FindingsPanel page="plan" onClose={() => undefined} />;
  await renderOn(scene, panel);
  const heading = () => screen.getByRole('heading', { level: 2 }).textContent;
  expect(heading()).toBe('Findings');
  expect(screen.getByRole('status').textContent).toContain('Checking the scene');
  cleanup();
  const page = await openPage(scene, panel, 'plan');
  await page.sees(' errors, ');
  expect(heading()).toMatch(/^[1-9]\d* findings \d+ errors, \d+ warnings$/);
  expect(screen.queryByRole('status')).toBeNull();
  expect(page.text()).toContain('Mill');
});
