import { CELL, MAX_CELLS, type CutProblem } from './problem.ts';

/** A rectangle of cells: columns x0 to x1 and rows y0 to y1, the ends not included. */
export interface Cells {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/**
 * A problem on its cell grid, with prefix sums so that any rectangle of cells is judged in constant time.
 * `lines` run between cells: vertical line v of row r stands at `v * rows + r`, horizontal line h of column c at
 * `h * columns + c`.
 */
export interface Grid {
  problem: CutProblem;
  /** Studs of the grid's north-west corner. */
  x: number;
  y: number;
  columns: number;
  rows: number;
  /** 1 where the region is. */
  inside: Uint8Array;
  cellCount: number;
  /** Largest module in cells: `long` ≥ `short`. */
  long: number;
  short: number;
  /** Module weight plus half its seam's weight; Infinity when a rectangle cannot be one module. Bases not counted. */
  moduleCost(cells: Cells): number;
  /** Cells of the region in a rectangle. */
  insideCount(cells: Cells): number;
  /** Mass of a rectangle, kg; 0 without masses. */
  massOf(cells: Cells): number;
}

/** Lays a problem out in cells. @throws RangeError when its bounding box is too large */
export function gridOf(problem: CutProblem): Grid {
  const x = Math.min(...problem.region.map((part) => part.x));
  const y = Math.min(...problem.region.map((part) => part.y));
  const columns = (Math.max(...problem.region.map((part) => part.x + part.w)) - x) / CELL;
  const rows = (Math.max(...problem.region.map((part) => part.y + part.d)) - y) / CELL;
  if (columns * rows > MAX_CELLS)
    throw new RangeError(
      `the region spans ${columns * CELL} × ${rows * CELL} studs, ${columns * rows} cells of ${CELL} × ${CELL}; the most is ${MAX_CELLS} cells`,
    );
  const cellsOf = (part: { x: number; y: number; w: number; d: number }): Cells => ({
    x0: Math.max(0, (part.x - x) / CELL),
    y0: Math.max(0, (part.y - y) / CELL),
    x1: Math.min(columns, (part.x + part.w - x) / CELL),
    y1: Math.min(rows, (part.y + part.d - y) / CELL),
  });
  const paint = <T extends Uint8Array | Float64Array>(
    target: T,
    part: Cells,
    value: (before: number) => number,
  ) => {
    for (let row = part.y0; row < part.y1; row++)
      for (let column = part.x0; column < part.x1; column++)
        target[row * columns + column] = value(target[row * columns + column]);
  };
  const inside = new Uint8Array(columns * rows);
  for (const part of problem.region) paint(inside, cellsOf(part), () => 1);
  const dear = new Float64Array(columns * rows);
  for (const part of problem.seamCost ?? [])
    paint(dear, cellsOf(part), (before) => Math.max(before, part.cost));

  // Seam cost, forbidden seams (inside a keep) and forced seams (pins) of each unit line.
  const seamV = new Float64Array((columns + 1) * rows);
  const seamH = new Float64Array((rows + 1) * columns);
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const i = row * columns + column;
      if (!inside[i]) continue;
      if (column > 0 && inside[i - 1])
        seamV[column * rows + row] = CELL * (1 + Math.max(dear[i], dear[i - 1]));
      if (row > 0 && inside[i - columns])
        seamH[row * columns + column] = CELL * (1 + Math.max(dear[i], dear[i - columns]));
    }
  const keptV = new Uint8Array(seamV.length);
  const keptH = new Uint8Array(seamH.length);
  for (const keep of problem.keep ?? []) {
    const { x0, y0, x1, y1 } = cellsOf(keep);
    for (let column = x0 + 1; column < x1; column++)
      keptV.fill(1, column * rows + y0, column * rows + Math.max(y0, y1));
    for (let row = y0 + 1; row < y1; row++)
      keptH.fill(1, row * columns + x0, row * columns + Math.max(x0, x1));
  }
  const pinnedV = new Uint8Array(seamV.length);
  const pinnedH = new Uint8Array(seamH.length);
  for (const pin of problem.pins ?? []) {
    const part = cellsOf({
      x: Math.min(pin.x1, pin.x2),
      y: Math.min(pin.y1, pin.y2),
      w: Math.abs(pin.x2 - pin.x1),
      d: Math.abs(pin.y2 - pin.y1),
    });
    if (pin.x1 === pin.x2 && part.x0 <= columns && part.y1 > part.y0)
      pinnedV.fill(1, part.x0 * rows + part.y0, part.x0 * rows + part.y1);
    if (pin.y1 === pin.y2 && part.y0 <= rows && part.x1 > part.x0)
      pinnedH.fill(1, part.y0 * columns + part.x0, part.y0 * columns + part.x1);
  }

