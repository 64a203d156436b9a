import type { Highs } from 'highs';
import type { Cells, Grid } from './grid.ts';
import type { Tiling, TilingBook } from './tilings.ts';

/** Every rectangle that may be a module, as columns of the model: in the order of their north-west cells. */
export interface Candidates {
  count: number;
  x0: Int16Array;
  y0: Int16Array;
  x1: Int16Array;
  y1: Int16Array;
  cost: Float64Array;
  /** Index of each candidate's size in `sizes`. */
  size: Int16Array;
  sizes: { tilings: Tiling[]; complete: boolean; area: number }[];
  /** For each cell the index of the first candidate that begins there, and one more at the end. */
  first: Int32Array;
  at(index: number): Cells;
  /** The index of a rectangle, −1 when it is no candidate. */
  index(cells: Cells): number;
}

/** The most candidates that are listed: beyond it a cutting is searched for and bounded without them. */
const MAX_CANDIDATES = 1_500_000;

/** Lists the candidates; null when there are too many. A size without a tiling is none. */
export function candidatesOf(grid: Grid, book: TilingBook): Candidates | null {
  const { columns, rows, long, short } = grid;
  const x0: number[] = [];
  const y0: number[] = [];
  const x1: number[] = [];
  const y1: number[] = [];
  const cost: number[] = [];
  const size: number[] = [];
  const sizes: Candidates['sizes'] = [];
  const sizeIndex = new Map<number, number>();
  const indexOfSize = (w: number, d: number): number => {
    const key = Math.min(w, d) * 4096 + Math.max(w, d);
    let index = sizeIndex.get(key);
    if (index === undefined) {
      const { list, complete } = book.of(w, d);
      index = list.length === 0 && complete ? -1 : sizes.length;
      if (index >= 0) sizes.push({ tilings: list, complete, area: w * d });
      sizeIndex.set(key, index);
    }
    return index;
  };
  const first = new Int32Array(grid.inside.length + 1);
  for (let corner = 0; corner < grid.inside.length; corner++) {
    first[corner] = cost.length;
    if (!grid.inside[corner]) continue;
    if (cost.length > MAX_CANDIDATES) return null;
    const [west, north] = [corner % columns, Math.trunc(corner / columns)];
    for (let south = north + 1; south <= Math.min(rows, north + long); south++) {
      // Nothing further south is inside either.
      if (!grid.inside[(south - 1) * columns + west]) break;
      const longest = south - north > short ? short : long;
      for (let east = west + 1; east <= Math.min(columns, west + longest); east++) {
        const price = grid.moduleCost({ x0: west, y0: north, x1: east, y1: south });
        if (price === Infinity) continue;
        const index = indexOfSize(east - west, south - north);
        if (index < 0) continue;
        x0.push(west);
        y0.push(north);
        x1.push(east);
        y1.push(south);
        cost.push(price);
        size.push(index);
      }
    }
  }
  first[grid.inside.length] = cost.length;
  const at = (index: number): Cells => ({ x0: x0[index], y0: y0[index], x1: x1[index], y1: y1[index] });
  return {
    count: cost.length,
    x0: Int16Array.from(x0),
    y0: Int16Array.from(y0),
    x1: Int16Array.from(x1),
    y1: Int16Array.from(y1),
    cost: Float64Array.from(cost),
    size: Int16Array.from(size),
    ...{ sizes, first, at },
    index(cells) {
      const corner = cells.y0 * columns + cells.x0;
      for (let index = first[corner]; index < first[corner + 1]; index++)
        if (x1[index] === cells.x1 && y1[index] === cells.y1) return index;
      return -1;
    },
  };
}

/**
 * The model both solvers share. Rows: each cell covered once; for each size, as many tilings as modules; for each
 * base, its use within stock plus bought. Columns: bought bases, tilings by size, then modules.
 */
class Columns {
  readonly cost: number[] = [];
  readonly upper: number[] = [];
  readonly integer: number[] = [];
  private readonly starts: number[] = [0];
  private readonly indices: number[] = [];
  private readonly values: number[] = [];

  add(
    cost: number,
    upper: number,
    integer: boolean,
    entries: readonly (readonly [row: number, value: number])[],
  ): void {
    this.cost.push(cost);
    this.upper.push(upper);
    this.integer.push(integer ? 1 : 0);
    for (const [row, value] of entries) {
      this.indices.push(row);
      this.values.push(value);
    }
    this.starts.push(this.indices.length);
  }

