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
  type HandsInUse,
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

/** Hands that are away or busy until a minute. */
export interface Absence {
  /** Left out: from the start of the day. */
  from?: number;
  until: number;
  hands: number;
}

/** Some of the hands, of which some tasks take theirs: those who are strong enough. */
export interface Pool {
  hands: number;
  /** How many of them each task takes, by id; left out: none. */
  needs: ReadonlyMap<string, number>;
  absent: readonly Absence[];
}

/** When a task begins and ends, minutes from the start of the day. */
export interface TimedRow {
  id: string;
  start: number;
  end: number;
}

export interface TimetableOptions {
  seed?: number;
  /** Who is not there, and when nobody may be. */
  absent?: readonly Absence[];
  /** Further limits beside that of all hands. */
  pools?: readonly Pool[];
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
  { seed = 1, absent = [], pools = [], isQuick = false }: TimetableOptions = {},
): { ok: true; timetable: Timetable } | { ok: false; reasons: string[] } {
  const made = netOf(tasks, hands, absent, pools);
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
  { absent = [], pools = [] }: Pick<TimetableOptions, 'absent' | 'pools'> = {},
): number {
  const made = netOf(tasks, hands, absent, pools);
  return made.ok ? timetableBound(made.net) : 0;
}

/** Tasks by number, or why no timetable can be. */
function netOf(
  tasks: readonly TimedTask[],
  hands: number,
  absent: readonly Absence[],
  pools: readonly Pool[],
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
  const tooMany = tasks.flatMap(({ id, hands: needs }) => {
    if (needs > hands) return [`${id} needs ${needs} hands; there are ${hands}.`];
    const pool = pools.find((one) => (one.needs.get(id) ?? 0) > one.hands);
    return pool
      ? [
          `${id} needs ${needs} hands that are strong enough for it; there ${pool.hands === 1 ? 'is 1' : `are ${pool.hands}`}.`,
        ]
      : [];
  });
  if (tooMany.length > 0) return { ok: false, reasons: tooMany };
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
  const net: TaskNet = {
    from: tasks.map(({ from }) => from ?? 0),
    pools: [
      { hands, needs: tasks.map((task) => task.hands), absent: profileOf(absent) },
      ...pools.map((pool) => ({
        hands: pool.hands,
        needs: tasks.map(({ id }) => pool.needs.get(id) ?? 0),
        absent: profileOf(pool.absent),
      })),
    ],
    minutes: tasks.map(({ minutes }) => minutes),
    before,
    next,
    order: ordered.order.map((id) => index.get(id) ?? 0),
  };
  return { ok: true, net };
}

function profileOf(absent: readonly Absence[]): HandsInUse {
  const away = emptyProfile();
  for (const { from = 0, until, hands } of absent)
    if (until > Math.max(0, from)) occupy(away, Math.max(0, from), until, hands);
  return away;
}

/**
 * What is wrong with a timetable, each fault in words; none: it holds. Written from the definition, apart from the search.
 */
export function timetableFaults(
  tasks: readonly TimedTask[],
  hands: number,
  rows: readonly TimedRow[],
  { absent = [], pools = [] }: Pick<TimetableOptions, 'absent' | 'pools'> = {},
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
  const all: Pool = { hands, needs: new Map(tasks.map((task) => [task.id, task.hands])), absent };
  return [...faults, ...[all, ...pools].flatMap((pool) => poolFaults(pool, tasks, rowOf))];
}

/** Where a task takes more hands of a pool than are there and free. */
function poolFaults(
  { hands, needs, absent }: Pool,
  tasks: readonly TimedTask[],
  rowOf: ReadonlyMap<string, TimedRow>,
): string[] {
  const taken = tasks.flatMap(({ id }) => {
    const row = rowOf.get(id);
    const count = needs.get(id) ?? 0;
    return row && count > 0 ? [{ ...row, count }] : [];
  });
  // Hands in use rise only where a task begins or someone goes away.
  const moments = [...taken.map(({ start }) => start), ...absent.map(({ from = 0 }) => from)];
  return [...new Set(moments)].flatMap((at) => {
    const busy = taken.filter(({ start, end }) => start <= at && at < end);
    if (busy.length === 0) return [];
    const away = absent.filter(({ from = 0, until }) => from <= at && at < until);
    const inUse = [...busy.map(({ count }) => count), ...away.map((one) => one.hands)].reduce(
      (sum, one) => sum + one,
      0,
    );
    return inUse > hands ? [`${inUse} hands at minute ${at}; there are ${hands}.`] : [];
  });
}
