import { screen, within } from '@testing-library/react';
import { sceneFrom } from '@quarry/core/document';
import type { PublicPage } from '@quarry/protocol/share';
import { renderOn, sees } from '../../../test/renderOn.tsx';
import { stopAt } from '../../../test/openPage.tsx';
import { ApiProblem, queryClient } from '../../data/api.ts';
import { shareApi } from '../../data/shareApi.ts';
import { SharePage } from './SharePage.tsx';

// What the public sees of a display: with answers as a server gives them. Reports are shown by a library that only the
// browser's journeys load.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));
jest.mock('./ReportText.tsx', () => ({ ReportText: ({ text }: { text: string }) => <p>{text}</p> }));

const page = (more: Partial<PublicPage> = {}): PublicPage => ({
  ...{ name: 'Skarn fell', kind: 'Diorama', ratio: 42, showName: '', showDate: null, done: 0.375 },
  ...{ sections: [], totals: [], story: [], finds: [], versions: [], reports: [], photos: [] },
  ...{ plan: '<svg/>', at: new Date(2031, 5, 1, 19, 40).getTime() },
  ...more,
});
const text = () => (document.body.textContent ?? '').replace(/\s+/g, ' ');
const open = () => renderOn(sceneFrom({ display: { name: 'Any', kind: 'city' } }), <SharePage token="t0" />);
beforeAll(() => stopAt('2031-06-02'));
beforeEach(() => queryClient.clear());
afterEach(() => jest.restoreAllMocks());

test('how far it is, section by section, in numbers; the show by its name and its days', async () => {
  jest.spyOn(shareApi, 'page').mockResolvedValue(
    page({
      ...{ showName: 'Spring fair', showDate: '2031-06-16' },
      sections: [
        { letter: 'A', name: 'Fell', stage: 'building', done: 0.5, owner: 'Ada' },
        { letter: 'B', name: 'Quay', stage: 'planned', done: 0, owner: null },
      ],
      totals: [
        { word: 'pieces', count: 12345 },
        { word: 'of track', count: 4.5, unit: 'm' },
      ],
    }),
  );
  await open();
  await sees('38 % built');
  expect(shareApi.page).toHaveBeenCalledWith('t0');
  expect(document.title).toBe('Skarn fell');
  expect(text()).toContain('Diorama at 1:42, Spring fair 16 Jun 2031, in 14 days');
  expect(text()).toContain('Last changed 1 Jun, 19:40.');
  const rows = within(screen.getByRole('region', { name: '38 % built' })).getAllByRole('listitem');
  expect(rows.map(({ textContent }) => textContent)).toEqual(['A, FellAdabuilding50 %', 'B, Quayplanned0 %']);
  expect(text()).toContain('pieces12,345');
  expect(text()).toContain('of track4.5 m');
  const picture = screen.getByAltText('Plan of Skarn fell from above, with its sections A, B');
  expect(picture.getAttribute('src')).toBe('data:image/svg+xml;charset=utf-8,%3Csvg%2F%3E');
  // What there is none of has no heading.
  expect(screen.getAllByRole('heading').map(({ textContent }) => textContent)).toEqual([
    ...['Skarn fell', '38 % built', 'In numbers'],
  ]);
});

test('the story in its order, what to look for, how else it is shown, photos and reports', async () => {
  jest.spyOn(shareApi, 'page').mockResolvedValue(
    page({
      showDate: '2031-05-01',
      story: [
        { order: 1, name: 'The lost goat', story: 'Up on the ledge.', cast: ['goat', 'smith'] },
        { order: 2, name: 'Low tide', story: '', cast: [] },
      ],
      finds: [{ word: 'goats', count: 1200 }],
      versions: [
        { name: 'With the mill', stands: true, totals: [{ word: 'pieces', base: 12000, count: 13500 }] },
        { name: 'Bare', stands: false, totals: [] },
      ],
      reports: [{ name: 'May', at: null, text: 'The quay stands.' }],
      photos: [
        { file: 'f1', width: 800, height: 600, taken: '2031-05-30T18:05', section: 'A, Fell' },
        { file: 'f2', width: 800, height: 600, taken: '2031-05-31T09:00', section: null },
      ],
    }),
  );
  await open();
  await sees('The story');
  // A show that is over has no days to come.
  expect(text()).toContain('shown 1 May 2031');
  expect(text()).not.toContain('in 0 days');
  const story = within(screen.getByRole('region', { name: 'The story' })).getAllByRole('listitem');
  expect(story.map(({ textContent }) => textContent)).toEqual([
    '1The lost goatUp on the ledge.With goat, smith',
    '2Low tide',
  ]);
  expect(text()).toContain('goats1,200');
  expect(text()).toContain('With the mill, it stands now13,500 pieces instead of 12,000');
  await sees('The quay stands.');
  const photo = screen.getByAltText('A, Fell, 30 May, 18:05');
  expect(photo.getAttribute('src')).toBe('/api/share/t0/photos/f1?small');
  expect(photo.closest('a')?.getAttribute('href')).toBe('/api/share/t0/photos/f1');
  expect(screen.getByAltText('The display, 31 May, 09:00')).toBeTruthy();
});

test('a page that was switched off shows nothing and says so', async () => {
  const message = 'There is no such page, or it was switched off.';
  jest.spyOn(shareApi, 'page').mockRejectedValue(new ApiProblem(404, { code: 'not-found', message }));
  await open();
  await sees('There is nothing to see here');
  expect(screen.getByRole('alert').textContent).toBe(message);
  expect(screen.queryByRole('img')).toBeNull();
});
