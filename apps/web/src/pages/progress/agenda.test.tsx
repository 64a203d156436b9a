import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { listOf, sceneFrom, type Actor } from '@quarry/core/document';
import { openPage, stopAt } from '../../../test/openPage.tsx';
import { ProgressPage } from './ProgressPage.tsx';

// Who has time when, by their own clocks, and what the next weeks hold.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const file = {
  display: { name: 'Quay', kind: 'diorama', showDate: '2031-06-21', showName: 'Tarn show' },
  people: [
    { id: 'ada', name: 'Ada Fenn', initials: 'AF' },
    { id: 'bo', name: 'Bo Marl', initials: 'BM' },
  ],
  calendars: [
    // Mondays and Wednesdays from 20:00 in Athens: 17:00 UTC in summer.
    {
      ...{ id: 'a', person: 'ada', zone: 'Europe/Athens', from: '20:00' },
      weekly: [3, 0, 2, 0, 0, 0, 0],
    },
    // Mondays from 18:00 in London: 17:00 UTC too, and an hour longer.
    { ...{ id: 'b', person: 'bo', zone: 'Europe/London', from: '18:00' }, weekly: [4, 0, 0, 0, 0, 0, 0] },
  ],
  orders: [
    {
      ...{ id: 'o', name: 'Walls', by: 'ada', state: 'mail', expected: '2031-06-10' },
      lines: [{ part: 'brick-2x4', colour: 'slate', qty: 30, price: 0.2 }],
    },
  ],
} satisfies Parameters<typeof sceneFrom>[0];
const open = (actor: Actor = { role: 'planner', person: 'ada' }) =>
  openPage(sceneFrom(file), <ProgressPage />, 'progress?sheet=agenda', actor);
// A Monday.
beforeAll(() => stopAt('2031-06-02'));
const together = () => within(screen.getByRole('region', { name: 'At the table at the same time' }));

test('times of two towns are laid on one clock; a day away parts them', async () => {
  const page = await open();
  // Six weeks from Monday the second of June to Monday the fourteenth of July: seven Mondays; four are listed.
  expect(together().getAllByRole('listitem')).toHaveLength(4);
  expect(together().getAllByText('AF 20:00–23:00, BM 18:00–21:00')).toHaveLength(4);
  await page.sees('Walls');
  await page.sees('Tarn show');
  const agenda = within(screen.getByRole('region', { name: /^The next 6 weeks/ }));
  expect(agenda.getAllByText('Bo Marl')).toHaveLength(7);
  expect(agenda.getAllByText('Ada Fenn')).toHaveLength(13);
  await userEvent.click(screen.getByText('Bo Marl', { selector: 'summary span' }));
  await userEvent.click(screen.getAllByRole('button', { name: 'Days away' })[1] ?? document.body);
  expect(listOf(page.scene(), 'calendar')[1]?.away).toEqual([{ from: '2031-06-02', to: '2031-06-02' }]);
  expect(agenda.getAllByText('Bo Marl')).toHaveLength(6);
  await page.press('Remove the days away from 2031-06-02');
  expect(agenda.getAllByText('Bo Marl')).toHaveLength(7);
});

test('hours a day, a day that begins at another time, and a clock by its name; what is none is told', async () => {
  const page = await open();
  await page.sees('5 h a week: Mon Wed from 20:00');
  await page.fill('Hours of Ada Fenn on Sat', '2.5');
  await page.sees('7.5 h a week: Mon Wed Sat from 20:00');
  await page.fill('Hours of Ada Fenn on Sat', '25');
  await page.sees('25 is above the most, 24');
  const clock = screen.getAllByLabelText<HTMLInputElement>('Clock of')[0];
  if (!clock) throw new Error('no clock');
  await userEvent.clear(clock);
  await userEvent.type(clock, 'Athens{Enter}');
  await page.sees('“Athens” is no zone: told by its IANA name');
  expect(page.scene().calendar.a?.zone).toBe('Europe/Athens');
  await userEvent.clear(clock);
  await userEvent.type(clock, 'America/New_York{Enter}');
  // 20:00 in New York is after Bo Marl has gone to bed.
  await page.sees('In these weeks no two calendars meet.');
});

test('a builder keeps the own calendar; whoever only looks keeps none', async () => {
  const page = await open({ role: 'builder', person: 'bo' });
  await page.sees('4 h a week: Mon from 18:00');
  expect(page.isDisabled('Hours of Ada Fenn on Mon')).toBe(true);
  expect(page.isDisabled('Hours of Bo Marl on Mon')).toBe(false);
});
