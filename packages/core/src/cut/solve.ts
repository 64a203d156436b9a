import type { Highs } from 'highs';
import { seeded } from '../terrain/index.ts';
import { quickBound } from './bound.ts';
import { cutGridsOf, guillotine } from './construct.ts';
import { plainFaults, uncovered } from './explain.ts';
import { gridOf, type Cells, type Grid } from './grid.ts';
import { Improver } from './improve.ts';
import { Lagrange } from './lagrange.ts';
import { candidatesOf, exact, relaxation, type Candidates } from './master.ts';
import { chooseTilings, priced, toCutting, type Partition } from './partition.ts';
import type { CutAnswer, Cutting, CutProblem } from './problem.ts';
import { TilingBook } from './tilings.ts';
import { verifyCutting } from './verify.ts';

export interface SolveOptions {
  /** Time to spend, seconds. */
  seconds: number;
  /** A clock in milliseconds; the core has none of its own. */
  now: () => number;
  /** The loaded solver; without it the answer is the first one, with the bound that can be had without it. */
  highs?: Highs;
  /** Of the search by windows; the same seed, the same search as far as time allows. */
  seed?: number;
  /** Called with better and better-bounded cuttings, each verified. */
  onProgress?: (cutting: Cutting) => void;
  /** Asked often; true ends the search with the best so far. */
  stopped?: () => boolean;
}

/** Windows re-cut before the first bound is worked out, and how long that may take, s. */
const FIRST_WINDOWS = 150;
const FIRST_SECONDS = 0.15;
/** Share of the time that the price bound may take at once, with the relaxation to follow and without. */
const FIRST_BOUND_SHARE = 0.05;
const BOUND_SHARE = 0.25;
/** Then search and bound take turns of so many seconds. */
const TURN_SECONDS = 0.25;
/** Shortest time between two progress reports, s: each is verified. */
const TELL_SECONDS = 0.08;
/** Share of the time after which an unfinished relaxation gives way to looking for better cuttings. */
const RELAXATION_SHARE = 0.55;
/** Largest region, in cells, for which the linear relaxation and the exact search are worth their time. */
const MAX_EXACT_CELLS = 700;
/** Most candidates the exact solver is given: beyond it the best by reduced cost, and its bound is not used. */
const MAX_POOL = 40_000;

/**
 * Cuts a region into modules on bases at least cost. First the best straight-cut answers under a few prices for the
 * stock, in tens of milliseconds; then windows of it are re-cut, with a bound by prices (`Lagrange`); for regions not
 * too large the linear relaxation by column generation and HiGHS over the candidates that can still beat the best
 * (reduced cost within the gap), which keeps the bound proven; for others more windows and a better bound in turn.
 * Every cutting handed out has passed `verifyCutting`.
 * @throws Error when a cutting fails its verification: a fault of the solver, never shown as an answer
 */
export function solveCut(problem: CutProblem, options: SolveOptions): CutAnswer {
  const reasons = plainFaults(problem);
  if (reasons.length > 0) return { feasible: false, reasons };
  return new Search(problem, options).run();
}

/** One search: the best plan and the bound so far, and the ways of bettering them. */
class Search {
  private readonly grid: Grid;
  private readonly book: TilingBook;
  private readonly began: number;
  private best: Partition | null = null;
  private bound: number;
  private reported: { total: number; bound: number; at: number } | null = null;
  private last: Cutting | null = null;

  constructor(
    private readonly problem: CutProblem,
    private readonly options: SolveOptions,
  ) {
    this.began = options.now();
    this.grid = gridOf(problem);
    this.book = new TilingBook(problem, this.grid.cell);
    this.bound = quickBound(this.grid);
  }

