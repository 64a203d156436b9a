import { act, fireEvent, screen } from '@testing-library/react';
import { sceneFrom } from '@quarry/core/document';
import { openPage } from '../../../test/openPage.tsx';
import { useView } from '../../data/view.ts';
import { SightPage } from './SightPage.tsx';

// Walking round the display: where one stands, whose eyes look and at what, in words and steps.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));
// Nothing is drawn here: what would be drawn is told.
jest.mock('../../board/Board.tsx', () => ({ Board: () => null }));
jest.mock('./WalkView.tsx', () => ({
  SEEN_PAINTS: {},
  WalkView: ({ label, lamps }: { label: string; lamps: readonly unknown[] | null }) => (
    <p data-view data-lamps={lamps?.length ?? 'bright'}>
      {label}
    </p>
  ),
}));

const scene = sceneFrom({
  display: { name: 'Seen', kind: 'diorama', method: 'solid', viewedSides: ['s'], place: 'hall' },
  places: [{ id: 'hall', name: 'Hall', walls: [], sceneX: 1000, sceneY: 1000, eyeChild: 1050 }],
  tables: [{ id: 't', name: 'Table', place: 'hall', x: 1000, y: 1000, w: 768, d: 384, height: 740 }],
  levels: [{ id: 'low', name: 'Low', height: 3 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 48 }],
  pads: [{ id: 'p', name: 'Yard', x: 0, y: 0, w: 96, d: 48, level: 'low', ground: 'paving' }],
  sections: [{ id: 'a', letter: 'A', name: 'West', x: 0, y: 0, w: 96, d: 48 }],
  plots: [{ id: 'b', name: 'Mill', x: 40, y: 20, w: 16, d: 8, height: 60 }],
  photoSpots: [{ id: 'gate', name: 'Gate', x: 48, y: 100, bearing: 0 }],
});
const view = () => document.querySelector('[data-view]')?.textContent ?? '';
const walk = () => screen.getByRole('application');

test('steps along a side go the way one sees them, from the north as from the south', async () => {
  const page = await openPage(scene, <SightPage />, 'sight?sheet=walk');
  await page.sees('Where you stand');
  // In the middle of 768 mm; an adult's eyes as the place says.
  expect(view()).toMatch(/^The display from the south, 384 mm along it and .* mm off, by eyes 1,600 mm over/);
  fireEvent.keyDown(walk(), { key: 'ArrowRight' });
  expect(view()).toContain('584 mm along it');
  fireEvent.keyDown(walk(), { key: 'ArrowRight' });
  // No farther than its end.
  expect(view()).toContain('768 mm along it');
  await page.choose('Before the side', 'north');
  expect(view()).toMatch(/^The display from the north, 384 mm along it/);
  // Who looks south has the west at the right.
  fireEvent.keyDown(walk(), { key: 'ArrowRight' });
  expect(view()).toContain('184 mm along it');
  await page.fill('Off the scene', '20 cm');
  expect(view()).toContain('200 mm off');
  fireEvent.keyDown(walk(), { key: 'ArrowUp' });
  fireEvent.keyDown(walk(), { key: 'ArrowUp' });
  // No nearer than a hand.
  expect(view()).toContain('150 mm off');
  await page.choose('Eyes of', 'Child');
  expect(view()).toContain('by eyes 1,050 mm over the floor');
});

test('one looks at a building, from a photo spot, or turns it by hand; without a lamp the hall is not dark', async () => {
  const page = await openPage(scene, <SightPage />, 'sight?sheet=walk');
  await page.sees('Where you stand');
  await page.choose('Look at', 'Mill');
  expect(view()).toContain(', looking at Mill');
  expect(useView.getState().picked).toMatchObject({ kind: 'plot', id: 'b' });
  await page.choose('Stand', 'at Gate');
  expect(view()).toMatch(/^The display from Gate, by an adult’s eyes/);
  const before = view();
  fireEvent.keyDown(walk(), { key: 'ArrowLeft' });
  expect(view()).toBe(before);
  expect(page.isDisabled('Before the side')).toBe(true);
  expect(page.isDisabled('Dark hall, 0 lamps lit')).toBe(true);
  act(() => screen.getByRole<HTMLInputElement>('checkbox', { name: 'Turn it by hand instead' }).click());
  expect(view()).toBe('The whole display in three dimensions, turned by hand');
  expect(page.isDisabled('Look at')).toBe(true);
  act(() => useView.getState().pick(null));
});
