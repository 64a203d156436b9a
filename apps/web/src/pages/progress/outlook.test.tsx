import { cleanup, waitFor } from '@testing-library/react';
import { sceneFrom } from '@quarry/core/document';
import { LONGEST, openPage, stopAt } from '../../../test/openPage.tsx';
import { ProgressPage } from './ProgressPage.tsx';

// When it will be done, with odds.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));
// Nothing is drawn here.
jest.mock('../../ui/useChart.ts', () => ({ useChart: () => ({ current: null }) }));

const section = (id: string, name: string, x: number, owner: string | null) => ({
  ...{
    id,
    letter: id.toUpperCase(),
    name,
    x,
    y: 0,
    w: 48,
    d: 48,
    owner,
    hours: 40,
    stage: 'ground' as const,
  },
});
const FILE = {
  display: { name: 'Quay', kind: 'diorama' as const, showName: 'Pier Day', showDate: '2031-07-20' },
  levels: [{ id: 'low', name: 'Low', height: 3 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 48 }],
  people: [{ id: 'ada', name: 'Ada Fenn', initials: 'AF' }],
  calendars: [{ id: 'c', person: 'ada', weekly: [0, 3, 0, 3, 0, 3, 6] }],
  sections: [section('b', 'Mill street', 0, 'ada'), section('e', 'Yard', 48, null)],
  tasks: [
    { id: 'kerb', name: 'Kerb', section: 'b', low: 10, likely: 20, high: 60 },
    { id: 'wall', name: 'Wall', section: 'e', low: 1, likely: 2, high: 5 },
  ],
  sessions: [1, 2, 3].map((day) => ({
    ...{
      id: `s${day}`,
      person: 'ada',
      section: 'b',
      work: 'ground' as const,
      minutes: 60,
      pieces: 100 + day,
    },
    start: `2031-05-0${day}T18:00:00Z`,
  })),
};
const open = (more: object = {}) =>
  openPage(sceneFrom({ ...FILE, ...more }), <ProgressPage />, 'progress?sheet=outlook', {
    role: 'owner',
    person: 'ada',
  });
beforeAll(() => stopAt('2031-06-02'));

test('odds leave out what is not known; with it they stand, and move when a guess does', async () => {
  const without = await open();
  await without.sees('Left out: section E');
  await without.sees('Section E: who builds it?');
  cleanup();
  const page = await open({ sections: FILE.sections.map((one) => ({ ...one, owner: 'ada' })) });
  const odds = () => Number(/Ready for Pier Day\s*[<>]? ?(\d+) %/.exec(page.text())?.[1]);
  await waitFor(() => expect(odds()).toBeGreaterThan(1), LONGEST);
  await page.seesNo('Left out');
  const before = odds();
  await page.fill('B, Mill street', '900');
  await waitFor(() => expect(odds()).toBeLessThan(before), LONGEST);
  await page.sees('What moves the odds most');
});
