import { countOf } from '../grid/index.ts';
import { orderOf } from '../assembly/index.ts';
import { seeded } from '../terrain/index.ts';
import { searchTimetable } from './timetableSearch.ts';
import {
  bestTimetable,
  emptyProfile,
  occupy,
  tailsOf,
  timetableBound,
  type TaskNet,
} from './timetableNet.ts';

// A timetable of tasks that wait for one another and share a number of hands: the shortest that is found, and a proven
// bound (the resource-constrained project scheduling problem with one resource; Pritsker, Watters, Wolfe 1969).

/** A task of a day: how long it takes so many hands, and which tasks end before it begins. */
export interface TimedTask {
  id: string;
  /** Whole minutes, from 1. */
  minutes: number;
  /** Hands it takes from its beginning to its end, whole, from 0. */
  hands: number;
  after: readonly string[];
  /** The minute before which it cannot begin; left out: 0. */
  from?: number;
}

/** Hands that are away or busy from the start of the day until a minute. */
export interface Absence {
  until: number;
  hands: number;
}

/** When a task begins and ends, minutes from the start of the day. */
export interface TimedRow {
  id: string;
  start: number;
  end: number;
}

export interface TimetableOptions {
  seed?: number;
  /** Who is not there from the beginning. */
  absent?: readonly Absence[];
  /** Ends with the first good one, for questions that are asked many times. */
  isQuick?: boolean;
}

/** A timetable in the order of the tasks. */
export interface Timetable {
  rows: TimedRow[];
  /** Minutes from the start to the last end. */
  length: number;
  /** No timetable is shorter, minutes. */
  bound: number;
}

/** So many lists are tried where it must go quickly. */
const QUICK_LISTS = 200;

/**
 * The shortest timetable that is found: dispatching by the longest chain behind a task, justified forth and back, varied
 * by seed, then all timetables one after another for as many steps as a short time allows. Its steps are counted, not its
 * seconds, so that the same tasks give the same timetable.
 * @param tasks ids are unique, and `after` names ids among them
 * @param hands that there are in the end, whole, from 1
 * @throws RangeError where an id is unknown or twice
 */
export function timetableOf(
  tasks: readonly TimedTask[],
  hands: number,
  { seed = 1, absent = [], isQuick = false }: TimetableOptions = {},
): { ok: true; timetable: Timetable } | { ok: false; reasons: string[] } {
  const made = netOf(tasks, hands, absent);
  if (!made.ok) return made;
  const { net } = made;
  const bound = timetableBound(net);
  const found = bestTimetable(net, tailsOf(net), bound, seeded(seed), isQuick ? QUICK_LISTS : undefined);
  const { starts, length, isProven } =
    found.length <= bound
      ? { ...found, isProven: true }
      : isQuick
        ? { ...found, isProven: false }
        : searchTimetable(net, found, bound);
  return {
    ok: true,
    timetable: {
      rows: tasks.map(({ id, minutes }, i) => ({ id, start: starts[i], end: starts[i] + minutes })),
      length,
      bound: isProven ? length : bound,
    },
  };
}

/** No timetable of such tasks is shorter, minutes; 0 where there is none at all. Cost: the square of the number of tasks. */
export function timetableBoundOf(
  tasks: readonly TimedTask[],
  hands: number,
  absent: readonly Absence[] = [],
): number {
  const made = netOf(tasks, hands, absent);
  return made.ok ? timetableBound(made.net) : 0;
}

/** Tasks by number, or why no timetable can be. */
function netOf(
  tasks: readonly TimedTask[],
  hands: number,
  absent: readonly Absence[],
): { ok: true; net: TaskNet } | { ok: false; reasons: string[] } {
  const index = new Map(tasks.map(({ id }, i) => [id, i]));
  if (index.size < tasks.length) throw new RangeError('an id of a task is there twice');
  const before = tasks.map(({ id, after }) =>
    [...new Set(after)].map((name) => {
      const at = index.get(name);
      if (at === undefined) throw new RangeError(`task ${id} is after ${name}, which is no task`);
      return at;
    }),
  );
  const tooMany = tasks.filter((task) => task.hands > hands);
  if (tooMany.length > 0)
    return {
      ok: false,
      reasons: tooMany.map(({ id, hands: needs }) => `${id} needs ${needs} hands; there are ${hands}.`),
    };
  const ordered = orderOf(new Map(tasks.map(({ id, after }) => [id, new Set(after)])), (a, b) =>
    a < b ? -1 : a > b ? 1 : 0,
  );
  if (!ordered.ok)
    return {
      ok: false,
      reasons: ordered.cycles.map(
        (cycle) => `${countOf(cycle.length, 'task')} wait for each other in a circle: ${cycle.join(', ')}.`,
      ),
    };
  const next = tasks.map((): number[] => []);
  before.forEach((list, i) => list.forEach((j) => next[j].push(i)));
  const away = emptyProfile();
  for (const one of absent) if (one.until > 0) occupy(away, 0, one.until, one.hands);
  const net: TaskNet = {
    hands,
    from: tasks.map(({ from }) => from ?? 0),
    absent: away,
    minutes: tasks.map(({ minutes }) => minutes),
    needs: tasks.map((task) => task.hands),
    before,
    next,
    order: ordered.order.map((id) => index.get(id) ?? 0),
  };
  return { ok: true, net };
}

/**
 * What is wrong with a timetable, each fault in words; none: it holds. Written from the definition, apart from the search.
 */
export function timetableFaults(
  tasks: readonly TimedTask[],
  hands: number,
  rows: readonly TimedRow[],
  absent: readonly Absence[] = [],
): string[] {
  const rowOf = new Map(rows.map((row) => [row.id, row]));
  const faults = tasks.flatMap(({ id, minutes, after, from = 0 }) => {
    const row = rowOf.get(id);
    if (!row) return [`${id} is missing.`];
    return [
      ...(row.start < from ? [`${id} begins before minute ${from}.`] : []),
      ...(row.end - row.start !== minutes
        ? [`${id} takes ${row.end - row.start} min instead of ${minutes}.`]
        : []),
      ...after.flatMap((name) =>
        (rowOf.get(name)?.end ?? Infinity) > row.start ? [`${id} begins before ${name} ends.`] : [],
      ),
    ];
  });
  const away = (at: number) => absent.reduce((sum, one) => sum + (at < one.until ? one.hands : 0), 0);
  const busy = rows.flatMap(({ start }) => {
    const inUse = tasks.reduce((sum, task) => {
      const row = rowOf.get(task.id);
      return row && row.start <= start && start < row.end ? sum + task.hands : sum;
    }, away(start));
    return inUse > hands ? [`${inUse} hands at minute ${start}; there are ${hands}.`] : [];
  });
  return [...faults, ...busy];
}
