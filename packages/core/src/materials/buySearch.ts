import { seeded } from '../terrain/index.ts';
import { goodsOf, totalOf, usedIn, type BuyAnswer, type BuyProblem } from './buyProblem.ts';

/** Opens and closes sellers one by one while that makes the whole cheaper. */
export class BuySearch {
  /** The offers of all lines in one row, those of line i from `first[i]` on; `shared` where several lines may use one. */
  private readonly first: Int32Array;
  private readonly seller: Int32Array;
  private readonly price: Float64Array;
  private readonly stock: Float64Array;
  private readonly shared: Int32Array;
  private readonly sharedStock: Float64Array;
  private readonly free: Float64Array;
  private readonly wanted: Float64Array;
  private readonly goods: Float64Array;
  private readonly pieces: Float64Array;

  constructor(private readonly problem: BuyProblem) {
    const { choices, stocks, lines, sellers } = problem;
    const users = new Int32Array(stocks.length);
    for (const of of choices) for (const { offer } of of) users[offer]++;
    const sharedAs = new Int32Array(stocks.length).fill(-1);
    const several = [...users.keys()].filter((offer) => users[offer] > 1);
    several.forEach((offer, i) => (sharedAs[offer] = i));
    this.sharedStock = Float64Array.from(several, (offer) => stocks[offer]);
    this.free = this.sharedStock.slice();
    const all = choices.flat();
    this.seller = Int32Array.from(all, ({ seller }) => seller);
    this.price = Float64Array.from(all, ({ price }) => price);
    this.stock = Float64Array.from(all, ({ stock }) => stock);
    this.shared = Int32Array.from(all, ({ offer }) => sharedAs[offer]);
    this.first = new Int32Array(choices.length + 1);
    choices.forEach((of, line) => (this.first[line + 1] = this.first[line] + of.length));
    this.wanted = Float64Array.from(lines, ({ qty }) => qty);
    this.goods = new Float64Array(sellers.length);
    this.pieces = new Float64Array(sellers.length);
  }

  /** @param late asked before each start but the first, and between the steps of each: what was found stands */
  best(late: () => boolean): BuyAnswer | null {
    const { sellers, maxOrders } = this.problem;
    const random = seeded(11);
    let best: BuyAnswer | null = null;
    for (let start = 0; start < STARTS; start++) {
      if (start >= 1 && late()) break;
      const open =
        start === 0
          ? sellers.map(() => true)
          : start === 1
            ? this.fewest()
            : sellers.map(() => random() < start / STARTS);
      let cost = this.cost(open);
      for (;;) {
        const moves: boolean[][] = [];
        sellers.forEach((_, i) => {
          const flipped = open.slice();
          flipped[i] = !flipped[i];
          moves.push(flipped);
          if (open[i])
            sellers.forEach((_other, j) => {
              if (open[j]) return;
              const swapped = flipped.slice();
              swapped[j] = true;
              moves.push(swapped);
            });
        });
        let [least, taken] = [cost, -1];
        moves.forEach((move, i) => {
          const price = this.cost(move);
          if (price < least - 1e-9) [least, taken] = [price, i];
        });
        if (taken < 0) break;
        cost = least;
        moves[taken].forEach((on, i) => (open[i] = on));
        if (late()) break;
      }
      const answer = this.fill(open);
      const within = answer && usedIn(this.problem, answer).filter(Boolean).length <= maxOrders;
      if (answer && within && (!best || answer.total < best.total)) best = answer;
    }
    return best;
  }

  /** Sellers taken greedily by how much they cover, until all is covered. */
  private fewest(): boolean[] {
    const { sellers, choices, lines } = this.problem;
    const open = sellers.map(() => false);
    const left = lines.map(({ qty }) => qty);
    while (left.some((qty) => qty > 0)) {
      const covers = sellers.map(() => 0);
      choices.forEach((of, line) => {
        for (const { seller, stock } of of) if (!open[seller]) covers[seller] += Math.min(stock, left[line]);
      });
      const next = covers.indexOf(Math.max(...covers));
      if (covers[next] === 0) break;
      open[next] = true;
      choices.forEach((of, line) => {
        for (const { seller, stock } of of) if (seller === next) left[line] -= Math.min(stock, left[line]);
      });
    }
    return open;
  }

  /** What the open sellers would cost; what they cannot cover, or a least order missed, costs a great deal. */
  private cost(open: readonly boolean[]): number {
    const { sellers, maxOrders } = this.problem;
    const { first, seller, price, stock, shared, free, wanted, goods, pieces } = this;
    goods.fill(0);
    pieces.fill(0);
    free.set(this.sharedStock);
    let [total, missing] = [0, 0];
    for (let line = 0; line < wanted.length; line++) {
      let left = wanted[line];
      for (let at = first[line]; left > 0 && at < first[line + 1]; at++) {
        const of = seller[at];
        if (!open[of]) continue;
        const common = shared[at];
        const qty = Math.min(left, common < 0 ? stock[at] : free[common]);
        if (common >= 0) free[common] -= qty;
        pieces[of] += qty;
        goods[of] += qty * price[at];
        total += qty * price[at];
        left -= qty;
      }
      missing += left;
    }
    let used = 0;
    let under = 0;
    sellers.forEach(({ shipping, minOrder }, i) => {
      if (pieces[i] === 0) return;
      used++;
      total += shipping;
      if (goods[i] < minOrder - 1e-9) under += 1 + minOrder - goods[i];
    });
    return total + HARD * (missing + under + Math.max(0, used - maxOrders) * 10);
  }

  /** The purchase of open sellers, cheapest offers first; null when it is not complete or misses a least order. */
  private fill(open: readonly boolean[]): BuyAnswer | null {
    const { lines, choices, sellers, stocks } = this.problem;
    const free = stocks.slice();
    const taken = choices.map((of, line) => {
      let left = lines[line].qty;
      return of.map(({ seller, offer }) => {
        const qty = open[seller] ? Math.min(left, free[offer]) : 0;
        free[offer] -= qty;
        left -= qty;
        return qty;
      });
    });
    if (taken.some((of, line) => of.reduce((sum, qty) => sum + qty, 0) < lines[line].qty)) return null;
    const answer = { taken, total: totalOf(this.problem, taken) };
    const goods = goodsOf(this.problem, taken);
    const used = usedIn(this.problem, answer);
    return sellers.some(({ minOrder }, i) => used[i] && goods[i] < minOrder - 1e-9) ? null : answer;
  }
}

/** From all sellers, from few, and from chance. */
const STARTS = 12;
/** What a missing piece, or a unit of money under a least order, costs in the search. */
const HARD = 1e5;
