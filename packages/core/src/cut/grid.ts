import { CELL, MAX_CELLS, type CutProblem } from './problem.ts';

/** A rectangle of cells: columns x0 to x1 and rows y0 to y1, the ends not included. */
export interface Cells {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/**
 * The side of the squares a problem can be laid out in, studs: the greatest length of which every side of every base
 * is a multiple, when every edge of the region is one too. All seams then lie on that lattice: the first cell still
 * open, row by row, is a corner of what is open, so the module there begins on the lattice and ends on it, and what
 * stays open has its corners on it again.
 */
export function gridPitch({ region, bases }: CutProblem): number {
  const unit = basesUnit(bases);
  const [first] = region;
  return region.every((part) =>
    [part.x - first.x, part.y - first.y, part.w, part.d].every((value) => value % unit === 0),
  )
    ? unit
    : CELL;
}

/** The greatest common measure of all sides of all bases, studs. */
export const basesUnit = (bases: readonly { w: number; d: number }[]): number =>
  bases.flatMap(({ w, d }) => [w, d]).reduce(common, 0) || CELL;
const common = (a: number, b: number): number => (b === 0 ? a : common(b, a % b));

/**
 * A problem on its cell grid, with prefix sums so that any rectangle of cells is judged in constant time.
 * `lines` run between cells: vertical line v of row r stands at `v * rows + r`, horizontal line h of column c at
 * `h * columns + c`.
 */
export interface Grid {
  problem: CutProblem;
  /** Side of a cell, studs: `latticeOf` the problem. */
  cell: number;
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
  const cell = gridPitch(problem);
  const step = cell / CELL;
  const columns = (Math.max(...problem.region.map((part) => part.x + part.w)) - x) / cell;
  const rows = (Math.max(...problem.region.map((part) => part.y + part.d)) - y) / cell;
  const small = { columns: columns * step, rows: rows * step };
  if (small.columns * small.rows > MAX_CELLS)
    throw new RangeError(
      `the region spans ${small.columns * CELL} × ${small.rows * CELL} studs, ${small.columns * small.rows} cells of ${CELL} × ${CELL}; the most is ${MAX_CELLS} cells`,
    );
  const cellsOf = (part: { x: number; y: number; w: number; d: number }): Cells => ({
    x0: Math.max(0, Math.floor((part.x - x) / cell)),
    y0: Math.max(0, Math.floor((part.y - y) / cell)),
    x1: Math.min(columns, Math.ceil((part.x + part.w - x) / cell)),
    y1: Math.min(rows, Math.ceil((part.y + part.d - y) / cell)),
  });
  const inside = new Uint8Array(columns * rows);
  for (const part of problem.region) {
    const { x0, y0, x1, y1 } = cellsOf(part);
    for (let row = y0; row < y1; row++) inside.fill(1, row * columns + x0, row * columns + x1);
  }
  // Seam costs are given per 8-stud cell; a line of larger cells takes the sum of its pieces.
  const penalty = new Float64Array(small.columns * small.rows);
  for (const { cost, ...part } of problem.seamCost ?? []) {
    const west = Math.max(0, (part.x - x) / CELL);
    const east = Math.min(small.columns, (part.x + part.w - x) / CELL);
    for (
      let row = Math.max(0, (part.y - y) / CELL);
      row < Math.min(small.rows, (part.y + part.d - y) / CELL);
      row++
    )
      for (let column = west; column < east; column++) {
        const i = row * small.columns + column;
        penalty[i] = Math.max(penalty[i], cost);
      }
  }
  const pieceCost = (i: number, j: number) => CELL * (1 + Math.max(penalty[i], penalty[j]));

  // Lines say what a piece of 8 studs costs, whatever lies beside it.
  const saidV = new Map<number, number>();
  const saidH = new Map<number, number>();
  for (const { x1, y1, x2, y2, cost } of problem.lines ?? []) {
    const [column, row] = [(Math.min(x1, x2) - x) / CELL, (Math.min(y1, y2) - y) / CELL];
    const length = (Math.abs(x2 - x1) + Math.abs(y2 - y1)) / CELL;
    for (let k = 0; k < length; k++) {
      const [at, down] = x1 === x2 ? [column, row + k] : [column + k, row];
      // What lies beyond the grid parts nothing.
      if (at < 0 || down < 0 || at >= small.columns || down >= small.rows) continue;
      (x1 === x2 ? saidV : saidH).set(down * small.columns + at, cost);
    }
  }
  const across = (edgeCosts: Map<number, number>, i: number, j: number) => {
    const cost = edgeCosts.get(i);
    return cost === undefined ? pieceCost(i, j) : CELL * (1 + cost);
  };

  // Seam cost, forbidden seams (inside a keep) and forced seams (pins) of each unit line.
  const seamV = new Float64Array((columns + 1) * rows);
  const seamH = new Float64Array((rows + 1) * columns);
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const i = row * columns + column;
      if (!inside[i]) continue;
      const corner = row * step * small.columns + column * step;
      for (let k = 0; k < step; k++) {
        const [down, along] = [corner + k * small.columns, corner + k];
        if (column > 0 && inside[i - 1]) seamV[column * rows + row] += across(saidV, down, down - 1);
        if (row > 0 && inside[i - columns])
          seamH[row * columns + column] += across(saidH, along, along - small.columns);
      }
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
    // A seam off the grid is infeasible: `plainFaults` reports it.
    if ((pin.x1 === pin.x2 ? pin.x1 - x : pin.y1 - y) % cell !== 0) continue;
    if (pin.x1 === pin.x2 && part.x0 <= columns && part.y1 > part.y0)
      pinnedV.fill(1, part.x0 * rows + part.y0, part.x0 * rows + part.y1);
    if (pin.y1 === pin.y2 && part.y0 <= rows && part.x1 > part.x0)
      pinnedH.fill(1, part.y0 * columns + part.x0, part.y0 * columns + part.x1);
  }

  const insideSum = table(columns, rows, (column, row) => inside[row * columns + column]);
  const massSum = table(columns, rows, (column, row) =>
    problem.mass ? massOfCell(problem, x + column * cell, y + row * cell, cell) : 0,
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
  const long = Math.floor(Math.max(maxW, maxD) / cell);
  const short = Math.floor(Math.min(maxW, maxD) / cell);
  const { module: moduleWeight, seam: seamWeight } = problem.weights;
  const perimeter = (v: Float64Array, h: Float64Array, { x0, y0, x1, y1 }: Cells) =>
    side(v, rows, x0, y0, y1) +
    side(v, rows, x1, y0, y1) +
    side(h, columns, y0, x0, x1) +
    side(h, columns, y1, x0, x1);

  return {
    problem,
    cell,
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

/** Mass of a square, taking parts of the mass squares by area. Squares past the end of the table weigh nothing. */
function massOfCell({ mass }: CutProblem, x: number, y: number, side: number): number {
  if (!mass) return 0;
  const { cell, kg } = mass;
  let sum = 0;
  for (let row = Math.max(0, Math.floor(y / cell)); row * cell < y + side && row < kg.length; row++)
    for (
      let column = Math.max(0, Math.floor(x / cell));
      column * cell < x + side && column < kg[row].length;
      column++
    ) {
      const w = Math.min(x + side, (column + 1) * cell) - Math.max(x, column * cell);
      const d = Math.min(y + side, (row + 1) * cell) - Math.max(y, row * cell);
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
