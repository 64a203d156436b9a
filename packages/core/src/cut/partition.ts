import type { CutModule, Cutting, CutProblem } from './problem.ts';
import type { Cells, Grid } from './grid.ts';
import { placed, type Tiling, type TilingBook } from './tilings.ts';

/** A cutting in the solver's own terms: rectangles of cells, each with the tiling its bases follow. */
export interface Partition {
  modules: Cells[];
  tilings: Tiling[];
  cost: { bases: number; modules: number; seams: number; total: number };
}

/** Money for a use of bases: what is past the stock is bought; Infinity past a maximum. */
export function basesCost({ bases }: CutProblem, used: readonly number[]): number {
  return bases.reduce((sum, { price, stock, max }, base) => {
    if (max !== undefined && used[base] > max) return Infinity;
    return sum + Math.max(0, used[base] - stock) * price;
  }, 0);
}

/**
 * Chooses a tiling for each module so that little is bought: each in turn the cheapest given the stock left, then
 * single swaps until none helps.
 * @param elsewhere bases that other modules use
 * @returns null when a module has no tiling or a maximum cannot be kept this way
 */
export function chooseTilings(
  grid: Pick<Grid, 'problem'>,
  book: TilingBook,
  modules: readonly Cells[],
  elsewhere: readonly number[] = grid.problem.bases.map(() => 0),
): Tiling[] | null {
  const { problem } = grid;
  const lists = modules.map(({ x0, y0, x1, y1 }) => book.of(x1 - x0, y1 - y0).list);
  if (lists.some((list) => list.length === 0)) return null;
  const used = [...elsewhere];
  const add = (tiling: Tiling, sign: number) =>
    tiling.counts.forEach((count, base) => (used[base] += sign * count));
  const withTiling = (tiling: Tiling) => {
    add(tiling, 1);
    // Past a maximum each piece counts as very dear, so that the swaps below can still walk back under it.
    const over = problem.bases.reduce(
      (sum, { max }, base) => sum + Math.max(0, used[base] - (max ?? Infinity)),
      0,
    );
    const cost = problem.bases.reduce(
      (sum, { price, stock }, base) => sum + Math.max(0, used[base] - stock) * price,
      1e7 * over,
    );
    add(tiling, -1);
    return cost;
  };
  const cheapest = (list: readonly Tiling[]) => {
    let best = list[0];
    let least = Infinity;
    for (const tiling of list) {
      const cost = withTiling(tiling);
      if (cost < least - 1e-9) [best, least] = [tiling, cost];
    }
    return best;
  };
  const chosen = lists.map((list) => {
    const tiling = cheapest(list);
    add(tiling, 1);
    return tiling;
  });
  for (let round = 0, better = true; better && round < 20; round++) {
    better = false;
    for (const [index, list] of lists.entries()) {
      add(chosen[index], -1);
      const before = withTiling(chosen[index]);
      const tiling = cheapest(list);
      if (withTiling(tiling) < before - 1e-9) {
        chosen[index] = tiling;
        better = true;
      }
      add(chosen[index], 1);
    }
  }
  return basesCost(problem, used) < Infinity ? chosen : null;
}

/** How many of each base some tilings use. */
export const usedBy = ({ bases }: CutProblem, tilings: readonly Tiling[]): number[] =>
  bases.map((_, base) => tilings.reduce((sum, { counts }) => sum + counts[base], 0));

/** Prices a plan by the contract's formula. */
export function priced(grid: Grid, modules: Cells[], tilings: Tiling[]): Partition {
  const { weights } = grid.problem;
  const used = usedBy(grid.problem, tilings);
  const money = basesCost(grid.problem, used);
  const modulesCost = weights.module * modules.length;
  const total = modules.reduce((sum, cells) => sum + grid.moduleCost(cells), money);
  return {
    modules,
    tilings,
    cost: { bases: money, modules: modulesCost, seams: total - money - modulesCost, total },
  };
}

/** Writes a plan as the contract's result, modules named by row letter and number within the row. */
export function toCutting(grid: Grid, plan: Partition, bound: number, seconds: number): Cutting {
  const { problem } = grid;
  const order = plan.modules
    .map((cells, index) => ({ cells, index }))
    .sort((a, b) => a.cells.y0 - b.cells.y0 || a.cells.x0 - b.cells.x0);
  const rows = [...new Set(order.map(({ cells }) => cells.y0))];
  const next = rows.map(() => 0);
  const used = problem.bases.map(() => 0);
  const modules = order.map(({ cells, index }): CutModule => {
    const { x0, y0, x1, y1 } = cells;
    const row = rows.indexOf(y0);
    const tiling = plan.tilings[index];
    tiling.counts.forEach((count, base) => (used[base] += count));
    return {
      id: `${rowLetters(row)}${++next[row]}`,
      ...inStuds(grid, cells),
      ...(problem.mass ? { massKg: grid.massOf(cells) } : {}),
      bases: placed(tiling, x1 - x0, y1 - y0).map((piece) =>
        inStuds(grid, {
          x0: x0 + piece.x,
          y0: y0 + piece.y,
          x1: x0 + piece.x + piece.w,
          y1: y0 + piece.y + piece.d,
        }),
      ),
    };
  });
  const total = plan.cost.total;
  const proven = total - bound <= 1e-6 * Math.max(1, total);
  return {
    modules,
    bought: problem.bases
      .map(({ w, d, stock }, base) => ({ w, d, count: Math.max(0, used[base] - stock) }))
      .filter(({ count }) => count > 0),
    cost: plan.cost,
    bound: proven ? total : bound,
    gap: total === 0 || proven ? 0 : (total - bound) / total,
    proven,
    seconds,
  };
}

function inStuds({ x, y, cell }: Grid, { x0, y0, x1, y1 }: Cells) {
  return { x: x + x0 * cell, y: y + y0 * cell, w: (x1 - x0) * cell, d: (y1 - y0) * cell };
}

/** A, B, … Z, AA, AB, … for row 0, 1, … */
export function rowLetters(row: number): string {
  return (row >= 26 ? rowLetters(Math.trunc(row / 26) - 1) : '') + String.fromCharCode(65 + (row % 26));
}
