// Tasks by number: starts from a list, the bound no timetable beats, and the best of many lists.

/** Hands that are alike for some tasks: all of them, or those strong enough. */
export interface HandPool {
  hands: number;
  /** How many each task takes of them; 0: none. */
  needs: readonly number[];
  /** How many are not there, or not free. */
  absent: HandsInUse;
}

/** Tasks by number: each list by task, and an order in which each comes after what it waits for. */
export interface TaskNet {
  minutes: readonly number[];
  /** The moment before which each task cannot begin. */
  from: readonly number[];
  /** All hands first, then those who are strong enough for some tasks. */
  pools: readonly HandPool[];
  before: readonly (readonly number[])[];
  next: readonly (readonly number[])[];
  order: readonly number[];
}

/** Starts by task, minutes, and the last end. */
export interface Starts {
  starts: readonly number[];
  length: number;
}

/** How many hands are in use from each moment on: the moments rise, the last value is 0. */
export interface HandsInUse {
  times: number[];
  used: number[];
}

/**
 * No task begins before: the longest chain of minutes before it, the moment before which it cannot, and the first one
 * at which enough hands are there.
 */
export function headsOf(net: TaskNet): number[] {
  const { order, before, minutes, from, pools } = net;
  const absent = pools.map((pool) => pool.absent);
  const heads = [...from];
  for (const i of order)
    heads[i] = earliest(net, absent, i, Math.max(from[i], ...before[i].map((j) => heads[j] + minutes[j])));
  return heads;
}

/** The longest chain of minutes that must follow each task's end. */
export const tailsOf = (net: TaskNet): number[] => headsOf(reversed(net));

/** From the end to the beginning, with all hands at all times. */
const reversed = (net: TaskNet): TaskNet => ({
  ...net,
  from: net.minutes.map(() => 0),
  pools: net.pools.map((pool) => ({ ...pool, absent: emptyProfile() })),
  before: net.next,
  next: net.before,
  order: net.order.toReversed(),
});

/**
 * A length no timetable is below: for those tasks that begin at a or later and are followed by b or more, a + b + the
 * time that their work takes all hands, or that tasks of which at most k go on at once take. a = b = 0 with one task is
 * the longest chain. Cost: the square of the number of tasks.
 */
export function timetableBound(net: TaskNet): number {
  const { minutes } = net;
  const [heads, tails] = [headsOf(net), tailsOf(net)];
  const chain = Math.max(0, ...minutes.map((time, i) => heads[i] + time + tails[i]));
  return Math.max(chain, ...net.pools.map((pool) => poolBound(net, pool, heads, tails)));
}

/** The bound by the work that one pool of hands shares. */
function poolBound(
  { minutes }: TaskNet,
  pool: HandPool,
  heads: readonly number[],
  tails: readonly number[],
): number {
  const { needs, hands } = pool;
  const byTail = minutes.map((_, i) => i).sort((a, b) => tails[b] - tails[a]);
  /** The latest end that a weight forces; those of weight 0 do not count. @param timeFor when so much is done from a head on */
  const boundBy = (weight: (i: number) => number, timeFor: (head: number, sum: number) => number): number => {
    let most = 0;
    for (const head of new Set(heads)) {
      let sum = 0;
      for (const i of byTail) {
        if (heads[i] < head) continue;
        sum += weight(i);
        if (sum > 0) most = Math.max(most, timeFor(head, sum) + tails[i]);
      }
    }
    return most;
  };
  /** Of tasks that take more than hands ÷ (k + 1) at most k go on at once. */
  const few = [1, 2, 3, 4].map((k) =>
    boundBy(
      (i) => (needs[i] * (k + 1) > hands ? minutes[i] : 0),
      (head, sum) => head + Math.ceil(sum / k),
    ),
  );
  const work = boundBy(
    (i) => minutes[i] * needs[i],
    (head, sum) => workedBy(pool, head, sum),
  );
  return Math.max(work, ...few);
}

/** The first minute by which hands that are there from a moment on can have done so much work, hands × minutes. */
function workedBy({ hands, absent: { times, used } }: HandPool, from: number, work: number): number {
  let left = work;
  for (let i = times.findLastIndex((time) => time <= from); i < times.length - 1; i++) {
    const begin = Math.max(from, times[i]);
    const free = Math.max(0, hands - used[i]);
    const done = free * (times[i + 1] - begin);
    if (free > 0 && done >= left) return begin + Math.ceil(left / free);
    left -= done;
  }
  return Math.max(from, times[times.length - 1]) + Math.ceil(left / hands);
}

/** The earliest moment from `from` on at which a task has the hands it takes for as long as it lasts. @param profiles by pool */
export function earliest(
  { pools, minutes }: TaskNet,
  profiles: readonly HandsInUse[],
  task: number,
  from: number,
): number {
  let start = from;
  for (let k = 0; k < pools.length; k++) {
    const { needs, hands } = pools[k];
    if (needs[task] === 0) continue;
    const next = freeFrom(profiles[k], start, minutes[task], needs[task], hands);
    // What is later for these hands is asked of the others again.
    if (next > start && k > 0) k = -1;
    start = next;
  }
  return start;
}

