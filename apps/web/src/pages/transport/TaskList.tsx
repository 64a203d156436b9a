import { useState } from 'react';
import { CHORE_TURNS, type Chore } from '@quarry/core/document';
import { choreId, type DayPlan, type DayRow, type ShowPhase, type ShowTask } from '@quarry/core/transport';
import { useDenialReason, useEdit, useLink } from '../../data/useDisplay.tsx';
import { NumberField, SelectField, TextField } from '../../ui/fields.tsx';
import { Heading } from '../../ui/parts.tsx';
import { RemoveButton } from '../../ui/rows.tsx';
import { clockAfter } from './clock.ts';

const STATE_WORDS: Record<DayRow['state'], string> = {
  waits: 'to come',
  runs: 'now',
  over: 'done',
  dropped: 'left out',
};
const TURN_WORDS: Record<Chore['turn'], string> = {
  first: 'Before everything',
  modules: 'Once all modules stand',
  last: 'After everything',
};

/** Tasks in the order of the day: begun and ended with one press each. */
export function TaskList({
  tasks,
  plan,
  phase,
  from,
  helpers,
  isToday,
}: {
  tasks: readonly ShowTask[];
  plan: DayPlan | null;
  phase: ShowPhase;
  from: string;
  helpers: readonly { id: string; name: string }[];
  /** Tasks begin and end on the day itself. */
  isToday: boolean;
}) {
  const rowOf = new Map(plan?.rows.map((row) => [row.key, row]));
  const inTurn = tasks.toSorted(
    (a, b) => (rowOf.get(a.key)?.start ?? 0) - (rowOf.get(b.key)?.start ?? 0) || (a.key < b.key ? -1 : 1),
  );
  const over = plan?.rows.filter(({ state }) => state === 'over').length ?? 0;
  return (
    <section aria-labelledby="tasks-of-day">
      <Heading id="tasks-of-day" aside={`${over} of ${tasks.length} done`}>
        Tasks
      </Heading>
      {!isToday && (
        <p className="ink-2 text-xs">
          Tasks begin and end on the day itself; set Day to today to try it out.
        </p>
      )}
      <ol>
        {inTurn.map((task) => (
          <TaskRow
            key={task.key}
            task={task}
            row={rowOf.get(task.key) ?? null}
            phase={phase}
            from={from}
            helpers={helpers}
            isToday={isToday}
          />
        ))}
      </ol>
    </section>
  );
}

const handsWord = (hands: number) => `${hands} ${hands === 1 ? 'person' : 'people'}`;

