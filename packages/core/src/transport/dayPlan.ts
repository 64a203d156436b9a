import {
  timetableBoundOf,
  timetableFaults,
  timetableOf,
  type Absence,
  type Pool,
  type TimedTask,
} from './timetable.ts';
import type { Closing } from './phases.ts';
import { loadOf, type ShowTask } from './showTasks.ts';

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
  /** The most that they carry, kg; null: no limit is known. */
  carriesKg: number | null;
}

export type DayAnswer = { ok: true; plan: DayPlan } | { ok: false; reasons: string[] };

const MINUTE_MS = 60_000;
/** Before and after minute 0 what is done belongs to this day, minutes. */
const EARLY = 6 * 60;
const LATE = 48 * 60;
/** So many tasks that may be left out are tried. */
const MAX_DROPS = 12;

/** When a day is planned: now, and by when. */
export interface DayTimes {
  now: number | null;
  origin: number;
  until: number;
  closed?: readonly Closing[];
}

/**
 * Plans the day: what is over stays as it was, what runs ends when it is planned to or now, the rest begins from now on.
 * @param now minutes after the beginning; null: the day has not begun
 * @param origin the moment of minute 0, ms since 1970
 * @param until when it must be ready; what to leave out is looked for where it is not
 * @param closed nobody may be there: nothing that takes hands goes on
 */
