import { markOf } from '../masonry/index.ts';
import { NO_PIECE, type Mosaic } from './mosaic.ts';

// A picture in studs parted into modules: a sheet of each to build it by.

/** One module of a picture. */
export interface MosaicSheet {
  /** Row by letter, column by number: “B3” is the third of the second row. */
  id: string;
  /** Studs of the picture. */
  x: number;
  y: number;
  w: number;
  d: number;
  /** Pieces by colour, the most first, with the letter each colour has on all sheets. */
  counts: { mark: string; colour: string; qty: number }[];
}

/** The letter of each colour of a picture: by the pieces of the whole, the most first. */
export const mosaicMarks = ({ counts }: Pick<Mosaic, 'counts'>): ReadonlyMap<string, string> =>
  new Map(counts.map(({ colour }, i) => [colour, markOf(i)]));

/**
 * The modules of a picture from the north-west, row by row; those at the east and south may be smaller.
 * @param side studs, whole, from 1
 */
export function mosaicSheets(mosaic: Mosaic, side: number): MosaicSheet[] {
  const { w, d, cells, colours } = mosaic;
  const marks = mosaicMarks(mosaic);
  const sheets: MosaicSheet[] = [];
  for (let row = 0; row * side < d; row++)
    for (let column = 0; column * side < w; column++) {
      const [x, y] = [column * side, row * side];
      const own = { x, y, w: Math.min(side, w - x), d: Math.min(side, d - y) };
      const pieces = new Map<string, number>();
      for (let k = 0; k < own.w * own.d; k++) {
        const cell = cells[(y + Math.trunc(k / own.w)) * w + x + (k % own.w)];
        if (cell !== NO_PIECE) pieces.set(colours[cell], (pieces.get(colours[cell]) ?? 0) + 1);
      }
      const counts = [...pieces]
        .map(([colour, qty]) => ({ mark: marks.get(colour) ?? '', colour, qty }))
        .toSorted((a, b) => b.qty - a.qty);
      sheets.push({ id: `${markOf(row)}${column + 1}`, ...own, counts });
    }
  return sheets;
}
