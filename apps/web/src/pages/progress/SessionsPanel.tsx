import { addMinutes, differenceInMinutes, format, parseISO } from 'date-fns';
import { useEffect, useState } from 'react';
import { minutesTyped, numberTyped } from '@quarry/core/grid';
import {
  STAGES,
  WORKS,
  listOf,
  sectionsOf,
  stageWord,
  type Session,
  type Stage,
  type Work,
} from '@quarry/core/document';
import { methodOf, rateOf } from '@quarry/core/progress';
import { freshId, useDisplay, useEdit, useDenialReason, useScene } from '../../data/useDisplay.tsx';
import { More } from '../../ui/More.tsx';
import { Basis, Empty, Heading } from '../../ui/parts.tsx';
import { sectionOptions } from '../../ui/picks.ts';
import { capital } from '../../ui/words.ts';
import { today } from '../../ui/days.ts';
import { MAX_SESSION_MINUTES, SessionRow } from './SessionRow.tsx';

/** Refresh interval of a running session's time, ms. */
const TICK_MS = 15_000;
/** So many sessions are listed at once. */
const SHOWN = 40;

/** One's hours at the table: started and stopped with a thumb, or typed later; and what they teach. */
export function SessionsPanel() {
  const scene = useScene('session');
  const person = useDisplay(({ actor }) => actor.person);
  const may = useDenialReason();
  const sessions = listOf(scene, 'session').toSorted((a, b) => (a.start < b.start ? 1 : -1));
  const running = sessions.find((session) => session.person === person && session.minutes === null);
  const forbids =
    person === null
      ? 'Your account is nobody on this display yet; its owner says under Crew, People, who you are.'
      : may({ op: 'add', kind: 'session', id: 'x', data: { person } });
  return (
    <div className="p-3 sm:p-4 grid gap-6 grid-cols-1 lg:grid-cols-[minmax(0,380px)_minmax(0,1fr)] items-start max-w-[1200px]">
      <section aria-labelledby="table">
        <Heading id="table">At the table</Heading>
        {forbids ? (
          <p className="ink-2">{forbids}</p>
        ) : running ? (
          <Running session={running} />
        ) : (
          <Start person={person ?? ''} />
        )}
        <Rates />
      </section>
      <section aria-labelledby="sessions">
        <Heading id="sessions" aside={`${sessions.length}`}>
          Sessions
        </Heading>
        {sessions.length === 0 && (
          <Empty title="No session yet">
            Press Start when you sit down and Stop when you get up. From three sessions with counted pieces
            on, your own rate stands here in place of a guess.
          </Empty>
        )}
        <More list={sessions} step={SHOWN}>
          {(session) => <SessionRow key={session.id} session={session} />}
        </More>
      </section>
    </div>
  );
}

function Start({ person }: { person: string }) {
  const scene = useScene('section');
  const edit = useEdit();
  const own = sectionsOf(scene, person);
  const [section, setSection] = useState(own[0]?.id ?? '');
  const [work, setWork] = useState<Work>('ground');
  const [minutes, setMinutes] = useState('');
  const add = (start: Date, lasted: number | null) =>
    edit.add(lasted === null ? 'began a session' : 'wrote down a session', 'session', freshId('session'), {
      ...{ person, section: section || null, work, minutes: lasted },
      start: start.toISOString(),
    });
  const typed = minutesTyped(minutes) ?? 0;
  const whole = typed >= 1 && typed <= MAX_SESSION_MINUTES;
  return (
    <>
      <div className="grid grid-cols-2 gap-2">
        <label>
          <span className="block pb-0.5">Section</span>
          <select
            className="select w-full"
            value={section}
            onChange={(event) => setSection(event.currentTarget.value)}
          >
            {sectionOptions(scene, 'none').map(({ value, word }) => (
              <option key={value} value={value}>
                {word}
              </option>
            ))}
          </select>
        </label>
        <label>
          <span className="block pb-0.5">Work</span>
          <select
            className="select w-full"
            value={work}
            onChange={(event) => setWork(WORKS.find((one) => one === event.currentTarget.value) ?? work)}
          >
            {WORKS.map((one) => (
              <option key={one} value={one}>
                {capital(one)}
              </option>
            ))}
          </select>
        </label>
      </div>
      <button
        type="button"
        className="btn btn-primary w-full h-16 text-lg mt-2"
        onClick={() => add(new Date(), null)}
      >
        Start
      </button>
      <form
        className="flex items-end gap-2 pt-2"
        aria-label="Type a session"
        onSubmit={(event) => {
          event.preventDefault();
          if (add(addMinutes(new Date(), -typed), typed)) setMinutes('');
        }}
      >
        <label className="flex-1">
          <span className="block pb-0.5">
            Or typed: minutes, until now
            {whole && String(typed) !== minutes.trim() && ` (${typed} min)`}
          </span>
          <input
            className="input w-full fig"
            placeholder="90 or 1:30"
            aria-label="Or typed: minutes, until now"
            value={minutes}
            aria-invalid={minutes !== '' && !whole}
            onChange={(event) => setMinutes(event.currentTarget.value)}
          />
        </label>
        <button type="submit" className="btn" disabled={!whole}>
          Write down
        </button>
      </form>
      {minutes !== '' && !whole && (
        <p role="alert" className="text-error text-xs">
          Minutes: “{minutes}” is no time from 1 to {MAX_SESSION_MINUTES.toLocaleString('en')} minutes; type
          90 or 1:30.
        </p>
      )}
    </>
  );
}

