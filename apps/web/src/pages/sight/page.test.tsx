import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { sceneFrom } from '@quarry/core/document';
import { LONGEST, openPage } from '../../../test/openPage.tsx';
import { SightPage } from './SightPage.tsx';

// What a lead does on Sight: ground that nobody sees is left plain, and what is hidden is freed.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));
// Nothing is drawn here.
jest.mock('../../board/Board.tsx', () => ({ Board: () => null }));

const scene = sceneFrom({
  display: { name: 'Seen', kind: 'diorama', method: 'solid', viewedSides: ['s', 'e'], place: 'hall' },
  places: [{ id: 'hall', name: 'Hall', walls: [], sceneX: 1000, sceneY: 1000 }],
  tables: [{ id: 't', name: 'Table', place: 'hall', x: 1000, y: 1000, w: 768, d: 384, height: 740 }],
  levels: [{ id: 'low', name: 'Low', height: 3 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 48 }],
  pads: [
    { id: 'p', name: 'Yard', x: 0, y: 0, w: 96, d: 48, level: 'low', ground: 'paving' },
    { id: 'q', name: 'Wall', x: 0, y: 20, w: 90, d: 8, level: 'low', offset: 45, ground: 'rock' },
  ],
  sections: [{ id: 'a', letter: 'A', name: 'West', x: 0, y: 0, w: 96, d: 48 }],
  figures: [{ id: 'g', name: 'Splitters', x: 60, y: 36, cast: 3 }],
  plots: [
    { id: 'b', name: 'Mill', x: 40, y: 40, w: 40, d: 6, height: 60 },
    { id: 'c', name: 'Store', x: 66, y: 28, w: 8, d: 12, height: 60 },
  ],
  photoSpots: [{ id: 'gate', name: 'Gate', x: 48, y: 100, bearing: 0 }],
});
const open = (sheet: string) => openPage(scene, <SightPage />, `sight?sheet=${sheet}`);

test('ground that nobody sees is left plain and taken back; a quiet side counts less', async () => {
  const page = await open('sections');
  await screen.findByRole('table', { name: 'Seen by section' }, LONGEST);
  await page.press('What that saves');
  const table = await screen.findByRole('table', { name: 'Pieces of any colour' }, LONGEST);
  const [, ...rows] = within(table).getAllByRole('row');
  const freed = rows.reduce((sum, row) => sum + Number.parseInt(row.children[1]?.textContent ?? '', 10), 0);
  expect(freed).toBeGreaterThan(0);
  await page.press('Leave it plain');
  await page.sees('Left plain:');
  await page.press('Take back');
  await page.seesNo('Left plain:');
  await page.tab('Who looks');
  await page.fill('The east side', '10');
  expect(page.acts.at(-1)?.changes).toMatchObject([{ set: { crowd: { e: 10 } } }]);
  await screen.findByRole('table', { name: 'First views and photos' }, LONGEST);
});

test('a small scene that children cannot see: what hides it, a move by computation, and back', async () => {
  const page = await open('things');
  const things = await screen.findByRole(
    'table',
    { name: 'Buildings, small scenes and signboards' },
    LONGEST,
  );
  const row = within(things)
    .getAllByRole('row')
    .find(({ textContent }) => textContent?.includes('Splitters'));
  expect(row?.children[3]?.textContent?.replace('△ ', '')).toBe('0 %');
  await page.press('Splitters');
  await screen.findByRole('table', { name: 'What hides Splitters' }, LONGEST);
  const free = () => Number(/(\d+) % free, the mean of all/.exec(page.text())?.[1]);
  const before = free();
  await page.press('What would free it');
  const apply = await waitFor(() => {
    const [first] = screen.getAllByRole('button', { name: /^Apply/ });
    return first;
  }, LONGEST);
  const offered = apply.closest('li')?.textContent ?? '';
  const promised = Number(/(\d+) % free/.exec(offered)?.[1]);
  await userEvent.click(apply);
  // Looked at again, it comes to what was promised.
  await waitFor(() => expect(free()).toBe(promised), LONGEST);
  expect(promised).toBeGreaterThan(before + 10);
  await page.undo();
  await waitFor(() => expect(free()).toBe(before), LONGEST);
});
