import { gamma, normal, seedFor, uniformFrom } from './chance.ts';
import type { ThreeGuesses } from './earned.ts';

// When it will be done, with odds: many runs of the same calendar with other luck.

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
  /** Drying time, days (glue, sealant, decals): successors wait for it. */
  rests?: number;
}

export interface ForecastProblem {
  work: readonly LeftWork[];
  people: readonly {
    /** Hours on each day from 0; the same length for everybody. */
    hours: readonly number[];
    /** How this person's speed scatters: standard deviation of the logarithm of a factor on all their hours. */
    spread: number;
  }[];
  /** Plays that share it have the same luck. */
  luck: RandomDraws;
  /** How many runs of the luck's are played; left out: all. */
  runs?: number;
}

/** The draws of many runs, each made once: by piece of work and by person, whatever else is played beside them. */
export class RandomDraws {
  private readonly drawn = new Map<string, Float64Array>();

  constructor(
    readonly runs: number,
    private readonly seed: number,
  ) {}

  /** Where between its guesses a piece of work ends up in each run, 0 to 1. */
  places(id: string, guess: ThreeGuesses): Float64Array {
    const [alpha, beta] = shapeOf(guess);
    return this.column(`work ${id} ${alpha.toFixed(6)}`, (uniform) => betaDraw(alpha, beta, uniform));
  }

  /** Standard normal draws of the speed of a person. */
  speeds(person: number): Float64Array {
    return this.column(`person ${person}`, normal);
  }

  private column(name: string, draw: (uniform: () => number) => number): Float64Array {
    let column = this.drawn.get(name);
    if (!column) {
      const uniform = uniformFrom(seedFor(this.seed, name));
      column = Float64Array.from({ length: this.runs }, () => draw(uniform));
      this.drawn.set(name, column);
    }
    return column;
  }
}

