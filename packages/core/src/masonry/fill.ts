import { partId, type Family } from '../catalogue/index.ts';
import type { CoverSurface } from '../document/index.ts';
import type { PlacedPieces } from './pieces.ts';

// Ground to be filled with pieces, and the layers it is filled with.

/** A piece of ground to fill. */
export interface Fill {
  w: number;
  d: number;
  /** Plates above the floor; −1 where there is no ground. */
  height: Int16Array;
  /** Plates above the floor at which each stud's fill begins; left out: all begin at the floor. */
  base?: Int16Array;
  /** Index in METHODS of each stud. */
  method: Uint8Array;
  /** What covers each stud; null: no skin, the fill goes up to the height. */
  skin: Uint8Array | null;
  /** 1 where tones are mixed, so that the cover is laid in small pieces; left out: nowhere. */
  fine?: Uint8Array;
  /** A number for the colours that cover each stud: no piece of cover lies over two of them; left out: all are alike. */
  look?: Uint8Array;
  /** Plates of each layer under a stud's cover, from the top down; studs of one look have the same. Left out: no layers. */
  layersAt?: (i: number) => readonly number[];
  /** Faces that nobody sees, a bit a side in the order of SIDES; left out: none. */
  bare?: Uint8Array;
  /** Heights of studs that are not its own, for what shows at the sides; −1 where there is nothing. */
  beyond: (x: number, y: number) => number;
  /** Largest plate of a deck, studs; widest square of deck with nothing under it, studs. */
  deckMost: number;
  span: number;
  /** Base sheets may lie in decks. */
  sheets: boolean;
}

/** What covers a stud: nothing, plates and slopes, plates only, tiles. */
export const SKIN: Readonly<Record<'none' | CoverSurface, number>> = {
  ...{ none: 0, natural: 1 },
  ...{ plates: 2, tiles: 3 },
};

/** Height of a stud, its own or beyond; −1 where there is nothing. */
export function heightAround({ w, d, height, beyond }: Fill, x: number, y: number): number {
  const own = x < 0 || y < 0 || x >= w || y >= d ? -1 : height[y * w + x];
  return own >= 0 ? own : beyond(x, y);
}

/** What a layer is for. */
export type Purpose = 'core' | 'deck' | 'under' | 'cover' | 'slope';

export interface LayerPlan {
  /** Its underside, plates above the floor, and its height. */
  z: number;
  h: number;
  purpose: Purpose;
  family: Family;
  /** Of what lies under the cover: which layer of the ground it is, from the top down. */
  under?: number;
  /** Of slopes: the angle, and the side they fall to (0 east, 1 south, 2 west, 3 north). */
  angle?: number;
  falls?: number;
  /** x, y, w, d of each piece. */
  laid: PlacedPieces;
}

/** The id of a layer's piece. The id of a slope begins with its width along the edge. */
export function pieceId({ family, h, angle, falls }: LayerPlan, w: number, d: number): string {
  const turned = falls !== undefined && falls % 2 === 0;
  const wide =
    turned ||
    (falls === undefined && w < d && family === 'panel') ||
    ((family === 'rock-panel' || family === 'stair') && w < d);
  return wide ? partId(family, d, w, h, angle) : partId(family, w, d, h, angle);
}