  run(): CutAnswer {
    const { grid, book, problem } = this;
    const { seconds, highs } = this.options;
    const seen = firstAnswers(
      grid,
      book,
      (plan) => this.offer(plan),
      () => this.late(Math.min(FIRST_SECONDS, seconds)),
    );
    if (this.best && (this.late(seconds) || this.isProven())) return this.answer();
    const candidates = candidatesOf(grid, book);
    const bare = candidates && uncovered(grid, candidates);
    if (bare) return { feasible: false, reasons: [bare] };
    const exactly = highs && candidates && (grid.cellCount <= MAX_EXACT_CELLS || !this.best);
    let prices: readonly number[] = problem.bases.map(({ price }) => price);
    let improver: Improver | null = null;
    let lagrange: Lagrange | null = null;
    if (this.best) {
      improver = new Improver(grid, book, this.best, seeded(this.options.seed ?? 1));
      const burst = this.elapsed() + Math.min(FIRST_SECONDS, seconds / 10);
      improver.run(prices, () => this.late(burst), FIRST_WINDOWS);
      this.offer(improver.best);
      if (candidates) {
        lagrange = new Lagrange(grid, candidates, improver.best);
        const until = this.elapsed() + seconds * (exactly ? FIRST_BOUND_SHARE : BOUND_SHARE);
        lagrange.run(this.total(), () => this.late(until));
        this.raise(lagrange.bound);
        prices = lagrange.basePrices;
      }
    }
    if (exactly) {
      const known = improver ? [...seen, ...improver.best.modules] : seen;
      const impossible = this.exactly(highs, candidates, known, lagrange?.costWith());
      if (impossible) return impossible;
    }
    // What time is left goes to windows and prices in turn; with the exact search done there is none.
    while (improver && !this.late(seconds) && !this.isProven()) {
      const until = Math.min(seconds, this.elapsed() + TURN_SECONDS);
      improver.run(prices, () => this.late(until));
      this.offer(improver.best);
      if (!lagrange || lagrange.settled) continue;
      const bounded = Math.min(seconds, this.elapsed() + TURN_SECONDS);
      lagrange.run(this.total(), () => this.late(bounded));
      this.raise(lagrange.bound);
      prices = lagrange.basePrices;
    }
    if (this.best) return this.answer();
    return {
      feasible: false,
      reasons: [
        highs
          ? `No cutting was found in ${seconds} s; none is proven impossible.`
          : 'No cutting by straight cuts was found, and the exact solver is not loaded.',
      ],
    };
  }

  /** The relaxation and the exact search. @returns the proof that there is no cutting, else null */
  private exactly(
    highs: Highs,
    candidates: Candidates,
    seen: readonly Cells[],
    costWith: ((index: number) => number) | undefined,
  ): CutAnswer | null {
    const { grid } = this;
    const { seconds } = this.options;
    // A better cutting than the best costs less than it, so has at most so many modules.
    const { module: moduleWeight } = grid.problem.weights;
    const mostModules = Math.min(
      grid.cellCount,
      moduleWeight > 0 ? Math.ceil(this.total() / moduleWeight) : Infinity,
    );
    const relaxed = relaxation(highs, grid, candidates, seen, mostModules, () =>
      this.late(seconds * RELAXATION_SHARE),
    );
    this.raise(relaxed.bound);
    const solve = (pool: number[], time: number, whole: boolean) => {
      // Whatever was left out costs at least the relaxation's bound plus its reduced cost, so cannot beat the best.
      const ceiling = this.total();
      const raise = (value: number) => whole && this.raise(Math.min(value, ceiling));
      const stopped = () => this.options.stopped?.() ?? false;
      const outcome = exact(highs, grid, candidates, pool, this.best, time, stopped, raise);
      if (outcome.modules && outcome.tilings.length === outcome.modules.length)
        this.offer(priced(grid, outcome.modules, outcome.tilings));
      raise(outcome.bound);
      return outcome;
    };
    const left = () => seconds - this.elapsed();
    if (!this.late(seconds) && this.best && !this.isProven()) solve([...relaxed.active], left() * 0.3, false);
    if (this.late(seconds) || this.isProven()) return null;
    const whole = relaxed.converged;
    // The reduced costs belong to the relaxation's own bound, whatever better bound is known besides.
    const slack = this.total() - relaxed.bound + 1e-6;
    let pool: number[] = [];
    for (let i = 0; i < candidates.count; i++)
      if ((!whole || relaxed.reduced[i] <= slack) && !(costWith && costWith(i) > this.total() + 1e-6))
        pool.push(i);
    const all = pool.length <= MAX_POOL;
    if (!all) pool = pool.sort((a, b) => relaxed.reduced[a] - relaxed.reduced[b]).slice(0, MAX_POOL);
    const complete = candidates.sizes.every((size) => size.complete);
    const outcome = solve(pool, left(), all && complete);
    if (this.best || !all || !complete || outcome.bound !== Infinity) return null;
    return {
      feasible: false,
      reasons: [
        'No set of modules covers the region with the bases that can be had: the most of a base, or the keeps and pins together, stand in the way.',
      ],
    };
  }

