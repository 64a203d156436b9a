import { gramsOfPart, partOf, priceGuess, type Family } from '../catalogue/index.ts';
import { METHODS, type PartType } from '../document/index.ts';
import { METHOD_SPECS } from './method.ts';
import { coloursOf, accentsOf, type Accent, type AccentTally, type Dress } from './dress.ts';
import { pieceId, type Fill, type LayerPlan, type Purpose } from './fill.ts';
import type { Masonry } from './layers.ts';

// What a masonry needs and weighs.

/** Measured data of parts, by id; the catalogue's own figures otherwise. */
export type Knowledge = Readonly<Record<string, Pick<PartType, 'grams' | 'price' | 'family'>>>;

/** What pieces cost together, by the price of each. */
export const priceOfLines = (
  lines: readonly { part: string; qty: number }[],
  known: Knowledge = {},
): number => lines.reduce((sum, { part, qty }) => sum + qty * priceOfPart(part, known).price, 0);

/** The price of one piece: as known, else a guess. */
export function priceOfPart(id: string, known: Knowledge = {}): { price: number; guess: boolean } {
  const own = Object.hasOwn(known, id) ? known[id].price : null;
  if (own !== null) return { price: own, guess: false };
  const part = partOf(id);
  return { price: part ? priceGuess(part) : 0.1, guess: true };
}

export const familyOfPart = (id: string, known: Knowledge = {}): Family =>
  (Object.hasOwn(known, id) ? known[id].family : null) ?? partOf(id)?.family ?? 'special';

/** So many of a part in a colour for a purpose, in the group its stud belongs to (a section, by number). */
export interface CountLine {
  group: number;
  part: string;
  colour: string;
  purpose: Purpose | 'accent';
  qty: number;
}

/** A masonry counted. */
export interface Counted {
  lines: CountLine[];
  pieces: number;
  grams: number;
  /** Centre of mass, studs from the ground's corner and plates above its floor. */
  centre: { x: number; y: number; z: number };
  /** Money at known prices, guesses where none is known. */
  money: number;
  /** At the rates of the methods. */
  hours: number;
  /** Between what is built and what was asked, plates. */
  error: { mean: number; most: number };
  tally: AccentTally[];
}

/** Each piece's colour with the masonry, and what is scattered on it. */
export interface DressedMasonry {
  masonry: Masonry;
  colours: string[][];
  accents: Accent[];
  tally: AccentTally[];
}

/** Gives pieces their colours and lays the accents. */
export function dressMasonry(fill: Fill, masonry: Masonry, dressAt: (i: number) => Dress): DressedMasonry {
  const colours = coloursOf(fill, masonry.layers, dressAt);
  const regions = new Map<Dress, number[]>();
  // Nothing is laid on slopes, nor where no cover is.
  masonry.layers.forEach(({ purpose, laid }) => {
    if (purpose !== 'cover') return;
    for (let p = 0; p < laid.length; p += 4)
      for (let y = laid[p + 1]; y < laid[p + 1] + laid[p + 3]; y++)
        for (let x = laid[p]; x < laid[p] + laid[p + 2]; x++) {
          const dress = dressAt(y * fill.w + x);
          if (dress.accents.length === 0) continue;
          const list = regions.get(dress) ?? [];
          list.push(y * fill.w + x);
          regions.set(dress, list);
        }
  });
  const accents: Accent[] = [];
  const tally: AccentTally[] = [];
  for (const [dress, studs] of regions) {
    const laid = accentsOf(
      dress,
      studs.toSorted((a, b) => a - b),
      fill.w,
      (i) => masonry.built[i],
    );
    accents.push(...laid.accents);
    tally.push(...laid.tally);
  }
  return { masonry, colours, accents, tally };
}

/**
 * Counts pieces by group, part, colour and purpose, and weighs them.
 * @param groupAt the group of each stud; a piece belongs to the group of its north-west stud
 * @param weigh receives the grams of each piece with its place: spread evenly over its studs
 */
export function countMasonry(
  fill: Fill,
  { masonry, colours, accents, tally }: DressedMasonry,
  groupAt: (i: number) => number,
  known: Knowledge = {},
  weigh: (x: number, y: number, w: number, d: number, grams: number, z: number) => void = () => undefined,
): Counted {
  const lines = new Map<string, CountLine>();
  let [pieces, grams, mx, my, mz, money, hours] = [0, 0, 0, 0, 0, 0, 0];
  const take = (
    piece: { x: number; y: number; w: number; d: number; z: number; h: number },
    part: string,
    colour: string,
    purpose: CountLine['purpose'],
    rate: number,
  ) => {
    const group = groupAt(piece.y * fill.w + piece.x);
    const key = `${group} ${part} ${colour} ${purpose}`;
    const line = lines.get(key);
    if (line) line.qty++;
    else lines.set(key, { group, part, colour, purpose, qty: 1 });
    const mass = gramsOfPart(part, known);
    pieces++;
    grams += mass;
    mx += mass * (piece.x + piece.w / 2);
    my += mass * (piece.y + piece.d / 2);
    mz += mass * (piece.z + piece.h / 2);
    money += priceOfPart(part, known).price;
    hours += 1 / rate;
    weigh(piece.x, piece.y, piece.w, piece.d, mass, piece.z + piece.h / 2);
  };
  masonry.layers.forEach((layer, index) => {
    const { laid, z, h, purpose } = layer;
    for (let p = 0; p < laid.length; p += 4) {
      const [x, y, w, d] = laid.subarray(p, p + 4);
      const { rate } = METHOD_SPECS[METHODS[fill.method[y * fill.w + x]]];
      take({ x, y, w, d, z, h }, pieceId(layer, w, d), colours[index][p / 4], purpose, rate);
    }
  });
  for (const { part, colour, x, y, z } of accents) {
    const size = partOf(part) ?? { w: 1, d: 1, h: 1 };
    take({ x, y, w: size.w, d: size.d, z, h: size.h }, part, colour, 'accent', ACCENT_RATE);
  }
  let [sum, most, studs] = [0, 0, 0];
  for (let i = 0; i < fill.height.length; i++)
    if (fill.height[i] >= 0) {
      const off = Math.abs(fill.height[i] - masonry.built[i]);
      sum += off;
      most = Math.max(most, off);
      studs++;
    }
  const centre = grams > 0 ? { x: mx / grams, y: my / grams, z: mz / grams } : { x: 0, y: 0, z: 0 };
  return {
    lines: [...lines.values()],
    ...{ pieces, grams, centre, money, hours, tally },
    error: { mean: studs > 0 ? sum / studs : 0, most },
  };
}

/** Pieces scattered by hand in an hour (a default of ours). */
const ACCENT_RATE = 240;

/** A layer's pieces as counts, for its build sheet: by part and colour, most first. */
export function layerCounts(
  layer: LayerPlan,
  colours: readonly string[],
): { part: string; colour: string; qty: number }[] {
  const counts = new Map<string, { part: string; colour: string; qty: number }>();
  for (let p = 0; p < layer.laid.length; p += 4) {
    const part = pieceId(layer, layer.laid[p + 2], layer.laid[p + 3]);
    const colour = colours[p / 4];
    const key = `${part} ${colour}`;
    const count = counts.get(key) ?? { part, colour, qty: 0 };
    count.qty++;
    counts.set(key, count);
  }
  return [...counts.values()].toSorted((a, b) => b.qty - a.qty || (a.part < b.part ? -1 : 1));
}
