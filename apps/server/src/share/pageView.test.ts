/** @jest-environment jest-fixed-jsdom */
import { screen, within } from '@testing-library/dom';
import { nothingHere, readFrame } from './frame.ts';
import { renderPublicPage } from './pageView.tsx';
import type { PublicPage } from './publicPage.ts';

// What the public sees of a display, as it is sent. Reports are set by a library that only runs as a module: the journeys and
// the server's tests read them.

jest.mock('react-markdown', () => ({
  __esModule: true,
  default: ({ children }: { children: string }) => children,
}));
jest.mock('remark-gfm', () => ({ __esModule: true, default: () => undefined }));

const page = (more: Partial<PublicPage> = {}): PublicPage => ({
  ...{ name: 'Skarn fell', kind: 'diorama', ratio: 42, showName: '', showDate: null, done: 0.375 },
  ...{ sections: [], totals: [], story: [], finds: [], versions: [], reports: [], photos: [] },
  ...{ plan: '<svg/>', at: Date.UTC(2031, 5, 1, 19, 40) },
  ...more,
});
const text = () => (document.body.textContent ?? '').replace(/\s+/g, ' ');
const frame = readFrame(null);
/** Shows a page on 2 June 2031. */
const open = (html: string) => {
  const { title, body } = new DOMParser().parseFromString(html, 'text/html');
  document.title = title;
  document.body.innerHTML = body.innerHTML;
};
const opened = (more: Partial<PublicPage>) =>
  open(renderPublicPage(page(more), { token: 't0', today: '2031-06-02', frame }));

test('how far it is, section by section, in numbers; the show by its name and its days', () => {
  opened({
    ...{ showName: 'Spring fair', showDate: '2031-06-16' },
    sections: [
      { letter: 'A', name: 'Fell', stage: 'building', done: 0.5, owner: 'Ada' },
      { letter: 'B', name: 'Quay', stage: 'planned', done: 0, owner: null },
    ],
    totals: [
      { word: 'pieces', count: 12345 },
      { word: 'of track', count: 4.5, unit: 'm' },
    ],
  });
  expect(document.title).toBe('Skarn fell');
  expect(text()).toContain('diorama at 1:42, Spring fair 16 Jun 2031, in 14 days');
  expect(text()).toContain('Last changed 1 Jun, 19:40 UTC.');
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

test('the story in its order, what to look for, how else it is shown, photos and reports', () => {
  opened({
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
      { file: 'f1', width: 800, height: 600, taken: '2031-05-30T18:05:00Z', section: 'A, Fell' },
      { file: 'f2', width: 800, height: 600, taken: '2031-05-31T09:00:00Z', section: null },
    ],
  });
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
  expect(text()).toContain('The quay stands.');
  const photo = screen.getByAltText('A, Fell');
  expect(photo.getAttribute('src')).toBe('/s/t0/photos/f1?small');
  expect(photo.closest('a')?.getAttribute('href')).toBe('/s/t0/photos/f1');
  expect(screen.getByAltText('The display')).toBeTruthy();
});

test('a page that was switched off shows nothing and says so', () => {
  open(nothingHere(frame, 'There is no such page, or it was switched off.'));
  expect(screen.getByRole('heading').textContent).toBe('There is nothing to see here');
  expect(screen.getByRole('alert').textContent).toBe('There is no such page, or it was switched off.');
  expect(screen.queryByRole('img')).toBeNull();
});

test('names are letters, not marks or patterns of the frame', () => {
  opened({ name: '<b>$& $1</b> & co', story: [{ order: 1, name: '<img src=x>', story: '$&', cast: [] }] });
  expect(document.title).toBe('<b>$& $1</b> & co');
  expect(screen.getAllByRole('heading')[0].textContent).toBe('<b>$& $1</b> & co');
  expect(document.querySelectorAll('b, img')).toHaveLength(2);
});
