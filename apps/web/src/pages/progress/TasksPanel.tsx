import { countOf } from '@quarry/core/grid';
import { Plus } from 'lucide-react';
import { useMemo, useState } from 'react';
import {
  circleOf,
  guessOf,
  offeredTasks,
  pert,
  type OfferedTask,
  type ThreeGuesses,
} from '@quarry/core/progress';
import {
  STAGES,
  WORKS,
  listOf,
  stageWord,
  type Drying,
  type Stage,
  type Task,
  type Work,
} from '@quarry/core/document';
import { freshId, useDisplay, useEdit, useDenialReason, useScene } from '../../data/useDisplay.tsx';
import { DateField, NumberField, SelectField, TextField } from '../../ui/fields.tsx';
import { More } from '../../ui/More.tsx';
import { Basis, Empty, Heading } from '../../ui/parts.tsx';
import { personOptions, sectionOptions } from '../../ui/picks.ts';
import { RemoveButton } from '../../ui/rows.tsx';
import { DRYING_OPTIONS, dryingCaution } from '../../ui/drying.ts';
import { capital, dayWord } from '../../ui/words.ts';
import { today } from '../../ui/days.ts';
import { useDerived } from '../../workers/useDerived.ts';
import { useBlocks } from '../../workers/useCounts.ts';

/** So many tasks of a section, and offers, are listed at once. */
const SHOWN = 60;
const MAX_AFTER = 20;

/** What is to be done, and what the display itself asks for. */
export function TasksPanel() {
  const scene = useScene('task', 'section');
  const tasks = listOf(scene, 'task');
  const open = tasks.filter(({ done }) => done === null);
  const circle = circleOf(tasks);
  const groups = [
    ...sectionOptions(scene).map(({ value, word }) => ({ id: value, word: `Section ${word}` })),
    { id: null, word: 'No section' },
  ]
    .map((group) => ({ ...group, tasks: open.filter(({ section }) => section === group.id) }))
    .filter((group) => group.tasks.length > 0);
  const done = tasks
    .filter((task) => task.done !== null)
    .toSorted((a, b) => ((a.done ?? '') < (b.done ?? '') ? 1 : -1));
  return (
    <div className="p-3 sm:p-4 grid gap-6 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_400px] items-start max-w-[1240px]">
      <section aria-labelledby="open-tasks">
        <Heading id="open-tasks" aside={`${open.length} open, ${done.length} done`}>
          Tasks
        </Heading>
        {circle.length > 0 && (
          <p role="alert" className="text-error pb-2">
            These come after each other in a circle:{' '}
            {circle.map((id) => `“${scene.task[id]?.name ?? id}”`).join(', ')}.
          </p>
        )}
        {open.length === 0 && (
          <Empty title="No task yet">
            Add suggested tasks, or write a task of your own. A task that can be finished in one evening is
            offered under Tonight.
          </Empty>
        )}
        {groups.map((group) => (
          <div key={group.id ?? '-'}>
            <Heading aside={`${group.tasks.length}`}>{group.word}</Heading>
            <More list={group.tasks} step={SHOWN}>
              {(task) => <TaskRow key={task.id} task={task} />}
            </More>
          </div>
        ))}
        <NewTask />
        {done.length > 0 && (
          <details className="pt-4">
            <summary className="cursor-pointer font-semibold">Done, the latest first</summary>
            <More list={done} step={SHOWN}>
              {(task) => <TaskRow key={task.id} task={task} />}
            </More>
          </details>
        )}
      </section>
      <Offers />
    </div>
  );
}

