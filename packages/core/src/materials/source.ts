import { countOf } from '../grid/index.ts';
import type { Highs } from 'highs';
import { ANY_COLOUR } from '../catalogue/index.ts';
import { mergeLines, type PartLine } from '../document/index.ts';
import { relax } from './buyBound.ts';
import { solveExactly } from './buyExact.ts';
import {
  goodsOf,
  usedIn,
  type BuyAnswer,
  type Market,
  type Offer,
  type BuyProblem,
  type Seller,
} from './buyProblem.ts';
import { BuySearch } from './buySearch.ts';

// Where to buy: the cheapest complete purchase over sellers with stock, prices, postage and least orders.
//
// Exactly what is needed is bought, no surplus. Cost = Σ price × quantity + postage of each seller used; each order
// reaches its seller's least order in goods. A first answer comes from opening and closing sellers one by one, a
// bound from Lagrangian relaxation of the needs (any prices for the lines give one), and HiGHS closes the rest.

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
}

/**
 * Finds the cheapest complete purchase. Lines of any colour take any, from what lines of one colour leave: no piece is
 * bought twice. The lines bought name the colour that the seller has.
 */
export function source(needs: readonly PartLine[], market: Market, options: SourceOptions): Sourcing {
  const began = options.now();
  const stated = state(needs, market, options);
  if (!stated.ok) return stated;
  const { problem } = stated;
  const past = (seconds: number) => options.now() - began > seconds * 1000;
  const late = () => past(options.seconds);
  // The search has the first part of the time; the bound and the solver the rest.
  const open = new BuySearch(problem).best(() => past(Math.min(1, options.seconds / 5)));
  let bound = relax(problem, open?.total ?? Infinity, late);
  let answer = open;
  let proven = false;
  const solved = () => answer !== null && answer.total - bound <= 1e-6 * Math.max(1, answer.total);
  if (options.highs && !solved() && !late()) {
    const left = Math.max(0.1, options.seconds - (options.now() - began) / 1000);
    const exact = solveExactly(options.highs, problem, answer, bound, left);
    bound = Math.max(bound, exact.bound);
    proven = exact.answer === null && exact.bound === Infinity;
    if (exact.answer && (!answer || exact.answer.total < answer.total)) answer = exact.answer;
  }
  if (!answer && proven)
    return {
      ok: false,
      uncovered: [],
      reason: `No complete purchase exists ${limits(problem)}: that is proven.`,
    };
  if (!answer)
    return {
      ok: false,
      uncovered: [],
      reason: `No complete purchase was found ${limits(problem)} in ${options.seconds} s; that none exists is not proven.`,
    };
  return { ok: true, purchase: purchaseOf(problem, answer, Math.min(bound, answer.total)) };
}

/** What a purchase must keep to, in words. */
const limits = ({ maxOrders, sellers }: BuyProblem) =>
  maxOrders < sellers.length
    ? `with at most ${maxOrders} ${maxOrders === 1 ? 'order' : 'orders'} that reach each seller’s least order`
    : 'that reaches each seller’s least order';

function state(
  needs: readonly PartLine[],
  market: Market,
  { maxOrders, withinDays }: SourceOptions,
): { ok: true; problem: BuyProblem } | { ok: false; uncovered: PartLine[]; reason: string } {
  const sellers = market.sellers.filter(
    ({ days }) => withinDays === undefined || (days !== null && days <= withinDays),
  );
  const index = new Map(sellers.map(({ name }, i) => [name, i]));
  const offers = market.offers.filter(({ qty, seller }) => qty > 0 && index.has(seller));
  const byPart = new Map<string, { offer: Offer; number: number }[]>();
  offers.forEach((offer, number) =>
    byPart.set(offer.part, [...(byPart.get(offer.part) ?? []), { offer, number }]),
  );
  // Lines of any colour take what those of one leave.
  const lines = mergeLines(needs.filter(({ qty }) => qty > 0)).toSorted(
    (a, b) => Number(a.colour === ANY_COLOUR) - Number(b.colour === ANY_COLOUR),
  );
  const uncovered: PartLine[] = [];
  const spoken = new Map<string, number>();
  const choices = lines.map((line) => {
    const of = (byPart.get(line.part) ?? [])
      .filter(({ offer }) => line.colour === ANY_COLOUR || offer.colour === line.colour)
      .map(({ offer, number }) => ({
        ...{ seller: index.get(offer.seller) ?? 0, offer: number, colour: offer.colour },
        ...{ price: offer.price, stock: offer.qty },
      }))
      .toSorted((a, b) => a.price - b.price || a.seller - b.seller);
    const stock = of.reduce((sum, one) => sum + one.stock, 0);
    const taken = line.colour === ANY_COLOUR ? (spoken.get(line.part) ?? 0) : 0;
    const has = Math.min(line.qty, Math.max(0, stock - taken));
    if (has < line.qty) uncovered.push({ ...line, qty: line.qty - has });
    spoken.set(line.part, (spoken.get(line.part) ?? 0) + has);
    return of;
  });
  if (uncovered.length > 0)
    return { ok: false, uncovered, reason: `No offer covers ${countOf(uncovered.length, 'line')} in full.` };
  const stocks = offers.map(({ qty }) => qty);
  return { ok: true, problem: { lines, sellers, choices, stocks, maxOrders: maxOrders ?? sellers.length } };
}

function purchaseOf(problem: BuyProblem, answer: BuyAnswer, bound: number): Purchase {
  const { lines, sellers, choices } = problem;
  const bought: Bought[] = [];
  choices.forEach((of, line) =>
    of.forEach(({ seller, price, colour }, i) => {
      const qty = answer.taken[line][i];
      if (qty === 0) return;
      const { part } = lines[line];
      const name = sellers[seller].name;
      // What two lines take of one offer is one line of the order, in the colour that the seller has.
      const same = bought.find(
        (one) => one.seller === name && one.part === part && one.colour === colour && one.price === price,
      );
      if (same) same.qty += qty;
      else bought.push({ part, colour, qty, price, seller: name });
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
  for (let tries = 0; best.ok && tries < 12; tries++) {
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
