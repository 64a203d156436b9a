import {
  copyProfile,
  earliest,
  occupyAll,
  profilesOf,
  tailsOf,
  type HandsInUse,
  type Starts,
  type TaskNet,
} from './timetableNet.ts';

// All timetables one after another, for as many steps as are allowed.

/** So many beginnings are tried. */
const MAX_STEPS = 300_000;
/** Of more tasks than these all timetables are too many to try. */
const MAX_TASKS = 60;

/**
 * Lets tasks begin one after another, none before the last, each as early as it can: that reaches a shortest timetable,
 * since in one where nothing can begin earlier each task begins so. What cannot beat the shortest so far is left out.
 * @param found the shortest so far @param bound below which none is
 * @returns whether all were tried, so that none is shorter
 */
export function searchTimetable(net: TaskNet, found: Starts, bound: number): Starts & { isProven: boolean } {
  const { minutes, before, from } = net;
  const { needs, hands } = net.pools[0];
  const tails = tailsOf(net);
  const count = minutes.length;
  const work = minutes.map((time, i) => time * needs[i]);
  const starts = minutes.map(() => -1);
  let best = found;
  let steps = 0;
  const isOver = () => best.length <= bound || steps > MAX_STEPS;
  const extend = (
    profiles: readonly HandsInUse[],
    placed: number,
    last: number,
    end: number,
    left: number,
  ): void => {
    if (placed === count) {
      if (end < best.length) best = { starts: [...starts], length: end };
      return;
    }
    // From the last beginning on, the work left and that which still goes on share all hands.
    let going = left;
    for (let i = 0; i < count; i++)
      if (starts[i] >= 0) going += Math.max(0, starts[i] + minutes[i] - last) * needs[i];
    if (last + Math.ceil(going / hands) >= best.length) return;
    const choices: { i: number; start: number }[] = [];
    for (let i = 0; i < count; i++) {
      if (starts[i] >= 0 || before[i].some((j) => starts[j] < 0)) continue;
      const ready = Math.max(last, from[i], ...before[i].map((j) => starts[j] + minutes[j]));
      const start = earliest(net, profiles, i, ready);
      if (start + minutes[i] + tails[i] >= best.length) return;
      choices.push({ i, start });
    }
    choices.sort((a, b) => a.start - b.start || tails[b.i] - tails[a.i] || a.i - b.i);
    // One of them begins before the first that could end does: later ones leave a gap that it would fill.
    const firstEnd = Math.min(...choices.map(({ i, start }) => start + minutes[i]));
    for (const { i, start } of choices) {
      if (start >= firstEnd || isOver()) break;
      steps++;
      starts[i] = start;
      const taken = profiles.map(copyProfile);
      occupyAll(net, taken, i, start);
      extend(taken, placed + 1, start, Math.max(end, start + minutes[i]), left - work[i]);
      starts[i] = -1;
    }
  };
  const all = work.reduce((sum, one) => sum + one, 0);
  if (count <= MAX_TASKS) extend(profilesOf(net), 0, 0, 0, all);
  return { ...best, isProven: count <= MAX_TASKS && steps <= MAX_STEPS };
}
