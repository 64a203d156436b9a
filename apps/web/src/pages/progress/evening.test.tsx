import { fireEvent, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { sceneFrom, type Actor } from '@quarry/core/document';
import { openPage, stopAt } from '../../../test/openPage.tsx';
import { ProgressPage } from './ProgressPage.tsx';

// A builder's evening at the table, with what it teaches.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const task = (id: string, name: string, low: number, likely: number, high: number, more: object = {}) => ({
  ...{ id, name, section: 'b', stage: 'dressed' as const, work: 'dressing' as const, low, likely, high },
  ...more,
});
const scene = sceneFrom({
  display: { name: 'Quay', kind: 'diorama', method: 'solid' },
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 48 }],
  people: [
    { id: 'ada', name: 'Ada Fenn', initials: 'AF' },
    { id: 'bo', name: 'Bo Marl', initials: 'BM' },
  ],
  sections: [
    { id: 'b', letter: 'B', name: 'Mill street', x: 0, y: 0, w: 96, d: 48, owner: 'ada', stage: 'dressed' },
  ],
  tasks: [
    task('kerb', 'Lay the last of the kerb', 0.5, 0.75, 1.5),
    task('signs', 'Letter the shop signs', 0.5, 1, 2),
    task('windows', 'Set the windows', 1, 1.5, 2, { parts: '2031-09-14' }),
    task('lamps', 'Wire the lamps', 1.5, 2, 5, { after: ['windows'] }),
  ],
  sessions: [1, 2, 3].map((day) => ({
    ...{ id: `s${day}`, person: 'ada', section: 'b', work: 'ground' as const, minutes: 60, pieces: 150 },
    start: `2031-05-0${day}T18:00:00Z`,
  })),
});
const open = (sheet: string, actor: Actor = { role: 'builder', person: 'ada' }) =>
  openPage(scene, <ProgressPage />, `progress?sheet=${sheet}`, actor);
beforeAll(() => stopAt('2031-06-02'));

test('an evening: what can be finished, sat down to, ticked off, the stage moved on, all with one batch', async () => {
  const page = await open('tonight');
  const has = (minutes: number) =>
    fireEvent.change(screen.getByRole('slider', { name: 'At the table' }), { target: { value: minutes } });
  has(150);
  // (0.5 + 4·0.75 + 1.5) / 6 + 1 / 6 = 1 h, and (0.5 + 4 + 2) / 6 + 1.5 / 6 = 1 h 20.
  await page.sees('2 h 20 of 2 h 30');
  await page.sees('Lay the last of the kerb');
  await page.sees('Not tonight: 2');
  await page.sees('its parts come on');
  // A shorter evening holds less.
  has(90);
  await page.sees('1 h 20 of 1 h 30');
  await page.press('Sit down and start');
  await page.tab('Sessions');
  await page.sees('Dressing, section B since');
  await userEvent.click(screen.getByRole('checkbox', { name: 'Letter the shop signs' }));
  await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Section B is now' }), 'lit');
  await page.press('Stop');
  expect(page.acts.at(-1)).toMatchObject({
    label: 'ended a session',
    changes: [
      { kind: 'session', set: { ticked: ['signs'] } },
      { kind: 'task', id: 'signs' },
      { kind: 'section', set: { stage: 'lit' } },
    ],
  });
  await page.sees('finished “Letter the shop signs”');
  await page.tab('Sections');
  await page.sees('% of lit');
});

test('sessions: started and stopped, typed, counted later; the rate is learnt from them', async () => {
  const page = await open('sessions');
  await page.sees('learnt from 3');
  await page.press('Start');
  await page.fill('Pieces placed, if you counted', '1.5');
  await page.sees('“1.5” is not a whole number');
  await page.fill('Pieces placed, if you counted', '40');
  await page.press('Stop');
  await page.sees('learnt from 4');
  await page.fill('Or typed: minutes, until now', '2000');
  await page.sees('is no time from 1 to 1,440 minutes');
  await page.fill('Or typed: minutes, until now', '45');
  await page.sees('45 min');
  // The pieces one had forgotten.
  await userEvent.click(screen.getAllByRole('button', { name: /^Change the session of Ada Fenn/ })[1]);
  await page.fill('Pieces placed', '150');
  await page.sees('200 an hour');
  await page.sees('learnt from 5');
});

test('whoever only looks logs nothing', async () => {
  const page = await open('sessions', { role: 'viewer', person: 'bo' });
  await page.sees('Viewers may look at this display but not change it.');
  expect(screen.queryByRole('button', { name: 'Start' })).toBeNull();
});