/** The earliest moment from `from` on at which so many hands are free for so long. */
function freeFrom(
  { times, used }: HandsInUse,
  from: number,
  minutes: number,
  needs: number,
  hands: number,
): number {
  let start = from;
  let i = times.findLastIndex((time) => time <= from);
  for (; i < times.length && times[i] < start + minutes; i++)
    if (used[i] + needs > hands) start = times[i + 1];
  return start;
}

/** Takes the hands of a task from each pool. */
export function occupyAll(
  { pools, minutes }: TaskNet,
  profiles: readonly HandsInUse[],
  task: number,
  start: number,
): void {
  pools.forEach(({ needs }, k) => {
    if (needs[task] > 0) occupy(profiles[k], start, start + minutes[task], needs[task]);
  });
}

/** Hands in use before anything begins, by pool. */
export const profilesOf = ({ pools }: TaskNet): HandsInUse[] =>
  pools.map(({ absent }) => copyProfile(absent));

export const emptyProfile = (): HandsInUse => ({ times: [0], used: [0] });
export const copyProfile = ({ times, used }: HandsInUse): HandsInUse => ({
  times: [...times],
  used: [...used],
});

/** Takes hands from a profile. */
export function occupy(profile: HandsInUse, start: number, end: number, needs: number): void {
  const from = splitAt(profile, start);
  const to = splitAt(profile, end);
  for (let i = from; i < to; i++) profile.used[i] += needs;
}

function splitAt({ times, used }: HandsInUse, time: number): number {
  const i = times.findLastIndex((one) => one <= time);
  if (times[i] === time) return i;
  times.splice(i + 1, 0, time);
  used.splice(i + 1, 0, used[i]);
  return i + 1;
}

/** Each task of a list as early as what it waits for and the hands allow (the serial scheme; Kelley 1963). */
function startsByList(net: TaskNet, list: readonly number[]): Starts {
  const profiles = profilesOf(net);
  const starts = net.minutes.map(() => 0);
  let length = 0;
  for (const i of list) {
    const ready = Math.max(net.from[i], ...net.before[i].map((j) => starts[j] + net.minutes[j]));
    starts[i] = earliest(net, profiles, i, ready);
    occupyAll(net, profiles, i, starts[i]);
    length = Math.max(length, starts[i] + net.minutes[i]);
  }
  return { starts, length };
}

/** An order by rank, highest first, in which each task comes after what it waits for. */
function listByRank(net: TaskNet, rank: readonly number[]): number[] {
  const waits = net.before.map((list) => list.length);
  const ready = net.order.filter((i) => waits[i] === 0);
  const list: number[] = [];
  while (ready.length > 0) {
    const at = ready.reduce((best, i, k) => (rank[i] > rank[ready[best]] ? k : best), 0);
    const [i] = ready.splice(at, 1);
    list.push(i);
    for (const next of net.next[i]) if (--waits[next] === 0) ready.push(next);
  }
  return list;
}

/** Moves all tasks to the end of the time, then back to its beginning: never longer (Valls, Ballestín, Quintanilla 2005). */
function justified(net: TaskNet, found: Starts): Starts {
  const backwards = reversed(net);
  const byEnd = listByRank(
    backwards,
    found.starts.map((start, i) => start + net.minutes[i]),
  );
  const late = startsByList(backwards, byEnd);
  const byStart = listByRank(
    net,
    late.starts.map((start, i) => start + net.minutes[i]),
  );
  const again = startsByList(net, byStart);
  return again.length <= found.length ? again : found;
}

/** So many steps of placing a task are spent on lists. */
const LIST_STEPS = 30_000_000;
const MAX_LISTS = 3_000;

/** The shortest of many lists, each justified: by the chain behind, then varied. @param tails as rank of the first list */
export function bestTimetable(
  net: TaskNet,
  tails: readonly number[],
  bound: number,
  random: () => number,
  maxLists = MAX_LISTS,
): Starts {
  const rank = tails.map((tail, i) => tail + net.minutes[i]);
  let best = justified(net, startsByList(net, listByRank(net, rank)));
  let [bestRank, at] = [rank, best];
  const most = Math.min(maxLists, Math.ceil(LIST_STEPS / (5 * (net.minutes.length + 1) ** 2)));
  for (let n = 0; n < most && best.length > bound; n++) {
    // Around the best so far, or from the chains again each fourth time.
    const from = n % 4 === 3 ? rank : bestRank;
    const spread = (0.05 + 0.5 * random()) * (bound + 1);
    const varied = from.map((value) => value + spread * (random() - 0.5));
    const found = justified(net, startsByList(net, listByRank(net, varied)));
    if (found.length <= at.length) {
      at = found;
      // What begins early has a high rank.
      bestRank = found.starts.map((start) => found.length - start);
    }
    if (found.length < best.length) best = found;
  }
  return best;
}
