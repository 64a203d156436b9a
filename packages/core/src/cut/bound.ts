import type { Grid } from './grid.ts';

/**
 * A lower bound in closed form, for the first moment and for regions too large for the relaxation. Each part of the
 * cost is bounded by itself:
 * - modules: the region's area over the largest module's;
 * - bases: the area that stock leaves open, at the least price an area;
 * - seams: w × d modules have at least 2 (1/w + 1/d) of outline a cell, each seam is the outline of two modules, and the
 *   region's own outline is none.
 */
export function quickBound(grid: Grid): number {
  const { problem, cellCount, long, short } = grid;
  const { bases, weights } = problem;
  const modules = Math.ceil(cellCount / Math.max(1, long * short));
  const stocked = bases.reduce((sum, { w, d, stock, max }) => sum + w * d * Math.min(stock, max ?? stock), 0);
  const open = Math.max(0, cellCount * grid.cell ** 2 - stocked);
  const money = open * Math.min(...bases.map(({ w, d, price }) => price / (w * d)));
  const outline = cellCount * 2 * (1 / Math.max(1, long) + 1 / Math.max(1, short));
  const seams = Math.max(0, (outline - outlineOf(grid)) / 2) * grid.cell;
  return weights.module * modules + money + weights.seam * seams;
}

/** Cell edges between the region and what lies outside it. */
function outlineOf({ inside, columns, rows }: Grid): number {
  let edges = 0;
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const i = row * columns + column;
      if (!inside[i]) continue;
      edges += Number(column === 0 || !inside[i - 1]) + Number(column === columns - 1 || !inside[i + 1]);
      edges += Number(row === 0 || !inside[i - columns]) + Number(row === rows - 1 || !inside[i + columns]);
    }
  return edges;
}
