import type { Cells, Grid } from './grid.ts';
import { CELL } from './problem.ts';
import type { TilingBook } from './tilings.ts';

/** How many interval pairs the dynamic program may look at; beyond it the lines are thinned. */
const MAX_STEPS = 4_000_000;

/**
 * The best cutting by straight cuts from side to side (guillotine cuts), by dynamic programming over all rectangles
 * between the given lines: a first answer in tens of milliseconds, exact for that family when no line was thinned.
 * @param basePrice price of each base to count with; stock is the caller's business
 * @returns the modules' rectangles, or null when straight cuts along these lines cannot do it
 */
export function guillotine(grid: Grid, book: TilingBook, basePrice: readonly number[]): Cells[] | null {
  const { xs, ys } = linesOf(grid);
  const nx = xs.length - 1;
  const ny = ys.length - 1;
  const stride = ny + 1;
  const at = (i0: number, i1: number, j0: number, j1: number) =>
    ((i0 * (nx + 1) + i1) * stride + j0) * stride + j1;
  const cost = new Float64Array((nx + 1) ** 2 * stride ** 2).fill(Infinity);
  /** −1: one module; −2: nothing of the region; k < nx: cut at line k of xs; else at line k − nx − 1 of ys. */
  const choice = new Int16Array(cost.length).fill(-1);
  const tilingCost = book.cheapest(basePrice);
  for (let w = 1; w <= nx; w++)
    for (let d = 1; d <= ny; d++)
      for (let i0 = 0; i0 + w <= nx; i0++)
        for (let j0 = 0; j0 + d <= ny; j0++) {
          const [i1, j1] = [i0 + w, j0 + d];
          const cells = { x0: xs[i0], y0: ys[j0], x1: xs[i1], y1: ys[j1] };
          const here = at(i0, i1, j0, j1);
          if (grid.insideCount(cells) === 0) {
            cost[here] = 0;
            choice[here] = -2;
            continue;
          }
          let best = grid.moduleCost(cells);
          if (best < Infinity) best += tilingCost(cells.x1 - cells.x0, cells.y1 - cells.y0);
          let cut = -1;
          for (let k = i0 + 1; k < i1; k++) {
            const sum = cost[at(i0, k, j0, j1)] + cost[at(k, i1, j0, j1)];
            if (sum < best - 1e-9) [best, cut] = [sum, k];
          }
          for (let k = j0 + 1; k < j1; k++) {
            const sum = cost[at(i0, i1, j0, k)] + cost[at(i0, i1, k, j1)];
            if (sum < best - 1e-9) [best, cut] = [sum, nx + 1 + k];
          }
          cost[here] = best;
          choice[here] = cut;
        }
  if (!(cost[at(0, nx, 0, ny)] < Infinity)) return null;
  const modules: Cells[] = [];
  const collect = (i0: number, i1: number, j0: number, j1: number) => {
    const cut = choice[at(i0, i1, j0, j1)];
    if (cut === -2) return;
    if (cut === -1) modules.push({ x0: xs[i0], y0: ys[j0], x1: xs[i1], y1: ys[j1] });
    else if (cut <= nx) {
      collect(i0, cut, j0, j1);
      collect(cut, i1, j0, j1);
    } else {
      collect(i0, i1, j0, cut - nx - 1);
      collect(i0, i1, cut - nx - 1, j1);
    }
  };
  collect(0, nx, 0, ny);
  return modules;
}

/** The lines to cut along: all of them when that is quick, else the ones the problem speaks of and even steps between. */
function linesOf({ problem, x, y, columns, rows }: Grid): { xs: number[]; ys: number[] } {
  const all = (count: number) => Array.from({ length: count + 1 }, (_, i) => i);
  const steps = (nx: number, ny: number) => ((nx * ny) ** 2 * (nx + ny)) / 12;
  if (steps(columns, rows) <= MAX_STEPS) return { xs: all(columns), ys: all(rows) };
  const areas = [...problem.region, ...(problem.keep ?? [])];
  const pins = problem.pins ?? [];
  const spoken = {
    xs: [
      ...areas.flatMap((part) => [part.x, part.x + part.w]),
      ...pins.flatMap((pin) => [pin.x1, pin.x2]),
    ].map((value) => (value - x) / CELL),
    ys: [
      ...areas.flatMap((part) => [part.y, part.y + part.d]),
      ...pins.flatMap((pin) => [pin.y1, pin.y2]),
    ].map((value) => (value - y) / CELL),
  };
  const pick = (count: number, step: number, lines: number[]) =>
    all(count).filter((line) => line % step === 0 || line === count || lines.includes(line));
  for (let step = 2; ; step++) {
    const xs = pick(columns, step, spoken.xs);
    const ys = pick(rows, step, spoken.ys);
    if (steps(xs.length, ys.length) <= MAX_STEPS) return { xs, ys };
    if (step > 6) {
      const coarse = (count: number) => pick(count, 6, []);
      return { xs: coarse(columns), ys: coarse(rows) };
    }
  }
}