function TaskRow({ task }: { task: Task }) {
  const scene = useDisplay(({ scene }) => scene);
  const edit = useEdit();
  const may = useDenialReason();
  const [open, setOpen] = useState(false);
  const { id, v, name, owner, work, done, after, parts, pieces, due, rests } = task;
  const forbids = may({ op: 'patch', kind: 'task', id, v, set: { done: today() } });
  const person = owner ?? scene.section[task.section ?? '']?.owner ?? null;
  const guess = guessOf(scene, task, person);
  const waits = after.flatMap((before) => {
    const one = scene.task[before];
    return one && one.done === null ? [one.name] : [];
  });
  const facts = [
    capital(work),
    ...(person ? [scene.person[person]?.name ?? person] : ['nobody’s yet']),
    ...(pieces === null ? [] : [countOf(pieces, 'piece')]),
    ...(parts && parts > today() ? [`parts on ${dayWord(parts)}`] : []),
    ...(due ? [`due ${dayWord(due)}`] : []),
    ...(rests > 0 ? [`then ${rests} h by itself`] : []),
    ...(waits.length > 0 ? [`after “${waits.join('”, “')}”`] : []),
  ];
  return (
    <li className="border-b hair py-1.5">
      <div className="flex items-start gap-2">
        <input
          type="checkbox"
          className="checkbox checkbox-sm mt-0.5"
          aria-label={`${name}, done`}
          checked={done !== null}
          disabled={forbids !== null}
          onChange={(event) =>
            edit.patch(
              event.currentTarget.checked ? `finished “${name}”` : `reopened “${name}”`,
              'task',
              task,
              {
                done: event.currentTarget.checked ? today() : null,
              },
            )
          }
        />
        <button
          type="button"
          className="flex-1 min-w-0 text-left cursor-pointer"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
        >
          <span className={`block break-words ${done ? 'line-through ink-2' : ''}`}>{name}</span>
          <span className="block ink-2 text-xs">{done ? `done ${dayWord(done)}` : facts.join(', ')}</span>
        </button>
        <span className="fig text-right whitespace-nowrap">
          {guess ? hoursWord(task, guess) : <span className="text-warning">no guess</span>}
          {due !== null && done === null && due < today() && (
            <span className="block text-xs text-error">△ late</span>
          )}
        </span>
        <RemoveButton
          what={`task ${name}`}
          disabled={may({ op: 'remove', kind: 'task', id, v }) !== null}
          onClick={() => edit.remove(`removed the task “${name}”`, 'task', id, v)}
        />
      </div>
      {open && <TaskSheet task={task} disabled={forbids !== null} />}
    </li>
  );
}

/** Hours as they were typed or counted; of three guesses their mean, as reckoned with. */
const hoursWord = ({ low, high }: Task, guess: ThreeGuesses): string =>
  low === null && high === null ? `${Number(guess.likely.toFixed(1))} h` : `${pert(guess).mean.toFixed(1)} h`;

const guessed = (task: Task, set: Partial<Pick<Task, 'low' | 'likely' | 'high'>>): string | null => {
  const { low, likely, high } = { ...task, ...set };
  const given = [low, likely, high].filter((one) => one !== null);
  return given.every((one, i) => (given[i - 1] ?? one) <= one)
    ? null
    : `At best ${low ?? '–'} h, likely ${likely ?? '–'} h, at worst ${high ?? '–'} h: each has to be at least the one before.`;
};