function TaskRow({
  task,
  row,
  phase,
  from,
  helpers,
  isToday,
}: {
  task: ShowTask;
  row: DayRow | null;
  phase: ShowPhase;
  from: string;
  helpers: readonly { id: string; name: string }[];
  isToday: boolean;
}) {
  const [isOpen, setOpen] = useState(false);
  const { set, isForbidden } = useChore(task, phase);
  const { title, minutes, hands, isGuess, chore } = task;
  const state = row?.state ?? 'waits';
  const people = (row?.people ?? []).map((id) => helpers.find((one) => one.id === id)?.name.split(' ')[0]);
  const isCritical = row?.slack === 0 && (state === 'waits' || state === 'runs');
  return (
    <li className={`border-b hair py-1 ${state === 'runs' ? 'bg-base-200' : ''}`} aria-label={title}>
      <div className="flex items-center gap-2">
        <span className="fig w-24 text-xs shrink-0">
          {row && state !== 'dropped' ? `${clockAfter(from, row.start)}–${clockAfter(from, row.end)}` : ''}
        </span>
        <button
          type="button"
          className="flex-1 min-w-0 text-left cursor-pointer"
          aria-expanded={isOpen}
          onClick={() => setOpen(!isOpen)}
        >
          <span
            className={`break-words ${state === 'over' || state === 'dropped' ? 'line-through ink-2' : 'font-semibold'}`}
          >
            {title}
          </span>
          <span className="ink-2 text-xs">
            {' '}
            {minutes} min{isGuess ? ' guess' : ''}, {people.length > 0 ? people.join(', ') : handsWord(hands)}
          </span>
        </button>
        <span className={`text-xs w-16 text-right ${isCritical ? 'text-primary font-semibold' : 'ink-2'}`}>
          {isCritical && state === 'waits' ? 'critical' : STATE_WORDS[state]}
        </span>
        {state === 'runs' ? (
          <button
            type="button"
            className="btn btn-xs btn-primary w-14"
            disabled={isForbidden}
            aria-label={`End ${title}`}
            onClick={() => set(`ended “${title}”`, { ended: new Date().toISOString() })}
          >
            End
          </button>
        ) : (
          <button
            type="button"
            className="btn btn-xs w-14"
            disabled={isForbidden || !isToday}
            aria-label={state === 'over' ? `${title} again` : `Begin ${title}`}
            onClick={() =>
              state === 'over'
                ? set(`took “${title}” back`, { began: null, ended: null })
                : set(`began “${title}”`, { began: new Date().toISOString(), ended: null, dropped: false })
            }
          >
            {state === 'over' ? 'Undo' : 'Begin'}
          </button>
        )}
      </div>
      {isOpen && (
        <div className="ml-3 pl-3 my-1 border-l border-base-300 max-w-md">
          {task.isOwn && chore && <OwnFields chore={chore} isFixed={isForbidden} set={set} />}
          <NumberField
            label="Minutes"
            unit="min"
            whole
            value={minutes}
            min={1}
            max={1440}
            disabled={isForbidden}
            onCommit={(value) => value !== null && set(`timed “${title}”`, { minutes: value })}
          />
          <NumberField
            label="Hands"
            whole
            value={hands}
            min={0}
            max={50}
            disabled={isForbidden}
            onCommit={(value) => value !== null && set(`hands of “${title}”`, { hands: value })}
          />
          <div className="flex gap-1 pt-1">
            <button
              type="button"
              className="btn btn-xs"
              disabled={isForbidden}
              onClick={() =>
                set(chore?.dropped ? `took “${title}” back in` : `left out “${title}”`, {
                  dropped: !chore?.dropped,
                })
              }
            >
              {chore?.dropped ? 'Take back in' : 'Leave out'}
            </button>
            {state !== 'over' && isToday && (
              <button
                type="button"
                className="btn btn-xs"
                disabled={isForbidden}
                onClick={() => set(`“${title}” is done`, { ended: new Date().toISOString() })}
              >
                Done already
              </button>
            )}
          </div>
        </div>
      )}
    </li>
  );
}

/** Writes what is known of a task, whether anything was known before or not. */
function useChore({ key, title, chore }: ShowTask, phase: ShowPhase) {
  const edit = useEdit();
  const link = useLink();
  const may = useDenialReason();
  return {
    set: (words: string, fields: Partial<Chore>) => {
      // As it is now: two changes may follow at once.
      const id = chore?.id ?? choreId(phase, key);
      const known = link.getState().scene.chore[id];
      if (known) edit.patch(words, 'chore', known, fields);
      else edit.add(words, 'chore', id, { ...{ name: title.slice(0, 80), phase, task: key }, ...fields });
    },
    isForbidden: may({ op: 'add', kind: 'chore', id: 'x', data: { name: 'x' } }) !== null,
  };
}

function OwnFields({
  chore,
  isFixed,
  set,
}: {
  chore: Chore;
  isFixed: boolean;
  set: (words: string, fields: Partial<Chore>) => void;
}) {
  const edit = useEdit();
  return (
    <>
      <TextField
        label="Task"
        required
        value={chore.name}
        disabled={isFixed}
        onCommit={(name) => set(`renamed “${chore.name}”`, { name })}
      />
      <SelectField
        label="When"
        value={chore.turn}
        options={CHORE_TURNS.map((value) => ({ value, word: TURN_WORDS[value] }))}
        disabled={isFixed}
        onCommit={(turn) => set(`when “${chore.name}” is done`, { turn })}
      />
      <RemoveButton
        what={chore.name}
        disabled={isFixed}
        onClick={() => void edit.remove(`removed “${chore.name}”`, 'chore', chore.id, chore.v)}
      />
    </>
  );
}
