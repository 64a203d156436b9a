import { timetableFaults, timetableOf, type Absence, type TimedTask } from './timetable.ts';
import type { ShowTask } from './showTasks.ts';

// The day of the show by the minute: who does what when, what is critical, what to leave out; planned again from what is done.

/** A task with its time, minutes after the doors open to builders, and who does it. */
export interface DayRow {
  key: string;
  start: number;
  end: number;
  people: string[];
  /** How far it may slip without the end slipping, minutes. */
  slack: number;
  state: 'waits' | 'runs' | 'over' | 'dropped';
}

export interface DayPlan {
  rows: DayRow[];
  /** When everything is ready, minutes; no plan is ready before `bound`. */
  ready: number;
  bound: number;
  /** Tasks that make it ready earlier when they are left out, and when it is ready then. */
  drops: { key: string; ready: number }[];
}

/** Someone who helps, from a minute on. */
export interface Helper {
  id: string;
  arrives: number;
}

export type DayAnswer = { ok: true; plan: DayPlan } | { ok: false; reasons: string[] };

const MINUTE_MS = 60_000;
/** Before and after minute 0 what is done belongs to this day, minutes. */
const EARLY = 6 * 60;
const LATE = 24 * 60;
/** So many tasks that may be left out are tried. */
const MAX_DROPS = 12;

/**
 * Plans the day: what is over stays as it was, what runs ends when it is planned to or now, the rest begins from now on.
 * @param now minutes after the beginning; null: the day has not begun
 * @param origin the moment of minute 0, ms since 1970
 * @param until when it must be ready; what to leave out is looked for where it is not
 */
export function dayPlanOf(
  tasks: readonly ShowTask[],
  helpers: readonly Helper[],
  { now, origin, until }: { now: number | null; origin: number; until: number },
): DayAnswer {
  const first = planned(tasks, helpers, now, origin);
  if (!first.ok || first.plan.ready <= until) return first;
  const waits = new Set(first.plan.rows.flatMap(({ key, state }) => (state === 'waits' ? [key] : [])));
  const canGo = tasks.filter(({ key, canDrop }) => canDrop && waits.has(key));
  const drops = canGo.slice(0, MAX_DROPS).flatMap(({ key }) => {
    const without = tasks.flatMap((task) =>
      task.key === key ? [] : [{ ...task, after: waitsWithout(task, tasks, key) }],
    );
    const then = planned(without, helpers, now, origin, true);
    return then.ok && then.plan.ready < first.plan.ready ? [{ key, ready: then.plan.ready }] : [];
  });
  return { ok: true, plan: { ...first.plan, drops: drops.sort((a, b) => a.ready - b.ready) } };
}

const waitsWithout = ({ after }: ShowTask, tasks: readonly ShowTask[], key: string): string[] =>
  after.includes(key)
    ? [
        ...new Set([
          ...after.filter((one) => one !== key),
          ...(tasks.find((one) => one.key === key)?.after ?? []),
        ]),
      ]
    : after;

