import type { Highs } from 'highs';
import { ANY_COLOUR } from '../catalogue/index.ts';
import { seeded } from '../relief/index.ts';
import type { PartLine } from '../scene/index.ts';

/**
 * Where to buy: the cheapest complete purchase over sellers with stock, prices, postage and least orders.
 *
 * Exactly what is needed is bought, no surplus. Cost = Σ price × quantity + postage of each seller used; each order
 * reaches its seller's least order in goods. A first answer comes from opening and closing sellers one by one, a
 * bound from Lagrangian relaxation of the needs (any prices for the lines give one), and HiGHS closes the rest.
 */

export interface Offer {
  seller: string;
  part: string;
  colour: string;
  /** Pieces in stock. */
  qty: number;
  price: number;
}
export interface Seller {
  name: string;
  /** Postage of one parcel, and the least order in goods; money. */
  shipping: number;
  minOrder: number;
  /** Days from order to door; null: not said. */
  days: number | null;
}
export interface Market {
  sellers: Seller[];
  offers: Offer[];
}

export interface Bought extends PartLine {
  seller: string;
  price: number;
}
export interface Purchase {
  lines: Bought[];
  sellers: { seller: Seller; pieces: number; goods: number }[];
  goods: number;
  postage: number;
  total: number;
  /** No complete purchase costs less: proven. `gap` = (total − bound) / total. */
  bound: number;
  gap: number;
  /** Days until the last parcel is there; null when a seller does not say. */
  days: number | null;
}

export type Sourcing =
  | { ok: true; purchase: Purchase }
  /** What no offer covers, with how much of it is missing; or why there is no answer. */
  | { ok: false; uncovered: PartLine[]; reason: string };

export interface SourceOptions {
  seconds: number;
  /** A clock in ms. */
  now: () => number;
  highs?: Highs;
  /** At most so many parcels. */
  maxOrders?: number;
  /** Only sellers who deliver within so many days. */
  withinDays?: number;
  stopped?: () => boolean;
}

interface Choice {
  seller: number;
  price: number;
  stock: number;
}
interface Problem {
  lines: PartLine[];
  sellers: Seller[];
  /** Offers of each line, cheapest first. */
  choices: Choice[][];
  maxOrders: number;
}

/** Finds the cheapest complete purchase. Lines of any colour take any; of one part and colour there is one line. */
export function source(needs: readonly PartLine[], market: Market, options: SourceOptions): Sourcing {
  const began = options.now();
  const stated = state(needs, market, options);
  if (!stated.ok) return stated;
  const { problem } = stated;
  const past = (seconds: number) => options.now() - began > seconds * 1000 || options.stopped?.() === true;
  const late = () => past(options.seconds);
  // The search has the first part of the time; the bound and the solver the rest.
  const open = new Search(problem).best(() => past(Math.min(1, options.seconds / 5)));
  let bound = relax(problem, open?.total ?? Infinity, late);
  let answer = open;
  const solved = () => answer !== null && answer.total - bound <= 1e-6 * Math.max(1, answer.total);
  if (options.highs && !solved() && !late()) {
    const left = Math.max(0.1, options.seconds - (options.now() - began) / 1000);
    const exact = solveExactly(options.highs, problem, answer, bound, left);
    bound = Math.max(bound, exact.bound);
    if (exact.answer && (!answer || exact.answer.total < answer.total)) answer = exact.answer;
  }
  if (!answer)
    return {
      ok: false,
      uncovered: [],
      reason:
        problem.maxOrders < problem.sellers.length
          ? `No complete purchase was found with at most ${problem.maxOrders} orders.`
          : 'No complete purchase was found that reaches each seller’s least order.',
    };
  return { ok: true, purchase: purchaseOf(problem, answer, Math.min(bound, answer.total)) };
}

function state(
  needs: readonly PartLine[],
  market: Market,
  { maxOrders, withinDays }: SourceOptions,
): { ok: true; problem: Problem } | { ok: false; uncovered: PartLine[]; reason: string } {
  const sellers = market.sellers.filter(
    ({ days }) => withinDays === undefined || (days !== null && days <= withinDays),
  );
  const index = new Map(sellers.map(({ name }, i) => [name, i]));
  const byPart = new Map<string, Offer[]>();
  for (const offer of market.offers)
    if (offer.qty > 0 && index.has(offer.seller))
      byPart.set(offer.part, [...(byPart.get(offer.part) ?? []), offer]);
  const lines = merged(needs);
  const uncovered: PartLine[] = [];
  const choices = lines.map((line) => {
    const of = (byPart.get(line.part) ?? [])
      .filter(({ colour }) => line.colour === ANY_COLOUR || colour === line.colour)
      .map(({ seller, price, qty }) => ({ seller: index.get(seller) ?? 0, price, stock: qty }))
      .toSorted((a, b) => a.price - b.price || a.seller - b.seller);
    const stock = of.reduce((sum, one) => sum + one.stock, 0);
    if (stock < line.qty) uncovered.push({ ...line, qty: line.qty - stock });
    return of;
  });
  if (uncovered.length > 0)
    return { ok: false, uncovered, reason: `${uncovered.length} lines are not covered by any offer.` };
  return { ok: true, problem: { lines, sellers, choices, maxOrders: maxOrders ?? sellers.length } };
}

