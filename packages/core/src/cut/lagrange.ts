import type { Grid } from './grid.ts';
import type { Candidates } from './master.ts';
import type { Partition } from './partition.ts';

/** Rounds without a better bound after which steps become shorter, and how much shorter. */
const PATIENCE = 12;
const SHORTER = 0.7;
/** Steps shorter than this share of the open gap move nothing any more. */
const MIN_STEP = 1e-4;

/**
 * A lower bound on the cost by Lagrangian relaxation, which needs no solver and can be stopped at any moment: each
 * cell has a price for being covered once, each base a price for being used. At given prices the cheapest choice is
 * plain, since a cell is the north-west corner of one module at most: at each cell the module of least reduced cost
 * when that is below zero. The prices are moved along the subgradient (Held, Wolfe, Crowder 1974; the step of Polyak
 * 1969; the direction of Camerini, Fratta, Maffioli 1975).
 */
export class Lagrange {
  /** The best bound so far, and the prices that gave it. */
  bound = -Infinity;
  basePrices: number[];
  private readonly best: { cells: Float64Array; least: Float64Array };
  private readonly price: Float64Array;
  private readonly direction: Float64Array;
  private readonly cover: Int32Array;
  private readonly sums: Float64Array;
  private readonly least: Float64Array;
  private lambda: number[];
  private lambdaDirection: number[];
  private reach = 1;
  private since = 0;

  constructor(
    private readonly grid: Grid,
    private readonly candidates: Candidates,
    start: Partition,
  ) {
    const { bases } = grid.problem;
    const stockShare = ({ w, d, stock }: (typeof bases)[number]) =>
      Math.min(1, (stock * w * d) / (grid.cellCount * grid.cell ** 2));
    this.lambda = bases.map((base) => base.price * (1 - stockShare(base)));
    this.basePrices = this.lambda;
    this.lambdaDirection = bases.map(() => 0);
    const size = grid.inside.length;
    this.price = new Float64Array(size);
    this.direction = new Float64Array(size);
    this.cover = new Int32Array(size);
    this.sums = new Float64Array((grid.columns + 1) * (grid.rows + 1));
    this.least = new Float64Array(size);
    this.best = { cells: new Float64Array(size), least: new Float64Array(size) };
    // Each module of a known cutting pays its own cost, shared among its cells.
    start.modules.forEach((cells, i) => {
      const money = start.tilings[i].counts.reduce((sum, count, base) => sum + count * this.lambda[base], 0);
      const share = (grid.moduleCost(cells) + money) / ((cells.x1 - cells.x0) * (cells.y1 - cells.y0));
      for (let row = cells.y0; row < cells.y1; row++)
        this.price.fill(share, row * grid.columns + cells.x0, row * grid.columns + cells.x1);
    });
  }

  /** True when more rounds would move nothing. */
  get settled(): boolean {
    return this.reach < MIN_STEP;
  }

  /** Moves the prices until `stop` returns true. @param upper cost of the best known cutting */
  run(upper: number, stop: () => boolean): void {
    while (!this.settled && upper - this.bound > 1e-6 && !stop()) this.round(upper);
  }

  /**
   * What any cutting that has a candidate as a module costs at least.
   * @returns a function of the candidate's index
   */
  costWith(): (index: number) => number {
    const { grid, candidates } = this;
    const sums = this.sums;
    prefix(grid, this.best.cells, sums);
    const money = this.moneyOf(this.basePrices);
    return (index) => {
      const corner = candidates.y0[index] * grid.columns + candidates.x0[index];
      return this.bound + this.reduced(index, sums, money) - this.best.least[corner];
    };
  }

  private reduced(index: number, sums: Float64Array, money: Float64Array): number {
    const { x0, y0, x1, y1, cost, size } = this.candidates;
    const stride = this.grid.columns + 1;
    const [north, south] = [y0[index] * stride, y1[index] * stride];
    return (
      cost[index] +
      money[size[index]] -
      (sums[south + x1[index]] - sums[north + x1[index]] - sums[south + x0[index]] + sums[north + x0[index]])
    );
  }

  /** The least a module of each size pays for its bases at given prices; of a size not fully listed, by its area. */
  private moneyOf(prices: readonly number[]): Float64Array {
    const { cell, problem } = this.grid;
    const { bases } = problem;
    const perCell = Math.min(...bases.map(({ w, d }, base) => (prices[base] * cell ** 2) / (w * d)));
    return Float64Array.from(this.candidates.sizes, ({ tilings, complete, area }) =>
      complete ? Math.min(...tilings.map((tiling) => dot(tiling.counts, prices))) : area * perCell,
    );
  }