function TaskSheet({ task, disabled }: { task: Task; disabled: boolean }) {
  const scene = useScene('task', 'section', 'display', 'person');
  const edit = useEdit();
  const [wrong, setWrong] = useState<string | null>(null);
  const set = (changed: Partial<Task>) =>
    edit.patch(`changed the task “${task.name}”`, 'task', task, changed);
  const setGuess = (changed: Partial<Pick<Task, 'low' | 'likely' | 'high'>>) => {
    const error = guessed(task, changed);
    setWrong(error);
    if (error === null) set(changed);
  };
  const before = listOf(scene, 'task').filter(
    ({ id, done }) => id !== task.id && done === null && !task.after.includes(id),
  );
  const hours = (label: string, field: 'low' | 'likely' | 'high') => (
    <NumberField
      label={label}
      unit="h"
      optional="none"
      value={task[field]}
      min={0}
      max={10_000}
      disabled={disabled}
      onCommit={(value) => setGuess({ [field]: value })}
    />
  );
  return (
    <div className="ml-7 my-1 pl-3 border-l border-base-300 grid sm:grid-cols-2 gap-x-6">
      <div>
        <TextField
          label="Name"
          value={task.name}
          required
          disabled={disabled}
          onCommit={(name) => set({ name })}
        />
        <SelectField
          label="Section"
          value={task.section ?? ''}
          options={sectionOptions(scene, 'none')}
          disabled={disabled}
          onCommit={(section) => set({ section: section || null })}
        />
        <SelectField<Stage | ''>
          label="Stage"
          value={task.stage ?? ''}
          options={[
            { value: '', word: 'any' },
            ...STAGES.map((value) => ({ value, word: stageWord(scene, value) })),
          ]}
          disabled={disabled}
          onCommit={(stage) => set({ stage: stage || null })}
        />
        <SelectField<Work>
          label="Work"
          value={task.work}
          options={WORKS.map((value) => ({ value, word: capital(value) }))}
          disabled={disabled}
          onCommit={(work) => set({ work })}
        />
        <SelectField
          label="Owner"
          value={task.owner ?? ''}
          options={personOptions(scene, 'the section’s owner')}
          disabled={disabled}
          onCommit={(owner) => set({ owner: owner || null })}
        />
      </div>
      <div>
        {hours('At best', 'low')}
        {hours('Most likely', 'likely')}
        {hours('At worst', 'high')}
        {wrong && (
          <p role="alert" className="text-error text-xs">
            {wrong}
          </p>
        )}
        <NumberField
          label="Pieces"
          optional="not counted"
          whole
          value={task.pieces}
          min={0}
          max={1_000_000}
          disabled={disabled}
          onCommit={(pieces) => set({ pieces })}
        />
        <DateField
          label="Parts there from"
          value={task.parts}
          disabled={disabled}
          onCommit={(parts) => set({ parts })}
        />
        <DateField
          label="To be done by"
          value={task.due}
          disabled={disabled}
          onCommit={(due) => set({ due })}
        />
        <NumberField
          label="Then waits by itself"
          unit="h"
          value={task.rests}
          min={0}
          max={10_000}
          disabled={disabled}
          onCommit={(rests) => rests !== null && set({ rests })}
        />
        {task.rests > 0 && (
          <SelectField<Drying | ''>
            label="Because it dries"
            value={task.drying ?? ''}
            options={DRYING_OPTIONS}
            disabled={disabled}
            onCommit={(drying) => set({ drying: drying || null })}
          />
        )}
        {task.rests > 0 && task.drying && (
          <p className="text-xs ink-2 py-1">{dryingCaution(task.drying, `${task.rests} h`)}</p>
        )}
        <SelectField
          label="Comes after"
          value=""
          options={[
            { value: '', word: task.after.length > 0 ? 'one more …' : 'nothing' },
            ...before.map(({ id, name }) => ({ value: id, word: name })),
          ]}
          disabled={disabled || task.after.length >= MAX_AFTER}
          onCommit={(id) => id !== '' && set({ after: [...task.after, id] })}
        />
        {task.after.map((id) => (
          <div key={id} className="flex items-center justify-between text-xs">
            <span className="min-w-0 truncate">after “{scene.task[id]?.name ?? id}”</span>
            <RemoveButton
              what={`that it comes after ${scene.task[id]?.name ?? id}`}
              disabled={disabled}
              onClick={() => set({ after: task.after.filter((one) => one !== id) })}
            />
          </div>
        ))}
      </div>
    </div>
  );
}

function NewTask() {
  const scene = useScene('section');
  const person = useDisplay(({ actor }) => actor.person);
  const edit = useEdit();
  const may = useDenialReason();
  const [name, setName] = useState('');
  const [section, setSection] = useState('');
  const [hours, setHours] = useState<number | null>(1);
  const data = { name: name.trim(), section: section || null, owner: section ? null : person, likely: hours };
  const forbids = may({ op: 'add', kind: 'task', id: 'x', data: { ...data, name: 'x' } });
  return (
    <form
      aria-label="New task"
      className="pt-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (edit.add(`wrote down the task “${data.name}”`, 'task', freshId('task'), data)) setName('');
      }}
    >
      <Heading>One of your own</Heading>
      <div className="flex flex-wrap items-end gap-2">
        <label className="flex-1 min-w-48">
          <span className="block text-xs ink-2">What can be finished</span>
          <input
            className="input input-sm w-full"
            maxLength={80}
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
          />
        </label>
        <div className="w-36">
          <SelectField
            bare
            label="Section of the new task"
            value={section}
            options={sectionOptions(scene, 'no section')}
            onCommit={setSection}
          />
        </div>
        <div className="w-24">
          <NumberField
            bare
            label="Hours of the new task"
            unit="h"
            value={hours}
            min={0}
            max={10_000}
            optional="none"
            onCommit={setHours}
          />
        </div>
        <button type="submit" className="btn btn-sm" disabled={name.trim() === '' || forbids !== null}>
          <Plus size={14} aria-hidden /> Add
        </button>
      </div>
      {forbids && <p className="ink-2 text-xs pt-1">{forbids}</p>}
    </form>
  );
}