export interface Forecast {
  /** The day on which all is done, one a run, in no order; the horizon where it never is, −1 where nothing is left. */
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
 * what comes before it is done and its parts are there, in the hours their calendar has. What is done when a share of a
 * day's hours has gone leaves to others the rest of that day, what takes the whole of it the next one.
 * @throws Error when what comes after what goes round in a circle
 */
export function forecast({ work, people, luck, runs = luck.runs }: ForecastProblem): Forecast {
  const horizon = people[0]?.hours.length ?? 0;
  const order = topological(work);
  // Hours up to and with each day: where in a person's time a day ends.
  const until = people.map(({ hours }) => {
    const sums = new Float64Array(horizon);
    hours.forEach((h, day) => (sums[day] = (sums[day - 1] ?? 0) + h));
    return sums;
  });
  // Piece by piece in the order they are played, as plain numbers: the loop below runs millions of times.
  const pieces = order.map((i) => work[i]);
  const turn = new Map(order.map((i, k) => [i, k]));
  const after = pieces.map((piece) => Int32Array.from(piece.after, (i) => turn.get(i) ?? 0));
  const person = Int32Array.from(pieces, (piece) => piece.person);
  const ready = Int32Array.from(pieces, (piece) => piece.ready);
  const low = Float64Array.from(pieces, ({ guess }) => guess.low);
  const span = Float64Array.from(pieces, ({ guess }) => guess.high - guess.low);
  const places = pieces.map(({ id, guess }) => luck.places(id, guess));
  const normals = people.map((_, p) => luck.speeds(p));
  const sections = [...new Set(work.map(({ section }) => section))];
  const sectionOf = Int32Array.from(pieces, ({ section }) => sections.indexOf(section));
  const finish = new Int32Array(runs);
  const bySection = sections.map(() => new Int32Array(runs));
  const critical = new Int32Array(sections.length);
  const at = new Float64Array(people.length);
  const speed = new Float64Array(people.length);
  // Days from 0, with the share of the last one that has gone.
  const done = new Float64Array(pieces.length);
  const rests = Float64Array.from(pieces, ({ rests: days }) => days ?? 0);
  const last = new Int32Array(sections.length);
  for (let run = 0; run < runs; run++) {
    at.fill(0);
    last.fill(-1);
    for (let p = 0; p < speed.length; p++) speed[p] = Math.exp(people[p].spread * normals[p][run]);
    for (let k = 0; k < pieces.length; k++) {
      const p = person[k];
      let begins = ready[k];
      const before = after[k];
      for (let b = 0; b < before.length; b++) if (done[before[b]] > begins) begins = done[before[b]];
      const hours = (low[k] + span[k] * places[k][run]) * speed[p];
      const sums = until[p];
      const first = Math.floor(begins);
      const gone = first > 0 ? (sums[Math.min(first, horizon) - 1] ?? 0) : 0;
      const share = begins - first;
      const from = Math.max(
        at[p],
        share > 0 ? gone + share * (sums[Math.min(first, horizon - 1)] - gone) : gone,
      );
      at[p] = begins >= horizon ? Infinity : from + hours;
      const day = Math.max(first, firstReaching(sums, at[p], first));
      const upTo = day > 0 ? (sums[Math.min(day, horizon) - 1] ?? 0) : 0;
      const whole = day < horizon ? sums[day] - upTo : 0;
      done[k] = day + (whole > 0 ? Math.min(1, Math.max(0, (at[p] - upTo) / whole)) : 0) + rests[k];
      // Done in the course of a day it is done that day; what takes no time is done the moment it begins.
      const over = day >= horizon ? horizon : Math.min(horizon, Math.ceil(done[k] - 1e-9) - 1);
      if (over > last[sectionOf[k]]) last[sectionOf[k]] = over;
    }
    let all = -1;
    for (let s = 0; s < last.length; s++) {
      bySection[s][run] = last[s];
      if (last[s] > all) all = last[s];
    }
    finish[run] = Math.min(all, horizon);
    for (let s = 0; s < last.length; s++) if (last[s] === all) critical[s]++;
  }
  return {
    finish,
    bySection: new Map(sections.map((section, s) => [section, bySection[s]])),
    critical: new Map(sections.map((section, s) => [section, critical[s]])),
    horizon,
  };
}

/** The first day by whose end so many hours have been worked; the number of days when there are too few. */
function firstReaching(sums: Float64Array, hours: number, from: number): number {
  // By doubling steps first: most work ends soon after it begins.
  let [low, step] = [Math.min(from, sums.length), 1];
  while (low + step < sums.length && sums[low + step] < hours) {
    low += step;
    step *= 2;
  }
  let high = Math.min(sums.length, low + step + 1);
  while (low < high) {
    const middle = (low + high) >> 1;
    // A sum of many hours may fall short by the last digit.
    if (sums[middle] >= hours - 1e-9) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** The shape of PERT's beta distribution: its mean is (a + 4m + b) / 6. Guesses without a span have any. */
function shapeOf({ low, likely, high }: ThreeGuesses): [number, number] {
  const span = high - low;
  return span > 0 ? [1 + (4 * (likely - low)) / span, 1 + (4 * (high - likely)) / span] : [1, 1];
}

function betaDraw(alpha: number, beta: number, uniform: () => number): number {
  const a = gamma(alpha, uniform);
  return a / (a + gamma(beta, uniform));
}

/** A draw from three guesses: the beta distribution of PERT, whose mean is (a + 4m + b) / 6. */
export function draw(guess: ThreeGuesses, uniform: () => number): number {
  return guess.low + (guess.high - guess.low) * betaDraw(...shapeOf(guess), uniform);
}

function topological(work: readonly LeftWork[]): number[] {
  const order: number[] = [];
  const state = new Uint8Array(work.length);
  const visit = (i: number): void => {
    if (state[i] === 2) return;
    if (state[i] === 1) throw new Error(`“${work[i].id}” comes after itself`);
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
