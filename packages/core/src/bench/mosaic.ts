import { convertLrgbToOklab, convertRgbToLrgb, converter } from 'culori';
import { colourOf } from '../catalogue/index.ts';

// A picture in studs: a piece of one colour on each stud.

/** A picture of one pixel a stud: sRGB with alpha, row by row from the north. */
export interface StudPicture {
  w: number;
  d: number;
  rgba: Uint8ClampedArray;
}

export interface MosaicOptions {
  /** Ids of palette colours, at least 1 and at most 200. */
  colours: readonly string[];
  /** What a piece is off by goes to its neighbours (error diffusion); else each stud gets the nearest colour. */
  diffuse: boolean;
  /** Pieces that there are of each colour; absent: as many as wanted. */
  stock?: ReadonlyMap<string, number>;
}

export interface Mosaic {
  w: number;
  d: number;
  colours: readonly string[];
  /** Index into `colours` of each stud; NO_PIECE where the picture is clear. */
  cells: Uint8Array;
  /** Pieces by colour, the most first. */
  counts: { colour: string; qty: number }[];
}

/** A stud without a piece. */
export const NO_PIECE = 255;

const toLinear = converter('lrgb');
/** A pixel below this alpha has no piece. */
const CLEAR_BELOW = 128;
/** Passes in which the prices of scarce colours are found. */
const PASSES = 40;
/** Squared Oklab distance: about that of two neighbouring greys. */
const FIRST_STEP = 0.005;

interface Tone {
  r: number;
  g: number;
  b: number;
}

/**
 * Lays a picture in pieces: in linear light each stud gets the nearest colour (squared distance in Oklab, Ottosson 2020),
 * with what is off passed on by 7, 3, 5 and 1 sixteenths (Floyd and Steinberg 1976), rows to and fro. Where stock is
 * limited, scarce colours get a price that rises until they suffice, so that the whole picture gives way alike.
 * Its cost grows with studs × colours, forty times that where stock is limited.
 * @throws RangeError for a colour that the palette does not have
 */
export function mosaicOf(
  picture: StudPicture,
  { colours, diffuse, stock }: MosaicOptions,
): { ok: true; mosaic: Mosaic } | { ok: false; error: string } {
  const tones = colours.map((id): Tone => {
    const hex = colourOf(id)?.hex;
    const tone = hex === undefined ? undefined : toLinear(hex);
    if (!tone) throw new RangeError(`“${id}” is no colour of the palette`);
    return { r: tone.r, g: tone.g, b: tone.b };
  });
  const wanted = linearOf(picture);
  const pieces = wanted.clear.reduce((sum, clear) => sum + 1 - clear, 0);
  const most = colours.map((id) => (stock ? (stock.get(id) ?? 0) : Infinity));
  const there = most.reduce((sum, qty) => sum + qty, 0);
  if (there < pieces)
    return {
      ok: false,
      error: `The picture takes ${pieces.toLocaleString('en')} pieces; in stock are ${there.toLocaleString('en')} of these colours.`,
    };
  const cells = fairly(most, (prices, caps) => layCells(picture, wanted, { tones, diffuse, prices, caps }));
  const used = usedOf(cells, colours.length);
  const counts = colours
    .map((colour, i) => ({ colour, qty: used[i] }))
    .filter(({ qty }) => qty > 0)
    .toSorted((a, b) => b.qty - a.qty);
  return { ok: true, mosaic: { w: picture.w, d: picture.d, colours, cells, counts } };
}

/**
 * Lays a picture so that no colour is taken more often than it may: each scarce colour has a price, whose steps grow
 * while it stays too low or too high and halve when it turns (resilient steps; Riedmiller and Braun 1993). The prices with
 * which the least is amiss are laid once more with the limits held.
 */
function fairly(
  most: readonly number[],
  lay: (prices: Float64Array, caps: readonly number[]) => Uint8Array,
): Uint8Array {
  const prices = new Float64Array(most.length);
  const free = most.map(() => Infinity);
  const steps = new Float64Array(most.length).fill(FIRST_STEP);
  const turns = new Int8Array(most.length);
  let best = { amiss: Infinity, prices: prices.slice() };
  for (let pass = 0; pass < PASSES && best.amiss > 0; pass++) {
    const over = usedOf(lay(prices, free), most.length).map((qty, i) => qty - most[i]);
    // Amiss is what lacks, and what is left of a colour that has a price.
    const amiss = over.reduce((sum, each, i) => sum + (each > 0 ? each : prices[i] > 0 ? -each : 0), 0);
    if (amiss < best.amiss) best = { amiss, prices: prices.slice() };
    over.forEach((each, i) => {
      const turn = Math.sign(each);
      if (turns[i] !== 0) steps[i] *= turn === turns[i] ? 1.4 : 0.5;
      turns[i] = turn;
      prices[i] = Math.max(0, prices[i] + turn * steps[i]);
    });
  }
  return lay(best.prices, most);
}