  matrix(numRows: number) {
    return {
      format: 'csc' as const,
      numRows,
      numCols: this.cost.length,
      starts: Int32Array.from(this.starts),
      indices: Int32Array.from(this.indices),
      values: Float64Array.from(this.values),
    };
  }
}

interface Layout {
  rows: number;
  cellRow: Int32Array;
  sizeRow(size: number): number;
  baseRow(base: number): number;
  lower: Float64Array;
  upper: Float64Array;
}

function layOut(grid: Grid, candidates: Candidates, infinity: number): Layout {
  const { bases } = grid.problem;
  const cellRow = new Int32Array(grid.inside.length).fill(-1);
  let next = 0;
  for (let i = 0; i < cellRow.length; i++) if (grid.inside[i]) cellRow[i] = next++;
  const cells = next;
  const sizes = candidates.sizes.length;
  const rows = cells + sizes + bases.length;
  const lower = new Float64Array(rows).fill(-infinity);
  const upper = new Float64Array(rows);
  lower.fill(1, 0, cells);
  upper.fill(1, 0, cells);
  lower.fill(0, cells, cells + sizes);
  bases.forEach(({ stock, max }, base) => (upper[cells + sizes + base] = Math.min(stock, max ?? stock)));
  return {
    rows,
    cellRow,
    sizeRow: (size) => cells + size,
    baseRow: (base) => cells + sizes + base,
    lower,
    upper,
  };
}

/** Columns of bought bases and of tilings. An incomplete size gets the vertices of its area instead: a valid relaxation. */
function baseColumns(grid: Grid, candidates: Candidates, layout: Layout, infinity: number, relax: boolean) {
  const columns = new Columns();
  const { bases } = grid.problem;
  bases.forEach(({ price, stock, max }, base) =>
    columns.add(price, max === undefined ? infinity : Math.max(0, max - stock), false, [
      [layout.baseRow(base), -1],
    ]),
  );
  const tilingColumns: { size: number; tiling: Tiling }[] = [];
  candidates.sizes.forEach(({ tilings, complete, area }, size) => {
    const vectors =
      complete || !relax
        ? tilings
        : bases.map(({ w, d }, base) => ({
            counts: bases.map((_, b) => (b === base ? (area * grid.cell ** 2) / (w * d) : 0)),
            pieces: [],
          }));
    for (const tiling of vectors) {
      const entries: [number, number][] = [[layout.sizeRow(size), -1]];
      tiling.counts.forEach((count, base) => count > 0 && entries.push([layout.baseRow(base), count]));
      columns.add(0, infinity, true, entries);
      tilingColumns.push({ size, tiling });
    }
  });
  return { columns, tilingColumns };
}

function addModule(
  columns: Columns,
  grid: Grid,
  candidates: Candidates,
  layout: Layout,
  index: number,
): void {
  const { x0, y0, x1, y1 } = candidates.at(index);
  const entries: [number, number][] = [];
  for (let row = y0; row < y1; row++)
    for (let column = x0; column < x1; column++)
      entries.push([layout.cellRow[row * grid.columns + column], 1]);
  entries.push([layout.sizeRow(candidates.size[index]), 1]);
  columns.add(candidates.cost[index], 1, true, entries);
}

/** The linear relaxation's bound, with the reduced cost of every candidate at the last duals. */
export interface Relaxation {
  bound: number;
  /** True when no candidate could improve the relaxation any more. */
  converged: boolean;
  reduced: Float64Array;
  /** Candidates that were in the model at the end. */
  active: Int32Array;
}

/**
 * Bounds the cost from below by column generation: the relaxation starts from the modules of known cuttings and
 * takes in those of negative reduced cost until none is left. Stopped early, the bound is Lagrange's:
 * the objective plus the least reduced cost times the most modules there can be.
 * @param mostModules no cutting worth having has more modules than this; at most the cells of the region
 */
