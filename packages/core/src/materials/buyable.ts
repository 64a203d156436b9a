import { ANY_COLOUR, nearColours } from '../catalogue/index.ts';
import { mergeLines, type Order, type PartLine } from '../document/index.ts';
import type { Market } from './buyProblem.ts';
import type { Netted } from './net.ts';

// What of that which is short can be bought, and where.

/**
 * Of each need the pieces that are short, may be bought, and stand on no draft order yet. What is bound to kits or own
 * stock is never bought. Lines of a draft for a section go to its needs, those for none to any; needs of one colour come
 * before needs of any.
 * @returns by the id of the need; needs of which nothing is to be ordered are left out
 */
export function toOrder(
  rows: readonly Netted[],
  orders: readonly Pick<Order, 'state' | 'lines'>[],
): ReadonlyMap<string, number> {
  const drafted = new Map<string, number>();
  const keyOf = (part: string, colour: string, section: string | null) =>
    `${part} ${colour} ${section ?? ''}`;
  for (const { state, lines } of orders)
    for (const { part, colour, qty, section } of state === 'draft' ? lines : []) {
      const key = keyOf(part, colour, section);
      drafted.set(key, (drafted.get(key) ?? 0) + qty);
    }
  const wanted = rows.filter(({ demand, short }) => short > 0 && demand.source === null);
  const left = new Map(wanted.map(({ demand, short }) => [demand.id, short]));
  const take = (id: string, key: string) => {
    const [need, there] = [left.get(id) ?? 0, drafted.get(key) ?? 0];
    const taken = Math.min(need, there);
    left.set(id, need - taken);
    drafted.set(key, there - taken);
  };
  for (const from of ['own', 'any'] as const)
    for (const { demand } of wanted)
      take(demand.id, keyOf(demand.part, demand.colour, from === 'own' ? demand.section : null));
  for (const { demand } of wanted.filter(({ demand: { colour } }) => colour === ANY_COLOUR))
    for (const section of [demand.section, null])
      for (const key of drafted.keys()) {
        const [part = '', , of = ''] = key.split(' ');
        if (part === demand.part && of === (section ?? '')) take(demand.id, key);
      }
  return new Map([...left].filter(([, qty]) => qty > 0));
}

/**
 * What is to be ordered, each part and colour once.
 * @param section of one section only; '-' what belongs to none; '' of all
 */
export function linesToOrder(
  rows: readonly Netted[],
  orders: readonly Pick<Order, 'state' | 'lines'>[],
  section: string,
): PartLine[] {
  const open = toOrder(rows, orders);
  return mergeLines(
    rows.flatMap(({ demand: { id, part, colour, section: of } }) => {
      const qty = open.get(id);
      return qty !== undefined && (section === '' || (of ?? '-') === section) ? [{ part, colour, qty }] : [];
    }),
  );
}

const nearest = (colour: string) => (colour === ANY_COLOUR ? null : (nearColours(colour, 1)[0] ?? null));

/** The lines and their nearest colours, so that a market can be asked for both. */
export function withNearColours(lines: readonly PartLine[]): PartLine[] {
  return lines.flatMap((line) => {
    const near = nearest(line.colour);
    return near ? [line, { ...line, colour: near.colour.id }] : [line];
  });
}

/** What of some lines a market sells. */
export interface Buyable {
  /** What can be bought in full, each part and colour once. */
  lines: PartLine[];
  /** What nobody offers, with how many of it. */
  missing: PartLine[];
  /** Lines of which some come in the nearest colour, and how far it is off (CIEDE2000). */
  swapped: { line: PartLine; off: number }[];
}

/**
 * What of the lines a market can sell in full: in the right colour, then, where accepted, in the nearest; lines of any
 * colour from what those leave. No piece of an offer is taken twice, so that all of it can be bought at once.
 * @param nearer whether the nearest colour is accepted
 */
export function buyable(lines: readonly PartLine[], market: Market, nearer: boolean): Buyable {
  const stock = new Map<string, number>();
  for (const { part, colour, qty } of market.offers)
    for (const key of [`${part} ${colour}`, `${part} ${ANY_COLOUR}`])
      stock.set(key, (stock.get(key) ?? 0) + qty);
  const bought: PartLine[] = [];
  const left = lines.map(({ qty }) => qty);
  /** Takes as much of a line as there is, in one colour or in any. @returns how much */
  const take = (i: number, colour: string): number => {
    const { part } = lines[i];
    const fits = Math.min(left[i], stock.get(`${part} ${colour}`) ?? 0);
    if (fits <= 0) return 0;
    for (const one of new Set([colour, ANY_COLOUR]))
      stock.set(`${part} ${one}`, (stock.get(`${part} ${one}`) ?? 0) - fits);
    left[i] -= fits;
    bought.push({ part, colour, qty: fits });
    return fits;
  };
  const swapped: Buyable['swapped'] = [];
  const of = (any: boolean) => lines.flatMap(({ colour }, i) => ((colour === ANY_COLOUR) === any ? [i] : []));
  for (const i of of(false)) take(i, lines[i].colour);
  for (const i of nearer ? of(false) : []) {
    const near = left[i] > 0 ? nearest(lines[i].colour) : null;
    if (near && take(i, near.colour.id) > 0) swapped.push({ line: lines[i], off: near.deltaE });
  }
  for (const i of of(true)) take(i, ANY_COLOUR);
  return {
    lines: mergeLines(bought),
    missing: lines.flatMap((line, i) => (left[i] > 0 ? [{ ...line, qty: left[i] }] : [])),
    swapped,
  };
}
