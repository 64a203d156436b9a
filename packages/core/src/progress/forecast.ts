import { gamma, normal, uniformFrom } from './chance.ts';
import type { ThreeGuesses } from './earned.ts';

/** When it will be done, with odds: many runs of the same calendar with other luck. */

/** A piece of work that is left. */
export interface LeftWork {
  id: string;
  /** Where it belongs, for what is critical. */
  section: string;
  /** Index of who does it. */
  person: number;
  guess: ThreeGuesses;
  /** Indices of what must be finished before it. */
  after: readonly number[];
  /** First day on which it can begin, from 0: its parts are there. */
  ready: number;
}

export interface ForecastProblem {
  work: readonly LeftWork[];
  people: readonly {
    /** Hours on each day from 0; the same length for everybody. */
    hours: readonly number[];
    /** How this person's speed scatters: standard deviation of the logarithm of a factor on all their hours. */
    spread: number;
  }[];
  runs: number;
  seed: number;
}

export interface Forecast {
  /** The day on which all is done, one a run, in no order; the horizon where it never is. */
  finish: Int32Array;
  /** By section, the same. */
  bySection: ReadonlyMap<string, Int32Array>;
  /** In how many of the runs a section is the last to be done. */
  critical: ReadonlyMap<string, number>;
  horizon: number;
}

/**
 * Plays the work through many times. Each run draws every piece of work from its three guesses (a beta distribution
 * with the mean of PERT) and every person's speed; each person takes their work in the order it is listed, as soon as
 * what comes before it is done and its parts are there, in the hours their calendar has.
 * @throws Error when what comes after what goes round in a circle
 */
export function forecast({ work, people, runs, seed }: ForecastProblem): Forecast {
  const horizon = people[0]?.hours.length ?? 0;
  const order = topological(work);
  // Hours up to and with each day: where in a person's time a day ends.
  const until = people.map(({ hours }) => {
    const sums = new Float64Array(horizon);
    hours.forEach((h, day) => (sums[day] = (sums[day - 1] ?? 0) + h));
    return sums;
  });
  const sections = [...new Set(work.map(({ section }) => section))];
  const finish = new Int32Array(runs);
  const bySection = new Map(sections.map((section) => [section, new Int32Array(runs)]));
  const critical = new Map(sections.map((section) => [section, 0]));
  const uniform = uniformFrom(seed);
  const at = new Float64Array(people.length);
  const done = new Int32Array(work.length);
  const last = new Map<string, number>();
  for (let run = 0; run < runs; run++) {
    at.fill(0);
    last.clear();
    const speed = people.map(({ spread }) => Math.exp(spread * normal(uniform)));
    for (const i of order) {
      const { person, guess, after, ready, section } = work[i];
      let begins = ready;
      // What comes before is done on its day; this begins on that day at the earliest.
      for (const before of after) begins = Math.max(begins, done[before]);
      const hours = draw(guess, uniform) * speed[person];
      const sums = until[person];
      const from = Math.max(at[person], begins > 0 ? (sums[Math.min(begins, horizon) - 1] ?? 0) : 0);
      at[person] = begins >= horizon ? Infinity : from + hours;
      done[i] = Math.max(begins, firstReaching(sums, at[person]));
      last.set(section, Math.max(last.get(section) ?? 0, done[i]));
    }
    let all = 0;
    for (const [section, day] of last) {
      bySection.get(section)?.fill(day, run, run + 1);
      all = Math.max(all, day);
    }
    finish[run] = Math.min(all, horizon);
    for (const [section, day] of last)
      if (day === all) critical.set(section, (critical.get(section) ?? 0) + 1);
  }
  return { finish, bySection, critical, horizon };
}

/** The first day by whose end so many hours have been worked; the number of days when there are too few. */
function firstReaching(sums: Float64Array, hours: number): number {
  let [low, high] = [0, sums.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    // A sum of many hours may fall short by the last digit.
    if (sums[middle] >= hours - 1e-9) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** A draw from three guesses: the beta distribution of PERT, whose mean is (a + 4m + b) / 6. */
export function draw({ low, likely, high }: ThreeGuesses, uniform: () => number): number {
  if (high <= low) return likely;
  const span = high - low;
  const a = gamma(1 + (4 * (likely - low)) / span, uniform);
  const b = gamma(1 + (4 * (high - likely)) / span, uniform);
  return low + (span * a) / (a + b);
}

function topological(work: readonly LeftWork[]): number[] {
  const order: number[] = [];
  const state = new Uint8Array(work.length);
  const visit = (i: number): void => {
    if (state[i] === 2) return;
    if (state[i] === 1) throw new Error(`«${work[i].id}» comes after itself`);
    state[i] = 1;
    work[i].after.forEach(visit);
    state[i] = 2;
    order.push(i);
  };
  work.forEach((_, i) => visit(i));
  return order;
}

/** The share of runs that are done by the end of a day, 0 to 1. */
export function chanceBy(finish: Int32Array, day: number): number {
  let count = 0;
  for (const one of finish) if (one <= day) count++;
  return finish.length === 0 ? 0 : count / finish.length;
}

/** The day by which a share of the runs is done. @param share 0 to 1 */
export function dayOf(finish: Int32Array, share: number): number {
  const sorted = finish.slice().sort();
  return sorted[Math.min(sorted.length - 1, Math.max(0, Math.ceil(share * sorted.length) - 1))] ?? 0;
}