export function relaxation(
  highs: Highs,
  grid: Grid,
  candidates: Candidates,
  start: readonly Cells[],
  mostModules: number,
  outOfTime: () => boolean,
): Relaxation {
  const { infinity } = highs;
  const layout = layOut(grid, candidates, infinity);
  const { columns } = baseColumns(grid, candidates, layout, infinity, true);
  // A dear stand-in for each cell keeps the first model feasible without a known cutting.
  const penalty =
    1e3 +
    candidates.cost.reduce((a, b) => Math.max(a, b), 0) * 10 +
    grid.problem.bases.reduce((sum, { price }) => sum + price, 0) * 10;
  for (const row of layout.cellRow) if (row >= 0) columns.add(penalty, 1, false, [[row, 1]]);
  const present = new Uint8Array(candidates.count);
  const active: number[] = [];
  const take = (target: Columns, index: number) => {
    present[index] = 1;
    active.push(index);
    addModule(target, grid, candidates, layout, index);
  };
  for (const cells of start) {
    const index = candidates.index(cells);
    if (index >= 0 && !present[index]) take(columns, index);
  }
  const reduced = new Float64Array(candidates.count);
  let bound = -Infinity;
  const model = highs.createModel({
    numCols: columns.cost.length,
    numRows: layout.rows,
    colCost: columns.cost,
    colLower: columns.cost.map(() => 0),
    colUpper: columns.upper,
    rowLower: layout.lower,
    rowUpper: layout.upper,
    matrix: columns.matrix(layout.rows),
  });
  try {
    model.options.set({ output_flag: false });
    for (;;) {
      model.run();
      if (model.getModelStatus() !== highs.constants.modelStatus.optimal)
        return { bound: Math.max(0, bound), converged: false, reduced, active: Int32Array.from(active) };
      const { rowDual } = model.getSolution();
      const dual = dualSums(grid, layout, rowDual);
      let least = 0;
      const negative: number[] = [];
      for (let i = 0; i < candidates.count; i++) {
        reduced[i] =
          candidates.cost[i] - dual(candidates.at(i)) - rowDual[layout.sizeRow(candidates.size[i])];
        if (reduced[i] < -1e-7 && !present[i]) {
          negative.push(i);
          least = Math.min(least, reduced[i]);
        }
      }
      bound = Math.max(bound, model.getObjectiveValue() + least * mostModules);
      if (negative.length === 0)
        return {
          bound: model.getObjectiveValue(),
          converged: true,
          reduced,
          active: Int32Array.from(active),
        };
      if (outOfTime())
        return { bound: Math.max(0, bound), converged: false, reduced, active: Int32Array.from(active) };
      negative.sort((a, b) => reduced[a] - reduced[b]);
      const fresh = new Columns();
      for (const index of negative.slice(0, 500)) take(fresh, index);
      model.addCols({
        cost: Float64Array.from(fresh.cost),
        lower: new Float64Array(fresh.cost.length),
        upper: Float64Array.from(fresh.upper),
        matrix: fresh.matrix(layout.rows),
      });
    }
  } finally {
    model.dispose();
  }
}

/** Sum of the cell rows' duals over a rectangle, by a prefix sum. */
function dualSums(grid: Grid, layout: Layout, rowDual: Float64Array): (cells: Cells) => number {
  const stride = grid.columns + 1;
  const sums = new Float64Array(stride * (grid.rows + 1));
  for (let row = 0; row < grid.rows; row++)
    for (let column = 0; column < grid.columns; column++) {
      const cell = layout.cellRow[row * grid.columns + column];
      sums[(row + 1) * stride + column + 1] =
        (cell < 0 ? 0 : rowDual[cell]) +
        sums[row * stride + column + 1] +
        sums[(row + 1) * stride + column] -
        sums[row * stride + column];
    }
  return ({ x0, y0, x1, y1 }) =>
    sums[y1 * stride + x1] - sums[y0 * stride + x1] - sums[y1 * stride + x0] + sums[y0 * stride + x0];
}

/** What the exact solver came back with: its best cutting, if it found a better one, and its proven bound. */
export interface ExactOutcome {
  modules: Cells[] | null;
  tilings: Tiling[];
  /** Lower bound over the candidates it was given. */
  bound: number;
}

/**
 * Solves the integer model over some of the candidates with HiGHS.
 * @param pool indices of the candidates to choose from
 * @param incumbent a known cutting to start from
 * @param seconds time limit; `stopped` is asked at each of the solver's checkpoints
 */
