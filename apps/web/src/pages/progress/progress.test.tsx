import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { sceneFrom } from '@quarry/core/document';
import { renderOn } from '../../../test/renderOn.tsx';
import { today } from '../../ui/days.ts';
import { DayPanel } from './DayPanel.tsx';
import { SectionsPanel } from './SectionsPanel.tsx';
import { SessionsPanel } from './SessionsPanel.tsx';
import { TasksPanel } from './TasksPanel.tsx';

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const session = (id: string, minutes: number | null, pieces: number | null, start: string) => ({
  ...{ id, person: 'ada', section: 'a', work: 'ground' as const, minutes, pieces, start },
});
const FILE = {
  display: { name: 'Quay', kind: 'diorama', method: 'solid', stageWeights: [10, 10, 30, 30, 10, 5, 5] },
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 48 }],
  people: [
    { id: 'ada', name: 'Ada Fenn', initials: 'AF' },
    { id: 'bo', name: 'Bo Marl', initials: 'BM' },
  ],
  sections: [
    {
      ...{ id: 'a', letter: 'A', name: 'West', x: 0, y: 0, w: 64, d: 48 },
      owner: 'ada',
      stage: 'ground',
      stageDone: 50,
    },
    { id: 'b', letter: 'B', name: 'East', x: 64, y: 0, w: 32, d: 48 },
  ],
  tasks: [{ id: 'k', name: 'Sweep the quay', owner: 'ada', section: 'a' }],
  sessions: [
    session('s1', 60, 200, '2031-05-01T18:00:00Z'),
    session('s2', 60, 200, '2031-05-02T18:00:00Z'),
    session('s3', 120, 200, '2031-05-03T18:00:00Z'),
  ],
} satisfies Parameters<typeof sceneFrom>[0];
const scene = sceneFrom(FILE);
const ada = { role: 'builder', person: 'ada' } as const;
const last = <T,>(list: readonly T[]): T | undefined => list.at(-1);

describe('sections', () => {
  test('how far each and all are, by weights and by area; a stage on, a percentage, no further than the end', async () => {
    const user = userEvent.setup();
    const acts = await renderOn(scene, <SectionsPanel />, { actor: { role: 'planner', person: 'ada' } });
    const west = within(screen.getByRole('listitem', { name: 'Section A, West' }));
    // Behind it 10 + 10, and half of 30, of 100.
    expect(west.getByText('35 % in all')).toBeTruthy();
    // Two thirds of the area at 35 %, one third at nothing.
    expect(screen.getByText('23 %')).toBeTruthy();
    expect(screen.getByText('4,608 studs in sections')).toBeTruthy();
    await user.click(west.getByRole('button', { name: 'Section A on to structures' }));
    expect(last(acts)).toMatchObject({
      label: 'moved section A to structures',
      changes: [{ set: { stage: 'structures', stageDone: 0 } }],
    });
    expect(west.getByText('50 % in all')).toBeTruthy();
    const percent = west.getByRole('textbox', { name: 'Percent of structures done in section A' });
    await user.clear(percent);
    await user.type(percent, '101{Enter}');
    expect(screen.getByRole('alert').textContent).toContain('101 is above the most, 100');
    await user.clear(percent);
    await user.type(percent, '50{Enter}');
    expect(west.getByText('65 % in all')).toBeTruthy();
    const east = within(screen.getByRole('listitem', { name: 'Section B, East' }));
    expect(east.getByText('no owner')).toBeTruthy();
    expect(east.getByRole('button', { name: 'Section B back to nothing' }).hasAttribute('disabled')).toBe(
      true,
    );
  });
  test('a builder moves the own section and no other, and is told why', async () => {
    await renderOn(scene, <SectionsPanel />, { actor: ada });
    const [west, east] = ['Section A, West', 'Section B, East'].map((name) =>
      within(screen.getByRole('listitem', { name })),
    );
    expect(west?.getByRole('button', { name: /on to structures/ }).hasAttribute('disabled')).toBe(false);
    expect(east?.getByText('Builders may change only the sections they own or help on.')).toBeTruthy();
  });
});

describe('tasks', () => {
  test('hours that are refused hold the task back; taken, they go with it', async () => {
    const user = userEvent.setup();
    const acts = await renderOn(scene, <TasksPanel />, { actor: { role: 'planner', person: 'ada' } });
    await user.type(screen.getByRole('textbox', { name: 'What can be finished' }), 'Lay the kerb');
    const hours = screen.getByRole('textbox', { name: 'Hours of the new task' });
    await user.type(hours, '20,000{Enter}');
    expect(screen.getByRole('alert').textContent).toContain('20000 is above the most, 10000');
    expect(acts).toEqual([]);
    await user.clear(hours);
    await user.type(hours, '2.5{Enter}');
    expect(last(acts)).toMatchObject({
      label: 'wrote down the task “Lay the kerb”',
      changes: [{ op: 'add', data: { name: 'Lay the kerb' } }],
    });
    const [added] = last(acts)?.changes ?? [];
    expect(JSON.stringify(added)).toContain('2.5');
  });
});

