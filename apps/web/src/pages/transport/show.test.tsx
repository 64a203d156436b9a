import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { sceneFrom } from '@quarry/core/document';
import { onTable } from '../../../test/onTable.ts';
import { LONGEST, openPage, stopAt } from '../../../test/openPage.tsx';
import { TransportPage } from './TransportPage.tsx';

// What a lead does on Transport before a show, on its day, and for the next one.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const clocks = { accessFrom: '08:00', opensAt: '10:00', closesAt: '16:00', clearBy: '18:30' };
const scene = sceneFrom({
  display: {
    name: 'Quay',
    kind: 'diorama',
    place: 'hall',
    showPlace: 'hall',
    showName: 'Pier Day',
    showDate: '2031-06-14',
  },
  ...onTable(96, 48),
  modules: [0, 1].map((i) => ({
    ...{ id: `m${i}`, name: `A${i + 1}`, x: 48 * i, y: 0, w: 48, d: 48 },
    bases: [{ x: 48 * i, y: 0, w: 48, d: 48 }],
  })),
  passages: [
    {
      ...{ id: 'van', name: 'van', kind: 'vehicle', width: 800, height: 1000 },
      ...{ insideW: 1200, insideD: 1500, insideH: 1100, driver: 'ada' },
    },
  ],
  people: [
    { id: 'ada', name: 'Ada Fenn', initials: 'AF' },
    { id: 'bo', name: 'Bo Marl', initials: 'BM', arrives: '07:45', eve: false },
    { id: 'cy', name: 'Cy Dorn', initials: 'CD' },
  ],
  chores: [
    { id: 'lit', name: 'Lamps lit', phase: 'setup', turn: 'modules', minutes: 150, hands: 1 },
    { id: 'signs', name: 'Signs', phase: 'setup', turn: 'last', minutes: 10, hands: 1 },
  ],
  milestones: [
    {
      ...{ id: 'winter', name: 'Frost Fair', date: '2031-12-05', show: true, showDays: 2, driveMinutes: 70 },
      ...{ ...clocks, eveFrom: '18:00', eveTo: '21:00' },
    },
  ],
});
const open = (sheet: string) => openPage(scene, <TransportPage />, `transport?sheet=${sheet}`);
beforeAll(() => stopAt('2031-04-05'));

test('the day of the show: a task takes twenty minutes more and the rest is planned again', async () => {
  const page = await open('day');
  const readyAt = () => {
    const text = document.querySelector('section[aria-labelledby="outcome"] p')?.textContent ?? '';
    const [hours = Number.NaN, minutes = Number.NaN] = text.split(':').map(Number);
    return 60 * hours + minutes;
  };
  await waitFor(() => expect(readyAt()).toBeGreaterThan(0), LONGEST);
  const before = readyAt();
  const table = screen.getAllByRole('listitem', { name: 'Table' })[0];
  await userEvent.click(within(table).getByRole('button', { expanded: false }));
  await page.fill('Minutes', String(Number(page.valueOf('Minutes')) + 20));
  // All modules wait for the table: it is ready later by just as much.
  await waitFor(() => expect(readyAt()).toBe(before + 20), LONGEST);
  // Visitors come too early then: what may be left out is told with what it wins.
  await page.fill('Visitors come', '08:00');
  await page.sees('Too late by');
  await page.sees('without Signs');
  await page.undo();
  await page.undo();
  await waitFor(() => expect(readyAt()).toBe(before), LONGEST);
  await page.tab('Taking down');
  await screen.findByRole('listitem', { name: 'Table' }, LONGEST);
});

test('at the show: visitors are counted, what broke becomes a task and a spare part, what is lent comes back', async () => {
  const page = await open('show');
  const counted = () => Number(document.querySelector('output')?.textContent);
  await waitFor(() => expect(counted()).toBe(0), LONGEST);
  for (const by of ['+5', '+1', '+10']) await page.press(by);
  expect(counted()).toBe(16);
  await page.fill('What happened', 'the crane hook');
  await page.sees('the crane hook');
  const broke = screen
    .getAllByRole('listitem')
    .find(({ textContent }) => textContent?.includes('the crane hook'));
  if (!broke) throw new Error('nothing is broken');
  await userEvent.click(within(broke).getByRole('button', { name: 'Add as task' }));
  await page.sees('a task of Progress');
  expect(page.acts.at(-1)?.changes).toContainEqual(
    expect.objectContaining({
      op: 'add',
      kind: 'task',
      data: expect.objectContaining({ name: 'Mend the crane hook' }),
    }),
  );
  const lent = document.querySelector<HTMLElement>('section[aria-labelledby="lent"]');
  const what = lent?.querySelector('input');
  if (!lent || !what) throw new Error('nothing can be lent');
  await userEvent.type(what, 'Step ladder');
  await userEvent.click(within(lent).getByRole('button', { name: 'Note it' }));
  await page.sees('1 not back');
  await userEvent.click(screen.getByRole('checkbox', { name: 'Step ladder is back' }));
  await page.seesNo('1 not back');
  // What broke is packed for the next time.
  await page.tab('Kit');
  await page.sees('Spare parts for the crane hook');
});

test('another show is prepared: its evening before, who comes only on the day, and back again', async () => {
  const page = await open('show');
  const winter = await screen.findByRole('listitem', { name: 'Frost Fair' }, LONGEST);
  expect(winter.textContent).toContain('2 nights');
  await page.press('Prepare Frost Fair');
  await page.sees('prepared now');
  await page.tab('Day');
  // Bo is not there on the evening before: he comes on the day.
  await screen.findByLabelText('Bo Marl is there the evening before', {}, LONGEST);
  await waitFor(() => {
    const words = document.querySelector('svg[aria-label^="The day by person"]')?.textContent;
    expect(words).toContain('night');
    expect(words).toContain('18:00');
  }, LONGEST);
  // A limit of what one carries is kept, and the day is planned with it.
  await page.fill('Ada Fenn carries at most', '200');
  await page.sees('Ada Fenn carries at most: 200 is above the most, 100.');
  await page.fill('Ada Fenn carries at most', '6');
  expect(page.acts.at(-1)?.changes).toMatchObject([{ kind: 'person', id: 'ada', set: { carriesKg: 6 } }]);
  await page.tab('At the show');
  await page.press('Prepare Pier Day');
  await page.tab('Day');
  await page.sees('opens at 10:00, a guess');
  await page.seesNo('night');
});