/** What the display asks for by itself, to be taken over as tasks. */
function Offers() {
  const scene = useDisplay(({ scene }) => scene);
  const edit = useEdit();
  const may = useDenialReason();
  const findings = useDerived(({ judgement }) => judgement?.findings ?? null);
  const blocks = useBlocks();
  const [section, setSection] = useState('');
  const offers = useMemo(() => offeredTasks(scene, { findings, blocks }), [scene, findings, blocks]);
  const wanted = offers.filter((offer) => section === '' || offer.section === section);
  const dataOf = ({ source, name, section: of, stage, work, pieces, likely }: OfferedTask) => ({
    ...{ source, name, section: of, stage, work, pieces, likely },
  });
  const allowed = (offer: OfferedTask) =>
    may({ op: 'add', kind: 'task', id: 'x', data: dataOf(offer) }) === null;
  const take = (list: readonly OfferedTask[]) =>
    edit.change(
      list.length === 1 ? `added the task “${list[0]?.name}”` : `added ${list.length} tasks`,
      list.map((offer) => ({ op: 'add', kind: 'task', id: freshId('task'), data: dataOf(offer) })),
    );
  const shown = wanted.slice(0, SHOWN);
  return (
    <section aria-labelledby="offers">
      <Heading
        id="offers"
        aside={findings === null || blocks === null ? 'checking and counting …' : `${wanted.length}`}
      >
        Suggested tasks
      </Heading>
      <SelectField
        label="In"
        value={section}
        options={sectionOptions(scene, 'all sections')}
        onCommit={setSection}
      />
      {wanted.length === 0 && findings !== null && blocks !== null && (
        <p className="ink-2 py-2">
          Nothing more: every finding, seam, placeholder and count is a task or closed.
        </p>
      )}
      <ul>
        {shown.map((offer) => (
          <li key={offer.source} className="flex items-start gap-2 border-b hair py-1.5">
            <span className="flex-1 min-w-0 break-words">
              {offer.name}
              <span className="block ink-2 text-xs">
                {[
                  ...(offer.section ? [`section ${scene.section[offer.section]?.letter ?? ''}`] : []),
                  offer.work,
                  ...(offer.pieces === null ? [] : [countOf(offer.pieces, 'piece')]),
                  ...(offer.likely === null ? [] : [`about ${offer.likely} h`]),
                ].join(', ')}
              </span>
            </span>
            <button
              type="button"
              className="btn btn-xs"
              disabled={!allowed(offer)}
              aria-label={`Add as task: ${offer.name}`}
              onClick={() => take([offer])}
            >
              Add as task
            </button>
          </li>
        ))}
      </ul>
      {wanted.length > SHOWN && (
        <p className="ink-2 text-xs py-1">and {wanted.length - SHOWN} more: pick a section to see its own</p>
      )}
      {shown.length > 1 && shown.some(allowed) && (
        <button type="button" className="btn btn-sm mt-2" onClick={() => take(shown.filter(allowed))}>
          Add all {shown.filter(allowed).length} shown
        </button>
      )}
      <Basis>
        Errors and warnings that nobody keeps, open markers, placeholders that stand, seams between two
        builders not signed by both, accepted advice, figures not placed, the ground of each module as
        counted, and listed buildings: each once, and only where its section has not passed that stage. Hours
        without pieces are guesses of ours: half an hour for a finding or a marker, three quarters for a seam,
        one for advice.
      </Basis>
    </section>
  );
}
