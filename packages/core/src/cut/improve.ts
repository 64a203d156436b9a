import type { Cells, Grid } from './grid.ts';
import { guillotine } from './construct.ts';
import { chooseTilings, priced, usedBy, type Partition } from './partition.ts';
import type { TilingBook } from './tilings.ts';

/** A window takes this many modules at most, and no more cells than this. */
const MAX_MODULES = 9;
const MAX_CELLS = 420;
/** How much worse, as a share of the cost, the cutting one works on may become; it cools over so many windows. */
const WARMTH = 0.004;
const COOLING = 600;

/**
 * Improves a cutting window by window (large-neighbourhood search; Shaw 1998): a few neighbouring modules are taken
 * out and what they covered is cut again by the best straight cuts, at base prices that know the stock left. A cutting
 * a little worse is worked on for a while, so that the search does not stay in the first hollow.
 * @param random numbers from 0 to 1, the same for the same seed
 */
export class Improver {
  best: Partition;
  private current: Partition;
  private owner: Int32Array;
  private rounds = 0;

  constructor(
    private readonly grid: Grid,
    private readonly book: TilingBook,
    start: Partition,
    private readonly random: () => number,
  ) {
    this.best = start;
    this.current = start;
    this.owner = ownersOf(grid, start);
  }

  /**
   * Re-cuts windows until `stop` returns true, or no more than `most` of them.
   * @param prices what a base is worth with the stock in mind, by the bound's prices: one of the scenarios tried
   * @returns whether the best became better
   */
  run(prices: readonly number[], stop: () => boolean, most = Infinity): boolean {
    const before = this.best.cost.total;
    for (let i = 0; i < most && this.current.modules.length > 1 && !stop(); i++) this.window(prices);
    return this.best.cost.total < before - 1e-9;
  }

  private work(plan: Partition): void {
    this.current = plan;
    this.owner = ownersOf(this.grid, plan);
  }

  private window(prices: readonly number[]): void {
    const { grid, book, random, current } = this;
    const out = this.neighbours();
    if (out.size < 2) return;
    const kept = current.modules.flatMap((cells, i) =>
      out.has(i) ? [] : [{ cells, tiling: current.tilings[i] }],
    );
    const elsewhere = usedBy(
      grid.problem,
      kept.map(({ tiling }) => tiling),
    );
    const area = [...out].reduce((sum, i) => sum + areaOf(current.modules[i]), 0);
    const scenarios = this.scenarios(prices, elsewhere, area);
    const modules = guillotine(
      grid,
      book,
      scenarios[Math.trunc(random() * scenarios.length)],
      this.field(out),
    );
    if (!modules) return;
    const tilings = chooseTilings(grid, book, modules, elsewhere);
    if (!tilings) return;
    const fresh = priced(
      grid,
      [...kept.map(({ cells }) => cells), ...modules],
      [...kept.map(({ tiling }) => tiling), ...tilings],
    );
    if (fresh.cost.total < this.best.cost.total - 1e-9) {
      // The tilings of all modules together may now be better too.
      const all = chooseTilings(grid, book, fresh.modules);
      const whole = all && priced(grid, fresh.modules, all);
      this.best = whole && whole.cost.total < fresh.cost.total ? whole : fresh;
      this.work(this.best);
      this.rounds = 0;
      return;
    }
    const warmth = WARMTH * Math.max(0, 1 - (this.rounds % COOLING) / (COOLING / 2));
    if (fresh.cost.total <= this.best.cost.total * (1 + warmth) + 1e-9) this.work(fresh);
    if (++this.rounds % COOLING === 0) this.work(this.best);
  }

  /** A module and those nearest around it. */
  private neighbours(): Set<number> {
    const { grid, random, owner, current } = this;
    const seed = Math.trunc(random() * current.modules.length);
    const out = new Set([seed]);
    const most = 2 + Math.trunc(random() * (MAX_MODULES - 1));
    let area = areaOf(current.modules[seed]);
    for (let tries = 0; out.size < most && tries < 40; tries++) {
      const list = [...out];
      const { x0, y0, x1, y1 } = current.modules[list[Math.trunc(random() * list.length)]];
      // A cell beside one of its sides.
      const along = random();
      const [column, row] = [
        [x0 - 1, y0 + Math.trunc(along * (y1 - y0))],
        [x1, y0 + Math.trunc(along * (y1 - y0))],
        [x0 + Math.trunc(along * (x1 - x0)), y0 - 1],
        [x0 + Math.trunc(along * (x1 - x0)), y1],
      ][Math.trunc(random() * 4)];
      if (column < 0 || row < 0 || column >= grid.columns || row >= grid.rows) continue;
      const next = owner[row * grid.columns + column];
      if (next < 0 || out.has(next)) continue;
      area += areaOf(current.modules[next]);
      if (area > MAX_CELLS) break;
      out.add(next);
    }
    return out;
  }

  private field(out: ReadonlySet<number>) {
    const { owner, grid, current } = this;
    const parts = [...out].map((i) => current.modules[i]);
    const west = Math.min(...parts.map(({ x0 }) => x0));
    const north = Math.min(...parts.map(({ y0 }) => y0));
    const [w, d] = [
      Math.max(...parts.map(({ x1 }) => x1)) - west,
      Math.max(...parts.map(({ y1 }) => y1)) - north,
    ];
    const stride = w + 1;
    const sums = new Int32Array(stride * (d + 1));
    for (let row = 0; row < d; row++) {
      let run = 0;
      for (let column = 0; column < w; column++) {
        if (out.has(owner[(north + row) * grid.columns + west + column])) run++;
        sums[(row + 1) * stride + column + 1] = sums[row * stride + column + 1] + run;
      }
    }
    return {
      xs: Array.from({ length: w + 1 }, (_, i) => west + i),
      ys: Array.from({ length: d + 1 }, (_, i) => north + i),
      open: ({ x0, y0, x1, y1 }: Cells) =>
        sums[(y1 - north) * stride + x1 - west] -
        sums[(y0 - north) * stride + x1 - west] -
        sums[(y1 - north) * stride + x0 - west] +
        sums[(y0 - north) * stride + x0 - west],
    };
  }

  /** Prices of bases for a window: as the stock left has it, full, and as the relaxation has it. */
  private scenarios(
    prices: readonly number[],
    elsewhere: readonly number[],
    area: number,
  ): (readonly number[])[] {
    const { cell, problem } = this.grid;
    const { bases } = problem;
    const left = bases.map(({ stock }, base) => Math.max(0, stock - elsewhere[base]));
    const share = bases.map(
      ({ price, w, d }, base) => price * Math.max(0, 1 - (left[base] * w * d) / (area * cell ** 2)),
    );
    return [share, prices, bases.map(({ price }, base) => (left[base] > 0 ? 0 : price))];
  }
}

const areaOf = ({ x0, y0, x1, y1 }: Cells) => (x1 - x0) * (y1 - y0);

function ownersOf({ columns, inside }: Grid, { modules }: Partition): Int32Array {
  const owner = new Int32Array(inside.length).fill(-1);
  modules.forEach(({ x0, y0, x1, y1 }, i) => {
    for (let row = y0; row < y1; row++) owner.fill(i, row * columns + x0, row * columns + x1);
  });
  return owner;
}
