import { act, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { sceneFrom } from '@quarry/core/document';
import { compileRelief } from '@quarry/core/terrain';
import { dayPlanOf, helpersOf, loadPlanOf, showOf, showTasks } from '@quarry/core/transport';
import { DisplayLink } from '../../data/displayLink.ts';
import { linkOn, type Act } from '../../../test/linkOn.ts';
import { DisplayProvider } from '../../data/useDisplay.tsx';
import { spanWord } from '../../ui/clock.ts';
import { clockAfter } from './clock.ts';
import { LoadDrawing } from './LoadDrawing.tsx';
import { LoadList } from './LoadList.tsx';
import { TaskList } from './TaskList.tsx';

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const scene = sceneFrom({
  display: { name: 'Quay', kind: 'diorama', place: 'hall' },
  levels: [{ id: 'low', name: 'Low', height: 3 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 48, d: 48 }],
  pads: [{ id: 'p', name: 'Yard', x: 0, y: 0, w: 48, d: 48, level: 'low', ground: 'paving' }],
  places: [{ id: 'hall', name: 'Hall', walls: [], sceneX: 0, sceneY: 0 }],
  tables: [{ id: 't', name: 'Table', x: 0, y: 0, w: 384, d: 384, place: 'hall' }],
  modules: [{ id: 'a', name: 'A', x: 0, y: 0, w: 48, d: 48, bases: [{ x: 0, y: 0, w: 48, d: 48 }] }],
  passages: [
    {
      ...{ id: 'van', name: 'van', kind: 'vehicle', width: 800, height: 1000 },
      ...{ insideW: 1200, insideD: 1500, insideH: 1100 },
    },
  ],
  people: ['Ada', 'Bob'].map((name) => ({ id: name.toLowerCase(), name, initials: name[0] })),
  cargoes: [{ id: 'cloth', name: 'Cloth', w: 300, d: 300, h: 100, kg: 3 }],
});
const { shipment, order } = showOf(scene, compileRelief(scene));
const plan = loadPlanOf(shipment, { seconds: 0, now: () => 0 });
const tasks = showTasks(scene, shipment, order, 'setup');
const helpers = helpersOf(scene, 'setup');

async function shown(element: ReactNode) {
  const acts: Act[] = [];
  jest.mocked(DisplayLink.open).mockResolvedValue(linkOn(scene, acts));
  await act(async () => {
    render(
      <DisplayProvider id="d" user="u" loading="opening" failed={() => 'failed'}>
        {element}
      </DisplayProvider>,
    );
  });
  return acts;
}

test('a tick of the list writes when a thing was put in, under the key of the thing', async () => {
  const user = userEvent.setup();
  const acts = await shown(
    <LoadList shipment={shipment} plan={plan} picked={null} onPick={() => undefined} />,
  );
  const items = within(screen.getByRole('region', { name: 'Loading order of van' })).getAllByRole('listitem');
  // The cloth is needed first, so it goes in last.
  expect(items.map((item) => within(item).getByRole('button').textContent?.slice(0, 10))).toEqual([
    '1 module A',
    '2 Cloth3.0',
  ]);
  await user.click(screen.getByRole('checkbox', { name: 'Cloth put in' }));
  expect(acts).toMatchObject([
    {
      label: 'put in: Cloth',
      changes: [
        { op: 'add', kind: 'handling', data: { piece: 'cargo-cloth-1', loaded: expect.any(String) } },
      ],
    },
  ]);
});

test('each thing in the drawing is a button with its number, name and mass', async () => {
  const user = userEvent.setup();
  const onPick = jest.fn();
  await shown(<LoadDrawing shipment={shipment} load={plan.trips[0]} picked={null} onPick={onPick} />);
  await user.click(screen.getByRole('button', { name: /^2\. Cloth, 3\.0 kg$/ }));
  expect(onPick).toHaveBeenCalledWith('cargo-cloth-1');
});

const answer = dayPlanOf(tasks, helpers, { now: null, origin: 0, until: 999 });
test('a task begins on the day only; its minutes are typed over before it is planned again', async () => {
  const user = userEvent.setup();
  const list = (isToday: boolean) => (
    <TaskList
      tasks={tasks}
      plan={answer.ok ? answer.plan : null}
      phase="setup"
      from="07:00"
      helpers={helpers}
      isToday={isToday}
    />
  );
  await shown(list(false));
  expect(screen.getByRole('button', { name: 'Begin Table' })).toHaveProperty('disabled', true);
  const acts = await shown(list(true));
  const rows = screen.getAllByRole('listitem', { name: 'Table' });
  const row = within(rows[rows.length - 1]);
  await user.click(row.getByRole('button', { name: 'Begin Table' }));
  await user.click(row.getByRole('button', { expanded: false }));
  const minutes = row.getByRole('textbox', { name: 'Minutes' });
  await user.clear(minutes);
  await user.type(minutes, '12{Enter}');
  expect(acts.map(({ changes }) => changes[0])).toMatchObject([
    { op: 'add', kind: 'chore', data: { task: 'table t', began: expect.any(String) } },
    { op: 'patch', kind: 'chore', set: { minutes: 12 } },
  ]);
});

test.each([
  ['07:00', 96, '08:36'],
  ['23:50', 20, '00:10 +1'],
  ['07:00', -15, '06:45'],
])('%s and %i minutes is %s', (from, minutes, clock) => expect(clockAfter(from, minutes)).toBe(clock));
test('minutes in words', () => expect([45, 60, -125].map(spanWord)).toEqual(['45 min', '1 h 00', '2 h 05']));