export function dayPlanOf(
  tasks: readonly ShowTask[],
  helpers: readonly Helper[],
  { now, origin, until, closed = [] }: DayTimes,
): DayAnswer {
  const first = planned(tasks, helpers, { now, origin, closed });
  if (!first.ok || first.plan.ready <= until) return first;
  const waits = new Set(first.plan.rows.flatMap(({ key, state }) => (state === 'waits' ? [key] : [])));
  const canGo = tasks.filter(({ key, canDrop }) => canDrop && waits.has(key));
  const drops = canGo.slice(0, MAX_DROPS).flatMap(({ key }) => {
    const without = tasks.flatMap((task) =>
      task.key === key ? [] : [{ ...task, after: waitsWithout(task, tasks, key) }],
    );
    const then = planned(without, helpers, { now, origin, closed, isQuick: true });
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
  { now, origin, closed, isQuick = false }: Omit<Required<DayTimes>, 'until'> & { isQuick?: boolean },
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
  const nobody = closed.map((one): Closing => ({ from: one.from - from, until: one.until - from }));
  const away = awayOf(helpers, from, nobody);
  const pools = poolsOf(left, helpers, from, nobody);
  const absent = [...busy, ...away];
  const answer = timetableOf(timed, hands, { absent, pools, isQuick });
  if (!answer.ok) return { ok: false, reasons: answer.reasons.map((reason) => namedReason(reason, tasks)) };
  const { timetable } = answer;
  const faults = timetableFaults(timed, hands, timetable.rows, { absent, pools });
  if (faults.length > 0) throw new Error(`The timetable does not hold: ${faults.join(' ')}`);
  const times = new Map([
    ...over,
    ...running,
    ...timetable.rows.map(({ id, start, end }) => [id, { start: from + start, end: from + end }] as const),
  ]);
  const people = peopleOf(tasks, helpers, times, {
    isFixed: (key) => over.has(key) || running.has(key) || pools.length === 0,
    closed,
  });
  const ends = (list: ReadonlyMap<string, { end: number }>) => [...list.values()].map(({ end }) => end);
  const ready = Math.max(0, ...ends(times));
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

/** No plan of a whole day is ready before, minutes; null: there are too few hands for a task, or none at all. */
export function dayBoundOf(
  tasks: readonly ShowTask[],
  helpers: readonly Helper[],
  closed: readonly Closing[],
): number | null {
  if (helpers.length === 0) return null;
  const bound = timetableBoundOf(
    tasks.map(({ key, ...task }) => ({ id: key, ...task })),
    helpers.length,
    { absent: awayOf(helpers, 0, closed), pools: poolsOf(tasks, helpers, 0, closed) },
  );
  // A task takes a minute at least: without one there is no plan at all.
  return bound === 0 && tasks.length > 0 ? null : bound;
}

/** Hands that are not there from a minute on: who comes later, and all of them while nobody may be there. */
function awayOf(helpers: readonly Helper[], from: number, nobody: readonly Closing[]): Absence[] {
  return [
    ...helpers.map(({ arrives }): Absence => ({ until: arrives - from, hands: 1 })),
    // Who has not come yet is away once.
    ...nobody.flatMap((one) =>
      parts(
        one,
        helpers.map(({ arrives }) => arrives - from),
      ).map(({ from: start, until, there }): Absence => ({
        ...{ from: start, until, hands: there },
      })),
    ),
  ].filter(({ until, hands }) => until > 0 && hands > 0);
}

/** A time in pieces by who has come. */
function parts({ from, until }: Closing, arrivals: readonly number[]): (Closing & { there: number })[] {
  const cuts = [from, ...arrivals.filter((at) => at > from && at < until).sort((a, b) => a - b), until];
  return cuts.slice(0, -1).map((start, i) => ({
    ...{ from: start, until: cuts[i + 1] },
    there: arrivals.filter((at) => at <= start).length,
  }));
}

/** For each limit of what someone carries those above it, and the tasks in which each hand bears more than that. */
function poolsOf(
  tasks: readonly ShowTask[],
  helpers: readonly Helper[],
  from: number,
  nobody: readonly Closing[],
): Pool[] {
  const limits = [...new Set(helpers.flatMap(({ carriesKg }) => carriesKg ?? []))].sort((a, b) => a - b);
  return limits.flatMap((limit): Pool[] => {
    const needs = new Map(
      tasks.flatMap((task) => (loadOf(task) > limit ? [[task.key, task.hands] as const] : [])),
    );
    const strong = helpers.filter((helper) => canBear(helper, limit) && helper.carriesKg !== limit);
    return needs.size === 0 ? [] : [{ needs, hands: strong.length, absent: awayOf(strong, from, nobody) }];
  });
}

/** Whether someone carries so much. */
export const canBear = ({ carriesKg }: Pick<Helper, 'carriesKg'>, kg: number) =>
  carriesKg === null || carriesKg >= kg;

/**
 * Who does each task: of those who are there, free and strong enough the owner of its section first, then who bears least,
 * then who has worked least. Where not all are alike a task may have to wait for the right ones: its time moves on then.
 * @param times by key; moved where a task waits
 */
function peopleOf(
  tasks: readonly ShowTask[],
  helpers: readonly Helper[],
  times: Map<string, { start: number; end: number }>,
  { isFixed, closed }: { isFixed: (key: string) => boolean; closed: readonly Closing[] },
): Map<string, string[]> {
  const free = new Map(helpers.map(({ id, arrives }) => [id, arrives]));
  const freeAt = ({ id }: Helper) => free.get(id) ?? 0;
  const worked = new Map(helpers.map(({ id }) => [id, 0]));
  const people = new Map<string, string[]>();
  const inTime = tasks
    .flatMap((task) => {
      const time = times.get(task.key);
      return time ? [{ ...task, ...time, loadKg: loadOf(task) }] : [];
    })
    .sort(
      (a, b) => a.start - b.start || b.loadKg - a.loadKg || b.hands - a.hands || (a.key < b.key ? -1 : 1),
    );
  for (const { key, hands, owner, loadKg, minutes, after, ...planned } of inTime) {
    const able = helpers.filter((helper) => isFixed(key) || canBear(helper, loadKg));
    let { start, end } = planned;
    if (!isFixed(key)) {
      const before = after.map((one) => times.get(one)?.end ?? 0);
      const soonest = able.map(freeAt).sort((a, b) => a - b)[hands - 1] ?? 0;
      start = pastClosings(
        Math.max(start, ...before, hands > 0 ? soonest : 0),
        hands > 0 ? minutes : 0,
        closed,
      );
      end = start + minutes;
      times.set(key, { start, end });
    }
    const chosen = able
      .filter((helper) => freeAt(helper) <= start)
      .sort(
        (a, b) =>
          Number(b.id === owner) - Number(a.id === owner) ||
          bearing(a) - bearing(b) ||
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

const bearing = ({ carriesKg }: Helper) => carriesKg ?? 1000;

/** The first moment from one on at which so many minutes lie in no closing. */
function pastClosings(from: number, minutes: number, closed: readonly Closing[]): number {
  const blocking = closed.find((one) => one.from < from + minutes && from < one.until && minutes > 0);
  return blocking ? pastClosings(blocking.until, minutes, closed) : from;
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
