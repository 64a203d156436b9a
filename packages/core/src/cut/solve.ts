import type { Highs } from 'highs';
import { quickBound } from './bound.ts';
import { guillotine } from './construct.ts';
import { plainFaults, uncovered } from './explain.ts';
import { gridOf, type Cells, type Grid } from './grid.ts';
import { candidatesOf, exact, relaxation } from './master.ts';
import { chooseTilings, priced, toCutting, type Plan } from './plan.ts';
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
  /** Called with every better or better-bounded cutting, each verified. */
  onProgress?: (cutting: Cutting) => void;
  /** Asked often; true ends the search with the best so far. */
  stopped?: () => boolean;
}

/** Share of the time after which an unfinished relaxation gives way to looking for better cuttings. */
const RELAXATION_SHARE = 0.6;
/** Most candidates the exact solver is given: beyond it the best by reduced cost, and its bound is not used. */
const MAX_POOL = 40_000;

/**
 * Cuts a region into modules on bases at least cost. First the best straight-cut answers under a few prices for the
 * stock, in tens of milliseconds; then the linear relaxation by column generation for a bound; then HiGHS over the
 * candidates that can still beat the best one (reduced cost within the gap), which keeps the bound proven.
 * Every cutting handed out has passed `verifyCutting`.
 * @throws Error when a cutting fails its verification: a fault of the solver, never shown as an answer
 */
export function solveCut(problem: CutProblem, options: SolveOptions): CutAnswer {
  const { seconds, now, highs, onProgress, stopped = () => false } = options;
  const began = now();
  const elapsed = () => (now() - began) / 1000;
  const outOfTime = () => stopped() || elapsed() >= seconds;
  const reasons = plainFaults(problem);
  if (reasons.length > 0) return { feasible: false, reasons };

  const grid = gridOf(problem);
  const book = new TilingBook(problem);
  let best: Plan | null = null;
  let bound = quickBound(grid);
  const leastSoFar = (): number => best?.cost.total ?? Infinity;
  /** What a better cutting may cost more than the bound: nothing when the best is proven. */
  const limit = () => leastSoFar() - bound + 1e-6;
  const report = (): Cutting | null => {
    if (!best) return null;
    const cutting = toCutting(grid, best, Math.min(bound, best.cost.total), elapsed());
    const faults = verifyCutting(problem, cutting);
    if (faults.length > 0) throw new Error(`The cutting failed its check: ${faults[0]}`);
    onProgress?.(cutting);
    return cutting;
  };
  const offer = (plan: Plan): boolean => {
    if (best && plan.cost.total >= best.cost.total - 1e-9) return false;
    best = plan;
    report();
    return true;
  };

  const seen = firstAnswers(grid, book, offer, () => stopped() || elapsed() > Math.min(0.25, seconds));
  if (best && (outOfTime() || limit() <= 1e-5)) return answer(report());
  const candidates = candidatesOf(grid, book);
  const bare = uncovered(grid, candidates);
  if (bare) return { feasible: false, reasons: [bare] };
  if (!highs)
    return best
      ? answer(report())
      : {
          feasible: false,
          reasons: ['No cutting by straight cuts was found, and the exact solver is not loaded.'],
        };

  // A better cutting than the best costs less than it, so has at most so many modules.
  const { module: moduleWeight } = problem.weights;
  const mostModules = Math.min(
    grid.cellCount,
    moduleWeight > 0 ? Math.ceil(leastSoFar() / moduleWeight) : Infinity,
  );
  const relaxed = relaxation(
    highs,
    grid,
    candidates,
    seen,
    mostModules,
    () => stopped() || elapsed() >= seconds * RELAXATION_SHARE,
  );
  bound = Math.max(bound, relaxed.bound);
  report();
  const solve = (pool: number[], time: number, whole: boolean) => {
    // Whatever was left out costs at least the relaxation's bound plus its reduced cost, so cannot beat the best.
    const ceiling = leastSoFar();
    const raise = (value: number) => {
      if (whole && Math.min(value, ceiling) > bound + 1e-6) {
        bound = Math.min(value, ceiling);
        report();
      }
    };
    const outcome = exact(highs, grid, candidates, pool, best, time, stopped, raise);
    if (outcome.modules && outcome.tilings.length === outcome.modules.length)
      offer(priced(grid, outcome.modules, outcome.tilings));
    raise(outcome.bound);
    return outcome;
  };
  const left = () => seconds - elapsed();
  if (!outOfTime() && best && limit() > 1e-5) solve([...relaxed.active], left() * 0.3, false);
  if (!outOfTime() && limit() > 1e-5) {
    const whole = relaxed.converged;
    // The reduced costs belong to the relaxation's own bound, whatever better bound is known besides.
    const slack = leastSoFar() - relaxed.bound + 1e-6;
    let pool: number[] = [];
    for (let i = 0; i < candidates.count; i++) if (!whole || relaxed.reduced[i] <= slack) pool.push(i);
    const all = pool.length <= MAX_POOL;
    if (!all) pool = pool.sort((a, b) => relaxed.reduced[a] - relaxed.reduced[b]).slice(0, MAX_POOL);
    const complete = candidates.sizes.every((size) => size.complete);
    const outcome = solve(pool, left(), all && complete);
    if (!best && all && complete && outcome.bound === Infinity)
      return {
        feasible: false,
        reasons: [
          'No set of modules covers the region with the bases that can be had: the most of a base, or the keeps and pins together, stand in the way.',
        ],
      };
  }
  return best
    ? answer(report())
    : { feasible: false, reasons: [`No cutting was found in ${seconds} s; none is proven impossible.`] };
}

function answer(cutting: Cutting | null): CutAnswer {
  return cutting ? { feasible: true, cutting } : { feasible: false, reasons: ['No cutting was found.'] };
}

/** Straight-cut answers under a few prices for stocked bases. @returns every module rectangle seen, to start the relaxation */
function firstAnswers(
  grid: Grid,
  book: TilingBook,
  offer: (plan: Plan) => boolean,
  late: () => boolean,
): Cells[] {
  const { bases } = grid.problem;
  const seen: Cells[] = [];
  const share = ({ w, d, stock }: (typeof bases)[number]) =>
    Math.max(0, 1 - (stock * w * d) / (grid.cellCount * 64));
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
  for (const prices of scenarios) {
    const modules = guillotine(grid, book, prices);
    if (modules) {
      seen.push(...modules);
      const tilings = chooseTilings(grid, book, modules);
      if (tilings) offer(priced(grid, modules, tilings));
    }
    if (late()) break;
  }
  return seen;
}
