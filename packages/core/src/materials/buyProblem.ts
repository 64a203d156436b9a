import type { PartLine } from '../document/index.ts';

// The problem of buying: what is offered, what may be chosen, and what a choice costs.

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
  /** Days from order to door; null: unknown. */
  days: number | null;
}
export interface Market {
  sellers: Seller[];
  offers: Offer[];
}

/** An offer as one line may use it, the seller and the offer by number: other lines may use the same offer. */
interface Choice {
  seller: number;
  offer: number;
  colour: string;
  price: number;
  stock: number;
}
export interface BuyProblem {
  lines: PartLine[];
  sellers: Seller[];
  /** Offers of each line, cheapest first. Lines of any colour come after those of one. */
  choices: Choice[][];
  /** Pieces in stock of each offer, whatever lines it serves. */
  stocks: number[];
  maxOrders: number;
}

/** A complete purchase: how many of each line's choices. */
export interface BuyAnswer {
  taken: number[][];
  total: number;
}

export function goodsOf({ sellers, choices }: BuyProblem, taken: readonly (readonly number[])[]): number[] {
  const goods = sellers.map(() => 0);
  choices.forEach((of, line) =>
    of.forEach(({ seller, price }, i) => (goods[seller] += taken[line][i] * price)),
  );
  return goods;
}

export function usedIn({ sellers, choices }: BuyProblem, { taken }: BuyAnswer): boolean[] {
  const used = sellers.map(() => false);
  choices.forEach((of, line) => of.forEach(({ seller }, i) => (used[seller] ||= taken[line][i] > 0)));
  return used;
}

export function totalOf(problem: BuyProblem, taken: number[][]): number {
  const used = usedIn(problem, { taken, total: 0 });
  const goods = goodsOf(problem, taken).reduce((sum, one) => sum + one, 0);
  return goods + problem.sellers.reduce((sum, { shipping }, i) => sum + (used[i] ? shipping : 0), 0);
}