  private elapsed(): number {
    return (this.options.now() - this.began) / 1000;
  }

  private late(seconds: number): boolean {
    return (this.options.stopped?.() ?? false) || this.elapsed() >= seconds;
  }

  private total(): number {
    return this.best?.cost.total ?? Infinity;
  }

  private isProven(): boolean {
    return this.best !== null && this.total() - this.bound <= 1e-6 * Math.max(1, this.total());
  }

  private offer(plan: Partition): void {
    if (plan.cost.total >= this.total() - 1e-9) return;
    this.best = plan;
    this.tell(false);
  }

  private raise(bound: number): void {
    if (!(bound > this.bound + 1e-9)) return;
    this.bound = Math.min(bound, this.total());
    this.tell(false);
  }

  /** Reports the best cutting and the bound, verified, at most every `TELL_SECONDS`. */
  private tell(always: boolean): void {
    const { best, bound, reported } = this;
    const at = this.elapsed();
    if (!best) return;
    if (reported && !always && !this.isProven() && at - reported.at < TELL_SECONDS) return;
    if (reported?.total === best.cost.total && reported.bound === bound) return;
    this.reported = { total: best.cost.total, bound, at };
    this.last = toCutting(this.grid, best, Math.min(bound, best.cost.total), at);
    const faults = verifyCutting(this.problem, this.last);
    if (faults.length > 0) throw new Error(`The cutting failed its check: ${faults[0]}`);
    this.options.onProgress?.(this.last);
  }

  private answer(): CutAnswer {
    this.tell(true);
    return this.last
      ? { feasible: true, cutting: { ...this.last, seconds: this.elapsed() } }
      : { feasible: false, reasons: ['No cutting was found.'] };
  }
}

/** Straight-cut answers under a few prices for stocked bases. @returns every module rectangle seen, to start the relaxation */
function firstAnswers(
  grid: Grid,
  book: TilingBook,
  offer: (plan: Partition) => void,
  late: () => boolean,
): Cells[] {
  const { bases } = grid.problem;
  const seen: Cells[] = [];
  const share = ({ w, d, stock }: (typeof bases)[number]) =>
    Math.max(0, 1 - (stock * w * d) / (grid.cellCount * grid.cell ** 2));
  const scenarios = [
    bases.map((base) => base.price * share(base)),
    bases.map(({ price, stock }) => (stock > 0 ? 0 : price)),
    bases.map(({ price }) => price),
  ];
  const sum = bases.reduce((total, { price }) => total + price, 1);
  // Prices that make a base with a maximum dear, then very dear.
  if (bases.some(({ max }) => max !== undefined))
    scenarios.push(
      bases.map(({ price, max }) => price + (max === undefined ? 0 : sum)),
      bases.map(({ price, max }) => price + (max === undefined ? 0 : 100 * sum)),
    );
  let fields = cutGridsOf(grid);
  for (const prices of scenarios) {
    let modules: Cells[] | null = null;
    // The first lines along which it can be done are kept for the other prices.
    for (const field of fields) {
      modules = guillotine(grid, book, prices, field);
      if (modules) fields = [field];
      if (modules || late()) break;
    }
    if (modules) {
      seen.push(...modules);
      const tilings = chooseTilings(grid, book, modules);
      if (tilings) offer(priced(grid, modules, tilings));
    }
    if (late()) break;
  }
  return seen;
}

/**
 * What HiGHS makes of the whole model in a time, without anything of ours but the model: the yardstick of benchmarks.
 * @returns the cost of its cutting; null when it found none
 */
export function plainExact(problem: CutProblem, highs: Highs, seconds: number): number | null {
  const grid = gridOf(problem);
  const candidates = candidatesOf(grid, new TilingBook(problem, grid.cell));
  if (!candidates) return null;
  const pool = Array.from({ length: candidates.count }, (_, i) => i);
  const { modules, tilings } = exact(
    highs,
    grid,
    candidates,
    pool,
    null,
    seconds,
    () => false,
    () => undefined,
  );
  return modules ? priced(grid, modules, tilings).cost.total : null;
}
