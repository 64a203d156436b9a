import {
  ANY_COLOUR,
  CATALOGUE,
  colourOf,
  isListed,
  nearColours,
  partId,
  partOf,
} from '../catalogue/index.ts';
import { priceOfLines, priceOfPart, type Knowledge } from '../masonry/index.ts';
import type { PartLine } from '../document/index.ts';

// What may stand in for a part: the same size in a near colour, or smaller pieces that make the size.

export interface Substitution {
  /** What makes one of it. */
  use: PartLine[];
  /** How far the colour is off (CIEDE2000); 0: the same. */
  off: number;
  /** How many more pieces, and so joints, there are for each one. */
  more: number;
  /** Money more (or less) for each one, at known prices or guesses. */
  dearer: number;
  /** How many of it the stock that is at hand would make. */
  makes: number;
}

/** Colours further off than this are no alternative. */
const FARTHEST = 18;
/** Families whose pieces may be made up of smaller ones. */
const DIVISIBLE = ['brick', 'plate', 'tile'];

/**
 * @param stock pieces that are there and not needed, by `part colour`
 * @returns the ones that look most alike and take the fewest pieces first
 */
export function substitutionsFor(
  part: string,
  colour: string,
  stock: ReadonlyMap<string, number> = new Map(),
  known: Knowledge = {},
): Substitution[] {
  const price = priceOfPart(part, known).price;
  const judge = (use: PartLine[], off: number): Substitution => ({
    ...{ use, off },
    more: use.reduce((sum, { qty }) => sum + qty, 0) - 1,
    dearer: priceOfLines(use, known) - price,
    makes: Math.min(
      ...use.map((line) =>
        Math.floor((stock.get(`${line.part} ${line.colour}`) ?? 0) / Math.max(1, line.qty)),
      ),
    ),
  });
  const finish = colourOf(colour)?.finish;
  const colours = [
    { id: colour, off: 0 },
    ...(colour === ANY_COLOUR ? [] : nearColours(colour, 4, finish))
      .filter(({ deltaE }) => deltaE <= FARTHEST)
      .map(({ colour: near, deltaE }) => ({ id: near.id, off: deltaE })),
  ];
  const found: Substitution[] = [];
  for (const { id, off } of colours) {
    if (id !== colour) found.push(judge([{ part, colour: id, qty: 1 }], off));
    for (const split of splitsOf(part)) found.push(judge([{ ...split, colour: id }], off));
  }
  return found.toSorted((a, b) => a.off - b.off || a.more - b.more || b.makes - a.makes);
}

/** Equal smaller pieces that make a part side by side, and three plates for a brick. */
export function splitsOf(id: string): { part: string; qty: number }[] {
  const part = partOf(id);
  if (!part || !DIVISIBLE.includes(part.family)) return [];
  const splits: { part: string; qty: number }[] = [];
  for (const piece of CATALOGUE) {
    if (piece.family !== part.family || piece.h !== part.h || piece.angle !== undefined || piece.id === id)
      continue;
    const fits = [
      [piece.w, piece.d],
      [piece.d, piece.w],
    ].some(([w, d]) => part.w % w === 0 && part.d % d === 0);
    const qty = (part.w * part.d) / (piece.w * piece.d);
    if (fits && qty >= 2 && qty <= 8) splits.push({ part: piece.id, qty });
  }
  if (part.family === 'brick' && part.h === 3) {
    const plate = partId('plate', part.w, part.d);
    if (isListed(plate)) splits.push({ part: plate, qty: 3 });
  }
  return splits.toSorted((a, b) => a.qty - b.qty).slice(0, 4);
}
