import { ANY_COLOUR, nearColours } from '../catalogue/index.ts';
import { mergeLines, type PartLine } from '../document/index.ts';
import type { Market } from './buyProblem.ts';
import type { Netted } from './net.ts';

// What of that which is short can be bought, and where.

/**
 * What is short and may be bought, each part and colour once: what is bound to kits or own stock never is.
 * @param section of one section only; '-' what belongs to none; '' of all
 */
export function shortLines(rows: readonly Netted[], section: string): PartLine[] {
  return mergeLines(
    rows.flatMap(({ demand: { part, colour, section: of, source }, short }) =>
      short > 0 && source === null && (section === '' || (of ?? '-') === section)
        ? [{ part, colour, qty: short }]
        : [],
    ),
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
