import type { Cells, Grid } from './grid.ts';
import type { TilingBook } from './tilings.ts';

/** How many interval pairs the dynamic program may look at; beyond it the lines are thinned. */
const MAX_STEPS = 4_000_000;

/** Where straight cuts may go, and which cells are to be covered. */
export interface CutGrid {
  xs: readonly number[];
  ys: readonly number[];
  /** Cells to be covered in a rectangle. */
  open(cells: Cells): number;
}

/**
 * The best cutting by straight cuts from side to side (guillotine cuts), by dynamic programming over all rectangles
 * between the given lines: a first answer in tens of milliseconds, exact for that family when no line was thinned.
 * @param basePrice price of each base to count with; stock is the caller's business
 * @returns the modules' rectangles, or null when straight cuts along these lines cannot do it
 */
export function guillotine(
  grid: Grid,
  book: TilingBook,
  basePrice: readonly number[],
  { xs, ys, open }: CutGrid,
): Cells[] | null {
  const nx = xs.length - 1;
  const ny = ys.length - 1;
  const stride = ny + 1;
  // Rectangles by their four lines; those that share all but the last are neighbours.
  const at = (i0: number, i1: number, j0: number, j1: number) =>
    ((i0 * (nx + 1) + i1) * stride + j0) * stride + j1;
  const cost = new Float64Array((nx + 1) ** 2 * stride ** 2);
  /** −1: one module; −2: nothing to cover; k < nx: cut at line k of xs; else at line k − nx − 1 of ys. */
  const choice = new Int16Array(cost.length);
  const tilingCost = book.cheapest(basePrice);
  const across = (nx + 1) * stride * stride;
  const along = stride * stride;
  for (let w = 1; w <= nx; w++)
    for (let d = 1; d <= ny; d++)
      for (let i0 = 0; i0 + w <= nx; i0++)
        for (let j0 = 0; j0 + d <= ny; j0++) {
          const [i1, j1] = [i0 + w, j0 + d];
          const cells = { x0: xs[i0], y0: ys[j0], x1: xs[i1], y1: ys[j1] };
          const here = at(i0, i1, j0, j1);
          const count = open(cells);
          if (count === 0) {
            cost[here] = 0;
            choice[here] = -2;
            continue;
          }
          let best = Infinity;
          if (count === (cells.x1 - cells.x0) * (cells.y1 - cells.y0)) {
            best = grid.moduleCost(cells);
            if (best < Infinity) best += tilingCost(cells.x1 - cells.x0, cells.y1 - cells.y0);
          }
          let cut = -1;
          let left = at(i0, i0 + 1, j0, j1);
          let right = at(i0 + 1, i1, j0, j1);
          for (let k = i0 + 1; k < i1; k++, left += along, right += across) {
            const sum = cost[left] + cost[right];
            if (sum < best - 1e-9) [best, cut] = [sum, k];
          }
          left = at(i0, i1, j0, j0 + 1);
          right = at(i0, i1, j0 + 1, j1);
          for (let k = j0 + 1; k < j1; k++, left++, right += stride) {
            const sum = cost[left] + cost[right];
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

/** Even steps between the lines, cells; all divisors that base sizes are likely to have in common. */
const STEPS = [1, 2, 3, 4, 6, 8, 12];

/**
 * The lines to cut along, the most promising choice first: all of them when that is quick, else the finest even steps
 * that are, then coarser ones together with the lines the problem speaks of.
 */
export function cutGridsOf(grid: Grid): CutGrid[] {
  const { problem, cell, x, y, columns, rows } = grid;
  const quick = (nx: number, ny: number) => ((nx * ny) ** 2 * (nx + ny)) / 12 <= MAX_STEPS;
  const areas = [...problem.region, ...(problem.keep ?? [])];
  const pins = problem.pins ?? [];
  const line = (from: number) => (value: number) => Math.round((value - from) / cell);
  const spoken = {
    xs: [
      ...areas.flatMap((part) => [part.x, part.x + part.w]),
      ...pins.flatMap(({ x1, x2 }) => [x1, x2]),
    ].map(line(x)),
    ys: [
      ...areas.flatMap((part) => [part.y, part.y + part.d]),
      ...pins.flatMap(({ y1, y2 }) => [y1, y2]),
    ].map(line(y)),
  };
  const pick = (count: number, step: number, lines: number[]) =>
    Array.from({ length: count + 1 }, (_, i) => i).filter(
      (at) => at % step === 0 || at === count || lines.includes(at),
    );
  const fields = (more: typeof spoken) =>
    STEPS.map((step) => ({
      xs: pick(columns, step, more.xs),
      ys: pick(rows, step, more.ys),
      open: grid.insideCount,
    })).filter(({ xs, ys }) => quick(xs.length, ys.length));
  const even = fields({ xs: [], ys: [] });
  // With every line among them nothing else can do better.
  return even[0]?.xs.length === columns + 1
    ? even.slice(0, 1)
    : [...even.slice(0, 2), ...fields(spoken).slice(0, 2), ...even.slice(2)];
}