  private round(upper: number): void {
    const { grid, candidates, price, cover, sums, least, lambda } = this;
    const { bases } = grid.problem;
    prefix(grid, price, sums);
    const money = this.moneyOf(lambda);
    cover.fill(0);
    const used = bases.map(() => 0);
    let value = price.reduce((sum, each) => sum + each, 0);
    for (let corner = 0; corner < least.length; corner++) {
      const [from, to] = [candidates.first[corner], candidates.first[corner + 1]];
      let [low, chosen] = [0, -1];
      for (let index = from; index < to; index++) {
        const reduced = this.reduced(index, sums, money);
        if (reduced < low) [low, chosen] = [reduced, index];
      }
      least[corner] = low;
      if (chosen < 0) continue;
      value += low;
      const { tilings, complete } = candidates.sizes[candidates.size[chosen]];
      if (complete) {
        const counts = tilings.reduce((a, b) =>
          dot(b.counts, lambda) < dot(a.counts, lambda) ? b : a,
        ).counts;
        counts.forEach((count, base) => (used[base] += count));
      }
      const { x0, y0, x1, y1 } = candidates.at(chosen);
      for (let row = y0; row < y1; row++)
        for (let column = x0; column < x1; column++) cover[row * grid.columns + column]++;
    }
    // The most the use of each base could earn at its price, against what it costs.
    const supply = bases.map((base, b) => earnings(base, lambda[b]));
    value -= supply.reduce((sum, { most }) => sum + most, 0);
    if (value > this.bound + 1e-9) {
      if (value > this.bound + 1e-4 * Math.abs(upper)) this.since = 0;
      this.bound = value;
      this.basePrices = [...lambda];
      this.best.cells.set(price);
      this.best.least.set(least);
    }
    if (++this.since > PATIENCE) {
      this.reach *= SHORTER;
      this.since = 0;
    }
    this.move(
      upper - value,
      used.map((count, b) => count - supply[b].at),
    );
  }

  private move(open: number, excess: readonly number[]): void {
    const { grid, price, direction, cover, lambda, lambdaDirection } = this;
    let [along, before, length] = [0, 0, 0];
    for (let i = 0; i < price.length; i++) {
      if (!grid.inside[i]) continue;
      along += (1 - cover[i]) * direction[i];
      before += direction[i] * direction[i];
    }
    // Bases are few and their prices large: their part of the direction counts on a scale of its own.
    const deflect = before > 0 ? Math.max(0, (-1.5 * along) / before) : 0;
    for (let i = 0; i < price.length; i++) {
      if (!grid.inside[i]) continue;
      direction[i] = 1 - cover[i] + deflect * direction[i];
      length += direction[i] * direction[i];
    }
    excess.forEach((value, base) => {
      lambdaDirection[base] = value + deflect * lambdaDirection[base];
      length += lambdaDirection[base] ** 2;
    });
    if (length === 0) return;
    const step = (this.reach * Math.max(open, 1e-6)) / length;
    for (let i = 0; i < price.length; i++) if (grid.inside[i]) price[i] += step * direction[i];
    grid.problem.bases.forEach(({ price: full, max }, base) => {
      const next = Math.max(0, lambda[base] + step * lambdaDirection[base]);
      lambda[base] = max === undefined ? Math.min(full, next) : next;
    });
  }
}

const dot = (counts: readonly number[], prices: readonly number[]) =>
  counts.reduce((sum, count, base) => sum + count * prices[base], 0);

/**
 * The most that using a base can earn at a price a piece, less what the pieces cost, and the count at which it does:
 * the conjugate of the cost of bases, price × what is past the stock, none past the maximum.
 */
function earnings(
  { price, stock, max }: { price: number; stock: number; max?: number },
  lambda: number,
): { most: number; at: number } {
  const free = Math.min(stock, max ?? stock);
  return max !== undefined && lambda > price
    ? { most: lambda * Math.max(max, free) - price * Math.max(0, max - stock), at: Math.max(max, free) }
    : { most: lambda * free, at: free };
}

function prefix(
  { columns, rows }: Pick<Grid, 'columns' | 'rows'>,
  values: Float64Array,
  sums: Float64Array,
): void {
  const stride = columns + 1;
  for (let row = 0; row < rows; row++) {
    let run = 0;
    for (let column = 0; column < columns; column++) {
      run += values[row * columns + column];
      sums[(row + 1) * stride + column + 1] = sums[row * stride + column + 1] + run;
    }
  }
}