function usedOf(cells: Uint8Array, colours: number): number[] {
  const used = new Array<number>(colours).fill(0);
  for (const cell of cells) if (cell !== NO_PIECE) used[cell]++;
  return used;
}

/** Light of each pixel, linear (IEC 61966-2-1), red, green and blue in turn; and where the picture is clear. */
function linearOf({ w, d, rgba }: StudPicture): { light: Float64Array; clear: Uint8Array } {
  const light = new Float64Array(3 * w * d);
  const clear = new Uint8Array(w * d);
  const linear = Float64Array.from({ length: 256 }, (_, i) => {
    const value = i / 255;
    return convertRgbToLrgb({ r: value, g: value, b: value }).r;
  });
  for (let i = 0; i < w * d; i++) {
    for (let c = 0; c < 3; c++) light[3 * i + c] = linear[rgba[4 * i + c]];
    clear[i] = rgba[4 * i + 3] < CLEAR_BELOW ? 1 : 0;
  }
  return { light, clear };
}

/** One pass over the picture. @param caps no colour is taken more often */
function layCells(
  { w, d }: StudPicture,
  { light, clear }: { light: Float64Array; clear: Uint8Array },
  {
    tones,
    diffuse,
    prices,
    caps,
  }: { tones: readonly Tone[]; diffuse: boolean; prices: Float64Array; caps: readonly number[] },
): Uint8Array {
  const labs = tones.map((tone) => convertLrgbToOklab(tone));
  const left = [...caps];
  const value = light.slice();
  const cells = new Uint8Array(w * d).fill(NO_PIECE);
  for (let y = 0; y < d; y++) {
    const step = y % 2 === 0 ? 1 : -1;
    for (let x = step > 0 ? 0 : w - 1; x >= 0 && x < w; x += step) {
      const i = y * w + x;
      if (clear[i]) continue;
      const [r, g, b] = [0, 1, 2].map((c) => Math.min(1, Math.max(0, value[3 * i + c])));
      const { l, a, b: yellow } = convertLrgbToOklab({ r, g, b });
      let best = -1;
      let least = Infinity;
      for (let k = 0; k < labs.length; k++) {
        if (left[k] <= 0) continue;
        const lab = labs[k];
        const cost = (l - lab.l) ** 2 + (a - lab.a) ** 2 + (yellow - lab.b) ** 2 + prices[k];
        if (cost < least) [least, best] = [cost, k];
      }
      if (best < 0) continue;
      cells[i] = best;
      left[best]--;
      if (!diffuse) continue;
      const tone = [tones[best].r, tones[best].g, tones[best].b];
      for (let c = 0; c < 3; c++) {
        // What no colour of the palette reaches is not carried on and on.
        const off = Math.min(1, Math.max(-1, value[3 * i + c] - tone[c]));
        const pass = (dx: number, dy: number, share: number) => {
          const [column, row] = [x + dx * step, y + dy];
          if (column >= 0 && column < w && row < d) value[3 * (row * w + column) + c] += off * share;
        };
        pass(1, 0, 7 / 16);
        pass(-1, 1, 3 / 16);
        pass(0, 1, 5 / 16);
        pass(1, 1, 1 / 16);
      }
    }
  }
  return cells;
}

/** Studs of one colour beside each other in a row: what is read out while it is built. Rows and columns from 1. */
export interface MosaicRun {
  row: number;
  column: number;
  count: number;
  colour: string;
}

/** A picture row by row from the north. */
export function mosaicRuns({ w, d, cells, colours }: Mosaic): MosaicRun[] {
  const runs: MosaicRun[] = [];
  for (let y = 0; y < d; y++)
    for (let x = 0; x < w;) {
      const cell = cells[y * w + x];
      let end = x + 1;
      while (end < w && cells[y * w + end] === cell) end++;
      if (cell !== NO_PIECE) runs.push({ row: y + 1, column: x + 1, count: end - x, colour: colours[cell] });
      x = end;
    }
  return runs;
}