describe('suggested tasks', () => {
  test('one becomes a task with three guesses in order, and comes after another', async () => {
    const user = userEvent.setup();
    const markers = [
      { id: 'h', name: 'Which crane', x: 70, y: 8, w: 16, d: 16 },
      { id: 'g', name: 'Gate or arch', x: 8, y: 8, w: 16, d: 16 },
    ];
    const acts = await renderOn(
      sceneFrom({
        ...FILE,
        markers,
        tasks: [...FILE.tasks, { id: 'deck', name: 'Close the deck', section: 'b' }],
      }),
      <TasksPanel />,
      { actor: { role: 'planner', person: 'ada' } },
    );
    const offers = within(screen.getByRole('region', { name: 'Suggested tasks' }));
    await user.selectOptions(offers.getByRole('combobox', { name: 'In' }), 'B, East');
    expect(offers.queryByText(/Decide: Gate/)).toBeNull();
    await user.click(offers.getByRole('button', { name: /^Add as task: Decide: Which crane/ }));
    expect(last(acts)?.changes[0]).toMatchObject({
      op: 'add',
      data: { section: 'b', work: 'planning', likely: 0.5 },
    });
    expect(offers.queryByText(/Decide: Which crane/)).toBeNull();
    await user.click(screen.getByRole('button', { name: /Decide: Which crane/, expanded: false }));
    const type = async (label: string, text: string) => {
      const field = screen.getByRole('textbox', { name: label });
      await user.clear(field);
      await user.type(field, `${text}{Enter}`);
    };
    await type('Most likely', '3');
    await type('At best', '5');
    expect(screen.getByText(/At best 5 h, likely 3 h, at worst – h/).textContent).toContain(
      'each has to be at least the one before',
    );
    await type('At best', '2');
    await type('At worst', '10');
    // (2 + 4·3 + 10) / 6
    expect(screen.getByText('4.0 h')).toBeTruthy();
    await user.selectOptions(screen.getByRole('combobox', { name: 'Comes after' }), 'Close the deck');
    expect(screen.getByText('after “Close the deck”')).toBeTruthy();
    expect(last(acts)).toMatchObject({ changes: [{ set: { after: ['deck'] } }] });
  });
});

describe('a build in one day', () => {
  const slot = (id: string, name: string, order: number, minutes: number, more: object = {}) => ({
    ...{ id, name, order, minutes, day: today(), worth: 5 },
    ...more,
  });
  const day = sceneFrom({
    ...FILE,
    slots: [
      slot('plan', 'Plan and sort', 0, 60, { must: true }),
      slot('hills', 'Two hills', 1, 300, { must: true }),
      slot('trap', 'Eel trap', 2, 45),
    ],
  });
  test('a slot begun ends the one before; what is late says what to drop, and that it is not enough', async () => {
    const user = userEvent.setup();
    const acts = await renderOn(day, <DayPanel />, { actor: { role: 'owner', person: 'ada' } });
    expect(screen.getByText('6 h 45 planned')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Begin Plan and sort' }));
    await user.click(screen.getByRole('button', { name: 'Begin Two hills' }));
    expect(last(acts)?.changes).toMatchObject([
      { id: 'plan', set: { ended: expect.any(String) } },
      { id: 'hills', set: { began: expect.any(String) } },
    ]);
    const end = screen.getByRole('textbox', { name: 'Must be over at' });
    await user.type(end, '00:01{Enter}');
    // Over before it has begun: nothing that may be dropped is enough.
    expect(screen.getByText('Even without these it is too late')).toBeTruthy();
    expect(within(screen.getByRole('status')).getByText('Eel trap')).toBeTruthy();
    await user.clear(end);
    await user.type(end, '25:00{Enter}');
    expect(screen.getByText(/“25:00” is no time of day/)).toBeTruthy();
  });
});

describe('sessions', () => {
  test('a session is typed as people say times; its rate is learnt from what was counted', async () => {
    const user = userEvent.setup();
    const acts = await renderOn(scene, <SessionsPanel />, { actor: ada });
    // 600 pieces in four hours.
    expect(screen.getByText(/learnt from 3/)).toBeTruthy();
    const learnt = screen.getByText('Ground', { selector: 'dt' }).parentElement;
    expect(learnt?.textContent).toContain('150 pieces/h');
    const minutes = screen.getByRole('textbox', { name: 'Or typed: minutes, until now' });
    await user.type(minutes, '25:00');
    expect(screen.getByRole('alert').textContent).toContain('“25:00” is no time from 1 to 1,440 minutes');
    await user.clear(minutes);
    await user.type(minutes, '1:30');
    expect(screen.getByText(/\(90 min\)/)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Write down' }));
    expect(last(acts)?.changes[0]).toMatchObject({ data: { minutes: 90, person: 'ada', section: 'a' } });
  });
  test('one runs: pieces as people write them, what is finished and the stage go with the stop, in one act', async () => {
    const user = userEvent.setup();
    const acts = await renderOn(scene, <SessionsPanel />, { actor: ada });
    await user.click(screen.getByRole('button', { name: 'Start' }));
    expect(last(acts)).toMatchObject({ label: 'began a session', changes: [{ data: { minutes: null } }] });
    const pieces = screen.getByRole('textbox', { name: 'Pieces placed, if you counted' });
    await user.type(pieces, 'many');
    expect(screen.getByRole('button', { name: 'Stop' }).hasAttribute('disabled')).toBe(true);
    await user.clear(pieces);
    await user.type(pieces, '1,250');
    await user.click(screen.getByRole('checkbox', { name: 'Sweep the quay' }));
    await user.selectOptions(screen.getByRole('combobox', { name: 'Section A is now' }), 'structures');
    await user.click(screen.getByRole('button', { name: 'Stop' }));
    expect(last(acts)).toMatchObject({
      label: 'ended a session',
      changes: [
        { kind: 'session', set: { pieces: 1250, minutes: 1, ticked: ['k'] } },
        { kind: 'task', id: 'k', set: { done: expect.stringMatching(/^\d{4}-\d{2}-\d{2}$/) } },
        { kind: 'section', id: 'a', set: { stage: 'structures', stageDone: 0 } },
      ],
    });
  });
});
