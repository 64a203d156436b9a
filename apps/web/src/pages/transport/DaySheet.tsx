import { Plus } from 'lucide-react';
import { useMemo, useState } from 'react';
import { displayOf } from '@quarry/core/document';
import { currentPlace } from '@quarry/core/venue';
import {
  choreId,
  helpersOf,
  isAtHome,
  phaseTimes,
  phasesOf,
  sceneAtShow,
  type DayPlan,
  type PhaseTimes,
  type ShowPhase,
  type ShowTask,
} from '@quarry/core/transport';
import { freshId, useDenialReason, useDisplay, useEdit, useScene } from '../../data/useDisplay.tsx';
import { Basis, DefinitionRow, Empty, Heading, Loading } from '../../ui/parts.tsx';
import { Tabs } from '../../ui/Tabs.tsx';
import { today } from '../../ui/days.ts';
import { useShow } from '../../workers/useTransport.ts';
import { localDay, spanWord, useNow } from '../../ui/clock.ts';
import { clockAfter, dayAfter, showInstant } from './clock.ts';
import { DayChart } from './DayChart.tsx';
import { HallHours } from './HallHours.tsx';
import { TaskList } from './TaskList.tsx';
import { PHASE_WORDS, useDay } from './useDay.ts';
import { WhoComes } from './WhoComes.tsx';

/** What the hour that counts is, on the chart. */
const GOALS: Record<ShowPhase, string> = {
  leave: 'leave',
  setup: 'visitors',
  takedown: 'empty',
  rebuild: 'by',
};

/** Whether a moment is on a day, by this machine’s clock. */
const isOnDay = (instant: string | null, date: string): boolean =>
  instant !== null && localDay(instant) === date;

/** The day of the show by the minute: who does what, when it is ready, what to leave out; ticked as it goes. */
export function DaySheet() {
  const scene = useDisplay(({ scene: now }) => now);
  const show = useShow();
  const now = useNow();
  const [chosen, setPhase] = useState<ShowPhase>('setup');
  const phases = phasesOf(scene);
  const phase = phases.includes(chosen) ? chosen : 'setup';
  // Which day the show begins on, where another one than that of the plan is looked at.
  const [firstDay, setFirstDay] = useState(() => displayOf(scene).showDate ?? today());
  const times = phaseTimes(scene, phase);
  const date = dayAfter(firstDay, times.day);
  const helpers = useMemo(() => helpersOf(scene, phase), [scene, phase]);
  const origin = showInstant(date, times.from);
  const tasks = useClocked(show?.tasks[phase] ?? null, phase);
  const since = Math.floor((now - origin) / 60_000);
  const isToday = date === today() || (since > 0 && since < times.until);
  const hasBegun = tasks?.some(({ chore }) => isOnDay(chore?.began ?? chore?.ended ?? null, date)) ?? false;
  // Before the doors open to builders the day is planned as if everybody came in time.
  const at = isToday && (since > 0 || hasBegun) ? since : null;
  const answer = useDay(scene, tasks, phase, at, origin);
  if (!show || !tasks) return <Loading what="Working out what is done" />;
  const plan = answer?.ok ? answer.plan : null;
  return (
    <div className="h-full overflow-auto md:overflow-hidden flex flex-col md:grid md:grid-cols-[minmax(0,1fr)_380px] md:grid-rows-[auto_minmax(0,1fr)]">
      <div className="shrink-0 bg-base-100 md:border-l hair px-3 pt-2 md:col-start-2 md:row-start-1">
        {plan && <Outcome plan={plan} tasks={tasks} times={times} phase={phase} />}
      </div>
      <div className="shrink-0 min-w-0 md:min-h-0 md:overflow-auto px-3 py-2 md:col-start-1 md:row-start-1 md:row-span-2">
        <div className="flex flex-wrap items-center gap-2">
          <Tabs
            label="Phases"
            look="bar"
            tabs={phases.map((id) => ({ id, word: PHASE_WORDS[id] }))}
            open={phase}
            onOpen={setPhase}
          />
          <span className="ink-2 text-xs">
            {currentPlace(isAtHome(phase) ? scene : sceneAtShow(scene))?.name ?? 'no place'}
          </span>
          <span className="flex-1" />
          <label className="flex items-center gap-1 text-xs">
            Day
            <input
              type="date"
              className="input input-xs fig w-36"
              value={date}
              onChange={(event) =>
                event.currentTarget.value && setFirstDay(dayAfter(event.currentTarget.value, -times.day))
              }
            />
          </label>
        </div>
        {tasks.length === 0 ? (
          <Empty title="Nothing to do yet">
            Cut the scene into modules and put tables into the place; each task follows from that, and you may
            add your own.
          </Empty>
        ) : answer && !answer.ok ? (
          <div role="alert" className="text-error py-2">
            {answer.reasons.map((reason) => (
              <p key={reason}>{reason}</p>
            ))}
          </div>
        ) : plan ? (
          <DayChart
            plan={plan}
            tasks={tasks}
            helpers={helpers}
            times={times}
            goal={`${GOALS[phase]} ${times.to}`}
            now={at}
          />
        ) : (
          <Loading what="Planning the day" />
        )}
        <TaskList
          tasks={tasks}
          plan={plan}
          phase={phase}
          from={times.from}
          helpers={helpers}
          isToday={isToday}
        />
        <AddTask phase={phase} />
      </div>
      <aside
        aria-label="The day"
        className="shrink-0 border-t md:border-t-0 md:border-l hair bg-base-100 md:overflow-auto px-3 pb-3 md:min-h-0 md:col-start-2 md:row-start-2"
      >
        <HallHours />
        <WhoComes />
        <Basis>
          Tasks follow from the order of building up (Cut): tables before modules, the far ones first, seams
          pinned, then what lies over them, buildings, parts, trees and figures; taking down is the same
          backwards. Carrying takes the way there and back at 3 km/h, half a minute a door, 2 min a stair, 4
          min a lift, one more to load; one person up to a lift index of 1 and 1 m, two while each half stays
          at 1, more above (NIOSH, see Cut: a caution, not advice). A table with its cloth takes 4 min and
          two, a module 3, a building 3, a thing half a minute, a cable 2 and half for each connector, until
          you type your own: these are guesses of ours. “No earlier” is a number of minutes that no plan is
          below. Clear the path first; local rules decide.
        </Basis>
      </aside>
    </div>
  );
}