function merged(needs: readonly PartLine[]): PartLine[] {
  const lines = new Map<string, PartLine>();
  for (const { part, colour, qty } of needs) {
    const key = `${part} ${colour}`;
    const line = lines.get(key);
    if (line) line.qty += qty;
    else if (qty > 0) lines.set(key, { part, colour, qty });
  }
  return [...lines.values()];
}

/** A complete purchase: how many of each line's choices. */
interface Answer {
  taken: number[][];
  total: number;
}

/** Opens and closes sellers one by one while that makes the whole cheaper. */
class Search {
  constructor(private readonly problem: Problem) {}

  /** @param late asked before each start but the first two */
  best(late: () => boolean): Answer | null {
    const { sellers, maxOrders } = this.problem;
    const random = seeded(11);
    let best: Answer | null = null;
    for (let start = 0; start < STARTS; start++) {
      if (start >= 2 && late()) break;
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
    const { lines, sellers, choices, maxOrders } = this.problem;
    const goods = new Float64Array(sellers.length);
    let [total, missing] = [0, 0];
    choices.forEach((of, line) => {
      let left = lines[line].qty;
      for (const { seller, price, stock } of of) {
        if (left === 0) break;
        if (!open[seller]) continue;
        const qty = Math.min(left, stock);
        goods[seller] += qty * price;
        total += qty * price;
        left -= qty;
      }
      missing += left;
    });
    let used = 0;
    let under = 0;
    sellers.forEach(({ shipping, minOrder }, i) => {
      if (goods[i] === 0) return;
      used++;
      total += shipping;
      if (goods[i] < minOrder - 1e-9) under += 1 + minOrder - goods[i];
    });
    return total + HARD * (missing + under + Math.max(0, used - maxOrders) * 10);
  }

  /** The purchase of open sellers, cheapest offers first; null when it is not complete or misses a least order. */
  private fill(open: readonly boolean[]): Answer | null {
    const { lines, choices, sellers } = this.problem;
    const taken = choices.map((of, line) => {
      let left = lines[line].qty;
      return of.map(({ seller, stock }) => {
        const qty = open[seller] ? Math.min(left, stock) : 0;
        left -= qty;
        return qty;
      });
    });
    if (taken.some((of, line) => of.reduce((sum, qty) => sum + qty, 0) < lines[line].qty)) return null;
    const answer = { taken, total: totalOf(this.problem, taken) };
    const goods = goodsOf(this.problem, taken);
    return sellers.some(({ minOrder }, i) => goods[i] > 0 && goods[i] < minOrder - 1e-9) ? null : answer;
  }
}

/** From all sellers, from few, and from chance. */
const STARTS = 12;
/** What a missing piece, or a unit of money under a least order, costs in the search. */
const HARD = 1e5;

function goodsOf({ sellers, choices }: Problem, taken: readonly (readonly number[])[]): number[] {
  const goods = sellers.map(() => 0);
  choices.forEach((of, line) =>
    of.forEach(({ seller, price }, i) => (goods[seller] += taken[line][i] * price)),
  );
  return goods;
}

function usedIn({ sellers, choices }: Problem, { taken }: Answer): boolean[] {
  const used = sellers.map(() => false);
  choices.forEach((of, line) => of.forEach(({ seller }, i) => (used[seller] ||= taken[line][i] > 0)));
  return used;
}

function totalOf(problem: Problem, taken: number[][]): number {
  const used = usedIn(problem, { taken, total: 0 });
  const goods = goodsOf(problem, taken).reduce((sum, one) => sum + one, 0);
  return goods + problem.sellers.reduce((sum, { shipping }, i) => sum + (used[i] ? shipping : 0), 0);
}

/**
 * A lower bound by Lagrangian relaxation: each line has a price of its own that whoever covers it earns; a seller is
 * worth opening when what it earns beats its postage. Least orders bind each seller by itself. Prices are moved by
 * subgradient steps (Held, Wolfe, Crowder 1974).
 */
function relax({ lines, sellers, choices }: Problem, upper: number, late: () => boolean): number {
  const multipliers = Float64Array.from(choices, (of) => of[0]?.price ?? 0);
  let best = 0;
  let kept = multipliers.slice();
  // Offers by seller, so that each is judged by itself.
  const ofSeller: { line: number; price: number; stock: number }[][] = sellers.map(() => []);
  choices.forEach((of, line) =>
    of.forEach(({ seller, price, stock }) =>
      ofSeller[seller].push({ line, price, stock: Math.min(stock, lines[line].qty) }),
    ),
  );
  let pace = 1;
  let still = 0;
  for (let step = 0; step < STEPS && !late(); step++) {
    const gradient = Float64Array.from(lines, ({ qty }) => qty);
    let bound = lines.reduce((sum, { qty }, line) => sum + qty * multipliers[line], 0);
    sellers.forEach(({ shipping, minOrder }, seller) => {
      const offers = ofSeller[seller];
      let value = shipping;
      let goods = 0;
      const taken: { line: number; qty: number }[] = [];
      const rest: { line: number; price: number; stock: number }[] = [];
      for (const offer of offers) {
        if (offer.price < multipliers[offer.line]) {
          value += offer.stock * (offer.price - multipliers[offer.line]);
          goods += offer.stock * offer.price;
          taken.push({ line: offer.line, qty: offer.stock });
        } else rest.push(offer);
      }
      if (goods < minOrder && value < 0) {
        // Up to the least order by what costs least above its price, for each unit of money.
        rest.sort(
          (a, b) => (a.price - multipliers[a.line]) / a.price - (b.price - multipliers[b.line]) / b.price,
        );
        for (const offer of rest) {
          if (goods >= minOrder || offer.price === 0) break;
          const qty = Math.min(offer.stock, (minOrder - goods) / offer.price);
          value += qty * (offer.price - multipliers[offer.line]);
          goods += qty * offer.price;
          taken.push({ line: offer.line, qty });
        }
        // Nothing this seller has reaches its least order.
        if (goods < minOrder - 1e-9) return;
      }
      if (value >= 0) return;
      bound += value;
      for (const { line, qty } of taken) gradient[line] -= qty;
    });
    if (bound > best + 1e-9) {
      best = bound;
      kept = multipliers.slice();
      still = 0;
    } else if (++still >= 15) {
      pace /= 2;
      still = 0;
      multipliers.set(kept);
      if (pace < 1e-4) break;
      continue;
    }
    const length = gradient.reduce((sum, g) => sum + g * g, 0);
    if (length === 0) break;
    const target = Number.isFinite(upper) ? upper : best * 1.2 + 1;
    const stride = (pace * Math.max(1e-6, target - bound)) / length;
    for (let line = 0; line < multipliers.length; line++)
      multipliers[line] = Math.max(choices[line][0]?.price ?? 0, multipliers[line] + stride * gradient[line]);
  }
  return best;
}
const STEPS = 1500;

/**
 * The mixed-integer model: an integer for each offer, a switch for each seller. Sellers whose opening alone would
 * lift the bound over the known answer are left out.
 */
function solveExactly(
  highs: Highs,
  { lines, sellers, choices, maxOrders }: Problem,
  known: Answer | null,
  bound: number,
  seconds: number,
): { answer: Answer | null; bound: number } {
  const cost: number[] = [];
  const upper: number[] = [];
  const starts = [0];
  const indices: number[] = [];
  const values: number[] = [];
  const rowLower: number[] = lines.map(({ qty }) => qty);
  const rowUpper = rowLower.slice();
  const add = (price: number, most: number, entries: readonly (readonly [number, number])[]) => {
    cost.push(price);
    upper.push(most);
    for (const [row, value] of entries) {
      indices.push(row);
      values.push(value);
    }
    starts.push(indices.length);
  };
  // After the lines: a row for each least order, one for the number of orders, then x ≤ stock · y for each offer.
  const minRow = sellers.map(({ minOrder }) => {
    if (minOrder <= 0) return -1;
    rowLower.push(0);
    rowUpper.push(highs.infinity);
    return rowLower.length - 1;
  });
  const countRow = rowLower.length;
  rowLower.push(0);
  rowUpper.push(maxOrders);
  const links: [number, number][][] = sellers.map(() => []);
  choices.forEach((of, line) =>
    of.forEach(({ seller, price, stock }) => {
      const most = Math.min(stock, lines[line].qty);
      const link = rowLower.length;
      rowLower.push(-highs.infinity);
      rowUpper.push(0);
      links[seller].push([link, -most]);
      add(price, most, [
        [line, 1],
        ...(minRow[seller] >= 0 ? [[minRow[seller], price] as const] : []),
        [link, 1],
      ]);
    }),
  );
  const offers = cost.length;
  sellers.forEach(({ shipping, minOrder }, i) =>
    add(shipping, 1, [
      ...(minRow[i] >= 0 ? [[minRow[i], -minOrder] as const] : []),
      [countRow, 1],
      ...links[i],
    ]),
  );
  const numRows = rowLower.length;
  const model = highs.createModel({
    numCols: cost.length,
    numRows,
    colCost: cost,
    colLower: cost.map(() => 0),
    colUpper: upper,
    rowLower,
    rowUpper,
    matrix: {
      format: 'csc',
      numRows,
      numCols: cost.length,
      starts: Int32Array.from(starts),
      indices: Int32Array.from(indices),
      values: Float64Array.from(values),
    },
    integrality: cost.map(() => highs.constants.variableType.integer),
  });
  try {
    model.options.set({ output_flag: false, time_limit: seconds, mip_rel_gap: 1e-7, mip_abs_gap: 1e-6 });
    if (known) {
      const start = new Float64Array(cost.length);
      let column = 0;
      choices.forEach((of, line) => of.forEach((_, i) => (start[column++] = known.taken[line][i])));
      usedIn({ lines, sellers, choices, maxOrders }, known).forEach(
        (on, i) => (start[offers + i] = on ? 1 : 0),
      );
      model.setSolution({ colValue: start });
    }
    model.run();
    const status = model.getModelStatus();
    const { modelStatus } = highs.constants;
    if (status === modelStatus.infeasible) return { answer: null, bound: Infinity };
    const dual = Number(model.info.get('mip_dual_bound'));
    const found = Number(model.info.get('primal_solution_status')) === 2;
    const proven =
      status === modelStatus.optimal ? model.getObjectiveValue() : Number.isFinite(dual) ? dual : bound;
    if (!found) return { answer: null, bound: proven };
    const { colValue } = model.getSolution();
    let column = 0;
    const taken = choices.map((of) => of.map(() => Math.round(colValue[column++])));
    return {
      answer: { taken, total: totalOf({ lines, sellers, choices, maxOrders }, taken) },
      bound: proven,
    };
  } finally {
    model.dispose();
  }
}

function purchaseOf(problem: Problem, answer: Answer, bound: number): Purchase {
  const { lines, sellers, choices } = problem;
  const bought: Bought[] = [];
  choices.forEach((of, line) =>
    of.forEach(({ seller, price }, i) => {
      const qty = answer.taken[line][i];
      if (qty > 0) bought.push({ ...lines[line], qty, price, seller: sellers[seller].name });
    }),
  );
  const goods = goodsOf(problem, answer.taken);
  const used = usedIn(problem, answer);
  const parcels = sellers.flatMap((seller, i) =>
    used[i]
      ? [
          {
            seller,
            goods: goods[i],
            pieces: bought.reduce((sum, line) => sum + (line.seller === seller.name ? line.qty : 0), 0),
          },
        ]
      : [],
  );
  const postage = parcels.reduce((sum, { seller }) => sum + seller.shipping, 0);
  const days = parcels.map(({ seller }) => seller.days);
  return {
    lines: bought.toSorted((a, b) => (a.seller < b.seller ? -1 : a.seller > b.seller ? 1 : 0)),
    sellers: parcels,
    goods: goods.reduce((sum, one) => sum + one, 0),
    postage,
    total: answer.total,
    bound,
    gap: answer.total > 0 ? Math.max(0, (answer.total - bound) / answer.total) : 0,
    days: days.every((one) => one !== null) ? Math.max(0, ...days.map((one) => one ?? 0)) : null,
  };
}

/** The purchase with the fewest parcels, and the cheapest of those: fewer and fewer until none is found. */
export function fewestParcels(needs: readonly PartLine[], market: Market, options: SourceOptions): Sourcing {
  const share = options.seconds / 4;
  let best = source(needs, market, { ...options, seconds: share });
  for (let tries = 0; best.ok && tries < 12 && !options.stopped?.(); tries++) {
    const fewer: Sourcing = source(needs, market, {
      ...options,
      seconds: share,
      maxOrders: best.purchase.sellers.length - 1,
    });
    if (!fewer.ok || best.purchase.sellers.length === 1) break;
    best = fewer;
  }
  return best;
}

/** The soonest complete purchase, and the cheapest of those: the shortest delivery that still covers everything. */
export function soonest(needs: readonly PartLine[], market: Market, options: SourceOptions): Sourcing {
  const days = [...new Set(market.sellers.flatMap(({ days: d }) => (d === null ? [] : [d])))].toSorted(
    (a, b) => a - b,
  );
  let last: Sourcing = { ok: false, uncovered: [], reason: 'No seller says how long a parcel takes.' };
  for (const withinDays of days) {
    last = source(needs, market, { ...options, seconds: options.seconds / 2, withinDays });
    if (last.ok) return last;
  }
  return last;
}