  const insideSum = table(columns, rows, (column, row) => inside[row * columns + column]);
  const massSum = table(columns, rows, (column, row) =>
    problem.mass ? massOfCell(problem, x + column * CELL, y + row * CELL) : 0,
  );
  const pinSumV = table(columns + 1, rows, (line, row) => pinnedV[line * rows + row]);
  const pinSumH = table(columns, rows + 1, (column, line) => pinnedH[line * columns + column]);
  const alongV = running(seamV, rows);
  const alongH = running(seamH, columns);
  const brokenV = running(keptV, rows);
  const brokenH = running(keptH, columns);
  const side = (sums: Float64Array, length: number, line: number, from: number, to: number) =>
    sums[line * (length + 1) + to] - sums[line * (length + 1) + from];

  const { maxW, maxD, maxMassKg } = problem.module;
  const long = Math.floor(Math.max(maxW, maxD) / CELL);
  const short = Math.floor(Math.min(maxW, maxD) / CELL);
  const { module: moduleWeight, seam: seamWeight } = problem.weights;
  const perimeter = (v: Float64Array, h: Float64Array, { x0, y0, x1, y1 }: Cells) =>
    side(v, rows, x0, y0, y1) +
    side(v, rows, x1, y0, y1) +
    side(h, columns, y0, x0, x1) +
    side(h, columns, y1, x0, x1);

  return {
    problem,
    x,
    y,
    columns,
    rows,
    inside,
    cellCount: insideSum({ x0: 0, y0: 0, x1: columns, y1: rows }),
    long,
    short,
    insideCount: insideSum,
    massOf: massSum,
    moduleCost(cells) {
      const { x0, y0, x1, y1 } = cells;
      const w = x1 - x0;
      const d = y1 - y0;
      if (Math.max(w, d) > long || Math.min(w, d) > short) return Infinity;
      if (insideSum(cells) !== w * d) return Infinity;
      if (perimeter(brokenV, brokenH, cells) > 0) return Infinity;
      if (w > 1 && pinSumV({ x0: x0 + 1, y0, x1, y1 }) > 0) return Infinity;
      if (d > 1 && pinSumH({ x0, y0: y0 + 1, x1, y1 }) > 0) return Infinity;
      if (maxMassKg !== undefined && massSum(cells) > maxMassKg + 1e-9) return Infinity;
      return moduleWeight + (seamWeight * perimeter(alongV, alongH, cells)) / 2;
    },
  };
}

/** Mass of one cell, taking parts of the mass squares by area. Squares past the end of the table weigh nothing. */
function massOfCell({ mass }: CutProblem, x: number, y: number): number {
  if (!mass) return 0;
  const { cell, kg } = mass;
  let sum = 0;
  for (let row = Math.max(0, Math.floor(y / cell)); row * cell < y + CELL && row < kg.length; row++)
    for (
      let column = Math.max(0, Math.floor(x / cell));
      column * cell < x + CELL && column < kg[row].length;
      column++
    ) {
      const w = Math.min(x + CELL, (column + 1) * cell) - Math.max(x, column * cell);
      const d = Math.min(y + CELL, (row + 1) * cell) - Math.max(y, row * cell);
      if (w > 0 && d > 0) sum += (kg[row][column] * w * d) / (cell * cell);
    }
  return sum;
}

/** A two-dimensional prefix sum as a function of a rectangle. */
function table(
  columns: number,
  rows: number,
  value: (column: number, row: number) => number,
): (cells: Cells) => number {
  const sums = new Float64Array((columns + 1) * (rows + 1));
  const stride = columns + 1;
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++)
      sums[(row + 1) * stride + column + 1] =
        value(column, row) +
        sums[row * stride + column + 1] +
        sums[(row + 1) * stride + column] -
        sums[row * stride + column];
  return ({ x0, y0, x1, y1 }) =>
    sums[y1 * stride + x1] - sums[y0 * stride + x1] - sums[y1 * stride + x0] + sums[y0 * stride + x0];
}

/** Running sums along each line of `length` unit pieces: one more entry than pieces a line. */
function running(pieces: Float64Array | Uint8Array, length: number): Float64Array {
  const lines = pieces.length / length;
  const sums = new Float64Array(lines * (length + 1));
  for (let line = 0; line < lines; line++)
    for (let i = 0; i < length; i++)
      sums[line * (length + 1) + i + 1] = sums[line * (length + 1) + i] + pieces[line * length + i];
  return sums;
}
