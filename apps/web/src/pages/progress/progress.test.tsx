import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { sceneFrom } from '@quarry/core/document';
import { renderOn } from '../../workers/renderOn.tsx';
import { SectionsPanel } from './SectionsPanel.tsx';
import { SessionsPanel } from './SessionsPanel.tsx';
import { TasksPanel } from './TasksPanel.tsx';

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const session = (id: string, minutes: number | null, pieces: number | null, start: string) => ({
  ...{ id, person: 'ada', section: 'a', work: 'ground' as const, minutes, pieces, start },
});
const scene = sceneFrom({
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
});
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