export function exact(
  highs: Highs,
  grid: Grid,
  candidates: Candidates,
  pool: readonly number[],
  incumbent: { modules: readonly Cells[]; tilings: readonly Tiling[] } | null,
  seconds: number,
  stopped: () => boolean,
  onBound: (bound: number) => void,
): ExactOutcome {
  const { infinity } = highs;
  const layout = layOut(grid, candidates, infinity);
  const { columns, tilingColumns } = baseColumns(grid, candidates, layout, infinity, false);
  const firstTiling = grid.problem.bases.length;
  const firstModule = columns.cost.length;
  for (const index of pool) addModule(columns, grid, candidates, layout, index);
  const decode = (values: Float64Array) => {
    const modules = pool.filter((_, i) => values[firstModule + i] > 0.5);
    const stack = new Map<number, Tiling[]>();
    tilingColumns.forEach(({ size, tiling }, i) => {
      for (let n = Math.round(values[firstTiling + i]); n > 0; n--)
        stack.set(size, [...(stack.get(size) ?? []), tiling]);
    });
    const tilings = modules.map((index) => stack.get(candidates.size[index])?.pop());
    return {
      modules: modules.map((index) => candidates.at(index)),
      tilings: tilings.filter((tiling) => tiling !== undefined),
    };
  };
  const model = highs.createModel({
    numCols: columns.cost.length,
    numRows: layout.rows,
    colCost: columns.cost,
    colLower: columns.cost.map(() => 0),
    colUpper: columns.upper,
    rowLower: layout.lower,
    rowUpper: layout.upper,
    matrix: columns.matrix(layout.rows),
    integrality: columns.integer.map((flag) =>
      flag === 1 ? highs.constants.variableType.integer : highs.constants.variableType.continuous,
    ),
  });
  try {
    model.options.set({ output_flag: false, time_limit: seconds, mip_rel_gap: 1e-7, mip_abs_gap: 1e-6 });
    if (incumbent)
      model.setSolution({
        colValue: encode(grid, candidates, pool, incumbent, tilingColumns, columns.cost.length),
      });
    const { mipInterrupt, mipLogging } = highs.constants.callbackType;
    model.run({
      [mipInterrupt]: (event) => {
        if (stopped()) event.interrupt();
      },
      [mipLogging]: (event) => {
        if (event.data.mip_dual_bound !== undefined && Number.isFinite(event.data.mip_dual_bound))
          onBound(event.data.mip_dual_bound);
      },
    });
    const status = model.getModelStatus();
    const { modelStatus } = highs.constants;
    if (status === modelStatus.infeasible) return { modules: null, tilings: [], bound: Infinity };
    const dual = Number(model.info.get('mip_dual_bound'));
    const found = Number(model.info.get('primal_solution_status')) === 2;
    const answer = found ? decode(model.getSolution().colValue) : { modules: null, tilings: [] };
    const bound =
      status === modelStatus.optimal ? model.getObjectiveValue() : Number.isFinite(dual) ? dual : -Infinity;
    return { ...answer, bound };
  } finally {
    model.dispose();
  }
}

/** A cutting as values of the model's columns, for a warm start. */
function encode(
  grid: Grid,
  candidates: Candidates,
  pool: readonly number[],
  incumbent: { modules: readonly Cells[]; tilings: readonly Tiling[] },
  tilingColumns: readonly { size: number; tiling: Tiling }[],
  length: number,
): Float64Array {
  const { bases } = grid.problem;
  const values = new Float64Array(length);
  const position = new Map(pool.map((index, i) => [index, i]));
  const used = bases.map(() => 0);
  incumbent.modules.forEach((cells, i) => {
    const index = candidates.index(cells);
    const column = position.get(index);
    if (column === undefined) return;
    values[bases.length + tilingColumns.length + column] = 1;
    const tiling = incumbent.tilings[i];
    tiling.counts.forEach((count, base) => (used[base] += count));
    const place = tilingColumns.findIndex(
      (entry) => entry.size === candidates.size[index] && entry.tiling.counts.join() === tiling.counts.join(),
    );
    if (place >= 0) values[bases.length + place]++;
  });
  bases.forEach(({ stock }, base) => (values[base] = Math.max(0, used[base] - stock)));
  return values;
}