function planned(
  tasks: readonly ShowTask[],
  helpers: readonly Helper[],
  now: number | null,
  origin: number,
  isQuick = false,
): DayAnswer {
  const minuteOf = (instant: string | null | undefined): number | null => {
    const minute = instant ? (Date.parse(instant) - origin) / MINUTE_MS : null;
    // What was done on another day, at a rehearsal or the show before, is not done on this one.
    return minute !== null && minute > -EARLY && minute < LATE ? minute : null;
  };
  const hands = helpers.length;
  if (hands === 0) return { ok: false, reasons: ['Nobody comes to set it up: say who comes.'] };
  const at = now ?? 0;
  const over = new Map<string, { start: number; end: number }>();
  const running = new Map<string, { start: number; end: number }>();
  for (const { key, chore, minutes } of tasks) {
    if (!chore || chore.dropped) continue;
    const [began, ended] = [minuteOf(chore.began), minuteOf(chore.ended)];
    if (ended !== null) {
      const end = Math.round(ended);
      over.set(key, { start: began === null ? end - minutes : Math.min(end, Math.round(began)), end });
    } else if (began !== null) {
      const start = Math.round(began);
      running.set(key, { start, end: Math.max(Math.ceil(at), start + minutes) });
    }
  }
  const from = Math.ceil(now ?? 0);
  const left = tasks.filter(({ key, chore }) => !chore?.dropped && !over.has(key) && !running.has(key));
  const timed = left.map(({ key, minutes, hands: needs, after }): TimedTask => {
    const ends = after.flatMap((one) => running.get(one)?.end ?? []);
    return {
      ...{ id: key, minutes, hands: needs },
      after: after.filter((one) => !over.has(one) && !running.has(one)),
      from: Math.max(0, ...ends.map((end) => end - from)),
    };
  });
  const busy = tasks.flatMap(({ key, hands: needs }): Absence[] => {
    const run = running.get(key);
    return run ? [{ until: run.end - from, hands: Math.min(needs, hands) }] : [];
  });
  const arrivals = helpers.map(({ arrives }): Absence => ({ until: arrives - from, hands: 1 }));
  const absent = [...busy, ...arrivals].filter(({ until }) => until > 0);
  const answer = timetableOf(timed, hands, { absent, isQuick });
  if (!answer.ok) return { ok: false, reasons: answer.reasons.map((reason) => namedReason(reason, tasks)) };
  const { timetable } = answer;
  const faults = timetableFaults(timed, hands, timetable.rows, absent);
  if (faults.length > 0) throw new Error(`The timetable does not hold: ${faults.join(' ')}`);
  const times = new Map([
    ...over,
    ...running,
    ...timetable.rows.map(({ id, start, end }) => [id, { start: from + start, end: from + end }] as const),
  ]);
  const ends = (list: ReadonlyMap<string, { end: number }>) => [...list.values()].map(({ end }) => end);
  const ready = Math.max(0, ...ends(times));
  const people = peopleOf(tasks, helpers, times);
  const slack = slackOf(tasks, times, people, ready);
  const rows = tasks.flatMap(({ key, chore }): DayRow[] => {
    const time = times.get(key);
    if (!time)
      return chore?.dropped ? [{ key, start: 0, end: 0, people: [], slack: 0, state: 'dropped' }] : [];
    const state = over.has(key) ? 'over' : running.has(key) ? 'runs' : 'waits';
    return [{ key, ...time, people: people.get(key) ?? [], slack: slack.get(key) ?? 0, state }];
  });
  const bound = left.length === 0 ? ready : Math.max(from + timetable.bound, ...ends(running), 0);
  return { ok: true, plan: { rows, ready, bound: Math.min(ready, bound), drops: [] } };
}

const namedReason = (reason: string, tasks: readonly ShowTask[]): string =>
  tasks
    .toSorted((a, b) => b.key.length - a.key.length)
    .reduce((words, { key, title }) => words.replaceAll(key, title), reason);

/** Who does each task: of those who are there and free the owner of its section first, then who has worked least. */
function peopleOf(
  tasks: readonly ShowTask[],
  helpers: readonly Helper[],
  times: ReadonlyMap<string, { start: number; end: number }>,
): Map<string, string[]> {
  const free = new Map(helpers.map(({ id, arrives }) => [id, arrives]));
  const worked = new Map(helpers.map(({ id }) => [id, 0]));
  const people = new Map<string, string[]>();
  const inTime = tasks
    .flatMap(({ key, hands, owner }) => {
      const time = times.get(key);
      return time ? [{ key, hands, owner, ...time }] : [];
    })
    .sort((a, b) => a.start - b.start || b.hands - a.hands || (a.key < b.key ? -1 : 1));
  for (const { key, hands, owner, start, end } of inTime) {
    const chosen = helpers
      .filter(({ id }) => (free.get(id) ?? 0) <= start)
      .sort(
        (a, b) =>
          Number(b.id === owner) - Number(a.id === owner) ||
          (worked.get(a.id) ?? 0) - (worked.get(b.id) ?? 0),
      )
      .slice(0, hands)
      .map(({ id }) => id);
    people.set(key, chosen);
    for (const id of chosen) {
      free.set(id, end);
      worked.set(id, (worked.get(id) ?? 0) + end - start);
    }
  }
  return people;
}

/** How far each may slip: what waits for it, and what the same people do next, begins as planned. */
function slackOf(
  tasks: readonly ShowTask[],
  times: ReadonlyMap<string, { start: number; end: number }>,
  people: ReadonlyMap<string, string[]>,
  ready: number,
): Map<string, number> {
  const next = new Map<string, Set<string>>([...times.keys()].map((key) => [key, new Set()]));
  for (const { key, after } of tasks) if (times.has(key)) for (const one of after) next.get(one)?.add(key);
  const byPerson = new Map<string, string[]>();
  const keys = [...times.keys()].sort((a, b) => (times.get(a)?.start ?? 0) - (times.get(b)?.start ?? 0));
  for (const key of keys)
    for (const id of people.get(key) ?? []) {
      const own = byPerson.get(id) ?? [];
      const last = own.at(-1);
      if (last !== undefined) next.get(last)?.add(key);
      byPerson.set(id, [...own, key]);
    }
  const slack = new Map<string, number>();
  for (const key of keys.toReversed()) {
    const time = times.get(key);
    if (!time) continue;
    const latest = Math.min(
      ready,
      ...[...(next.get(key) ?? [])].map((one) => (times.get(one)?.start ?? ready) + (slack.get(one) ?? 0)),
    );
    slack.set(key, Math.max(0, latest - time.end));
  }
  return slack;
}