function Running({ session }: { session: Session }) {
  const scene = useScene('section', 'task', 'display');
  const edit = useEdit();
  const [now, setNow] = useState(() => new Date());
  const [pieces, setPieces] = useState('');
  const [note, setNote] = useState('');
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const [stage, setStage] = useState<Stage | ''>('');
  const may = useDenialReason();
  const section = session.section === null ? undefined : scene.section[session.section];
  const tasks = listOf(scene, 'task').filter(
    (task) =>
      task.done === null &&
      (task.owner === session.person || (task.section === session.section && task.section !== null)) &&
      may({ op: 'patch', kind: 'task', id: task.id, v: task.v, set: { done: today() } }) === null,
  );
  useEffect(() => {
    const timer = setInterval(() => setNow(new Date()), TICK_MS);
    return () => clearInterval(timer);
  }, []);
  const lasted = Math.max(0, differenceInMinutes(now, parseISO(session.start)));
  const counted = pieces.trim() === '' ? null : (numberTyped(pieces, true) ?? NaN);
  const whole = counted === null || (Number.isInteger(counted) && counted >= 0 && counted <= 1_000_000);
  const stop = () => {
    const done = tasks.filter(({ id }) => ticked.has(id));
    const minutes = differenceInMinutes(new Date(), parseISO(session.start));
    edit.change('ended a session', [
      {
        ...{ op: 'patch', kind: 'session', id: session.id, v: session.v },
        set: {
          minutes: Math.min(MAX_SESSION_MINUTES, Math.max(1, minutes)),
          ...{ pieces: counted, note: note.trim(), ticked: done.map(({ id }) => id) },
        },
      },
      ...done.map(({ id, v }) => ({
        op: 'patch' as const,
        kind: 'task' as const,
        id,
        v,
        set: { done: today() },
      })),
      ...(section && stage !== '' && stage !== section.stage
        ? [
            {
              ...{ op: 'patch' as const, kind: 'section' as const, id: section.id, v: section.v },
              set: { stage, stageDone: 0 },
            },
          ]
        : []),
    ]);
  };
  const letter = session.section ? scene.section[session.section]?.letter : null;
  return (
    <div className="border border-base-content p-3">
      <p>
        {capital(session.work)}
        {letter && `, section ${letter}`} since {format(parseISO(session.start), 'HH:mm')}
      </p>
      <p className="fig text-3xl py-1" role="timer">
        {Math.floor(lasted / 60)}:{String(lasted % 60).padStart(2, '0')}{' '}
        <span className="text-sm ink-2">h:min</span>
      </p>
      <label className="block">
        <span className="block pb-0.5">Pieces placed, if you counted</span>
        <input
          className="input w-full fig"
          inputMode="numeric"
          value={pieces}
          aria-invalid={!whole}
          onChange={(event) => setPieces(event.currentTarget.value)}
        />
      </label>
      {!whole && (
        <p role="alert" className="text-error text-xs">
          Pieces placed: “{pieces}” is not a whole number from 0 to 1,000,000.
        </p>
      )}
      <label className="block pt-1">
        <span className="block pb-0.5">What was done</span>
        <input
          className="input w-full"
          maxLength={2000}
          value={note}
          onChange={(event) => setNote(event.currentTarget.value)}
        />
      </label>
      {section && (
        <label className="block pt-1">
          <span className="block pb-0.5">Section {section.letter} is now</span>
          <select
            className="select w-full"
            value={stage === '' ? section.stage : stage}
            onChange={(event) => setStage(STAGES.find((one) => one === event.currentTarget.value) ?? '')}
          >
            {STAGES.map((one) => (
              <option key={one} value={one}>
                {stageWord(scene, one)}
              </option>
            ))}
          </select>
        </label>
      )}
      {tasks.length > 0 && (
        <fieldset className="pt-2">
          <legend>What is finished</legend>
          <ul className="max-h-44 overflow-y-auto">
            {tasks.map(({ id, name }) => (
              <li key={id}>
                <label className="flex items-center gap-2 py-1.5 border-b hair">
                  <input
                    type="checkbox"
                    className="checkbox"
                    checked={ticked.has(id)}
                    onChange={(event) => {
                      const next = new Set(ticked);
                      if (event.currentTarget.checked) next.add(id);
                      else next.delete(id);
                      setTicked(next);
                    }}
                  />
                  <span className="min-w-0 break-words">{name}</span>
                </label>
              </li>
            ))}
          </ul>
        </fieldset>
      )}
      <button
        type="button"
        className="btn btn-primary w-full h-16 text-lg mt-2"
        disabled={!whole}
        onClick={stop}
      >
        Stop
      </button>
    </div>
  );
}

/** The user's rates from counted sessions, and defaults where there are too few. */
function Rates() {
  const scene = useDisplay(({ scene }) => scene);
  const person = useDisplay(({ actor }) => actor.person);
  const rates = WORKS.map((work) => ({ work, ...rateOf(scene, person, work, methodOf(scene, null)) })).filter(
    ({ perHour }) => perHour > 0,
  );
  return (
    <>
      <Heading>Your rates</Heading>
      <dl>
        {rates.map(({ work, perHour, learnt, sessions, spread }) => (
          <div key={work} className="flex items-baseline justify-between gap-2 border-b hair py-0.5">
            <dt>{capital(work)}</dt>
            <dd className="fig text-right">
              {Math.round(perHour).toLocaleString('en')} <span className="text-xs">pieces/h</span>
              <span className="block ink-2 text-[11px]">
                {learnt ? `learnt from ${sessions}, ± ${Math.round(100 * spread)} %` : 'a guess of ours'}
              </span>
            </dd>
          </div>
        ))}
      </dl>
      <Basis>
        All counted pieces of your sessions of a kind over all their hours; the spread is the standard
        deviation of the logarithm of single sessions. Below three counted sessions a guess of ours stands.
        Ground goes by its method: this is the display’s own.
      </Basis>
    </>
  );
}