/** Tasks with what is typed and clocked of them at this moment: they are worked out a while later. */
function useClocked(tasks: readonly ShowTask[] | null, phase: ShowPhase): ShowTask[] | null {
  const scene = useScene('chore');
  return useMemo(
    () =>
      tasks &&
      tasks.map((task): ShowTask => {
        const chore = scene.chore[task.chore?.id ?? choreId(phase, task.key)] ?? null;
        return { ...task, chore, minutes: chore?.minutes ?? task.minutes, hands: chore?.hands ?? task.hands };
      }),
    [tasks, scene, phase],
  );
}

function AddTask({ phase }: { phase: ShowPhase }) {
  const edit = useEdit();
  const may = useDenialReason();
  return (
    <button
      type="button"
      className="btn btn-xs mt-2"
      disabled={may({ op: 'add', kind: 'chore', id: 'x', data: { name: 'x' } }) !== null}
      onClick={() =>
        void edit.add('added a task of the show', 'chore', freshId('chore'), {
          ...{ name: 'New task', phase, minutes: 10, hands: 1 },
        })
      }
    >
      <Plus size={12} aria-hidden /> Add a task
    </button>
  );
}

/** What the end is called, and the hour that counts. */
const ENDS: Record<ShowPhase, { head: string; goal: string }> = {
  leave: { head: 'In the vehicle', goal: 'leaves' },
  setup: { head: 'Ready', goal: 'opens' },
  takedown: { head: 'Out of the hall', goal: 'empty' },
  rebuild: { head: 'Standing at home', goal: 'wanted' },
};

/** When it is ready against the hour that counts, and what would help. */
function Outcome({
  plan,
  tasks,
  times,
  phase,
}: {
  plan: DayPlan;
  tasks: readonly ShowTask[];
  times: PhaseTimes;
  phase: ShowPhase;
}) {
  const late = plan.ready - times.until;
  const titleOf = (key: string) => tasks.find((task) => task.key === key)?.title ?? key;
  const isProven = plan.ready <= plan.bound;
  const { head, goal } = ENDS[phase];
  return (
    <section aria-labelledby="outcome">
      <Heading id="outcome">{head}</Heading>
      <p className="text-2xl fig" aria-live="polite">
        {clockAfter(times.from, plan.ready)}
      </p>
      <dl>
        <DefinitionRow
          label={late > 0 ? 'Too late by' : 'In hand'}
          note={`${goal} at ${times.to}${times.isGuess ? ', a guess' : ''}`}
        >
          <span className={late > 0 ? 'text-error font-semibold' : ''}>{spanWord(late)}</span>
        </DefinitionRow>
        <DefinitionRow
          label="No earlier than"
          note={isProven ? 'proven: no plan is shorter' : 'proven bound'}
        >
          {clockAfter(times.from, plan.bound)}
        </DefinitionRow>
        {phase === 'leave' && times.windows.length === 1 && (
          <DefinitionRow label="Begin no later than" note="by this plan">
            {clockAfter(times.from, times.until - plan.ready)}
          </DefinitionRow>
        )}
      </dl>
      {late > 0 && (
        <div role="status" className="border-l-4 border-primary pl-3 my-2">
          {plan.drops.length > 0 ? (
            <>
              <p className="font-semibold">Left out, it would be ready</p>
              <ul>
                {plan.drops.map(({ key, ready }) => (
                  <li key={key}>
                    without {titleOf(key)}: <span className="fig">{clockAfter(times.from, ready)}</span>
                  </li>
                ))}
              </ul>
            </>
          ) : (
            <p>No single task that may be left out makes it earlier: come earlier or bring more hands.</p>
          )}
        </div>
      )}
    </section>
  );
}
