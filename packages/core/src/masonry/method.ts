import { BRICK_SIZES, PLATE_SIZES, TILE_SIZES } from '../catalogue/index.ts';
import type { Method } from '../document/index.ts';
import { pieceSet, type PieceSet } from './pieces.ts';

// How ground is filled under its skin.

export interface MethodSpec {
  word: string;
  /** How it is built, in a sentence. */
  how: string;
  /** Hollow under a deck, with a shell of so many studs at every edge; 0: filled throughout. */
  shell: number;
  /** Tall pieces that are laid first, where they fit whole; bricks and plates make up the rest. */
  tall: readonly {
    family: 'brick' | 'panel' | 'rock-panel' | 'stair';
    h: number;
    set: PieceSet;
    /** Where it stands: behind so many studs of what shows, on the face itself, or anywhere. */
    at: { behind: number } | 'face' | 'anywhere';
  }[];
  /** Steps of whole bricks: what is less than a brick is left away. */
  steps: boolean;
  /** Pieces a builder lays in an hour: a default of ours, until own rates are known. */
  rate: number;
}

const none: MethodSpec['tall'] = [];
const two = pieceSet([
  [2, 4],
  [2, 2],
]);
const flat = pieceSet([
  [4, 1],
  [2, 1],
]);
const stairs = pieceSet([[2, 4]]);
const rocks = pieceSet([
  [4, 6],
  [2, 6],
  [2, 4],
]);

export const METHOD_SPECS: Record<Method, MethodSpec> = {
  solid: {
    word: 'solid',
    how: 'bricks throughout, plates where a brick is too high',
    ...{ shell: 0, tall: none, steps: false, rate: 320 },
  },
  raft: {
    word: 'raft on pillars',
    how: 'a deck of the largest plates on rows under every edge and joint, and pillars between',
    ...{ shell: 1, tall: none, steps: false, rate: 260 },
  },
  filler: {
    word: 'filler under slopes',
    how: 'an outline in bricks, filled with pieces three bricks high',
    ...{ shell: 0, steps: false, rate: 300 },
    tall: [{ family: 'brick', h: 9, set: two, at: { behind: 1 } }],
  },
  stepped: {
    word: 'stepped, backed',
    how: 'steps of whole bricks two studs deep, stair pieces behind them, hollow within, closed by a deck',
    ...{ shell: 4, steps: true, rate: 280 },
    tall: [{ family: 'stair', h: 9, set: stairs, at: { behind: 2 } }],
  },
  frame: {
    word: 'hollow frame with panels',
    how: 'panels hung on the faces, rows under the joints of the deck, pillars between',
    ...{ shell: 1, steps: false, rate: 200 },
    tall: [
      { family: 'panel', h: 18, set: flat, at: 'face' },
      { family: 'panel', h: 9, set: flat, at: 'face' },
    ],
  },
  moulded: {
    word: 'moulded rock panels',
    how: 'rock panels six bricks high where they fit, bricks beside them, a deck on top',
    ...{ shell: 4, steps: false, rate: 180 },
    tall: [{ family: 'rock-panel', h: 18, set: rocks, at: 'anywhere' }],
  },
  reuse: {
    word: 'reuse what stands',
    how: 'it stands already: nothing is counted',
    ...{ shell: 0, tall: none, steps: false, rate: 1 },
  },
};

/**
 * The least height of covered ground in which a method's tall pieces stand, plates: the lowest of them, with a deck
 * where it has one and the cover on top. Null for a method that has none.
 */
export function minHeightOf(method: Method): number | null {
  const { tall, shell } = METHOD_SPECS[method];
  return tall.length === 0 ? null : Math.min(...tall.map(({ h }) => h)) + (shell > 0 ? 1 : 0) + 1;
}

export const BRICKS = pieceSet(BRICK_SIZES);
export const PLATES = pieceSet(PLATE_SIZES);
/** Ground cover: no plates that cannot be pressed on over uneven ground. */
export const COVERS = pieceSet(PLATE_SIZES.filter(([w, d]) => w * d <= 64 && d <= 12));
export const TILES = pieceSet(TILE_SIZES);
/** Small pieces, where tones are mixed: large ones would show as blocks of one colour. */
export const FINE_COVERS = pieceSet(PLATE_SIZES.filter(([w, d]) => w * d <= 6 && d <= 4));
export const FINE_TILES = pieceSet(TILE_SIZES.filter(([w, d]) => w * d <= 4));
/** Sheets that may lie in a deck, level with its plates. */
export const SHEETS = pieceSet([
  [32, 32],
  [16, 32],
]);

/** Plates for a deck no larger than `most` studs a side. */
export function deckSet(most: number): PieceSet {
  const known = decks.get(most) ?? pieceSet(PLATE_SIZES.filter(([, d]) => d <= most));
  decks.set(most, known);
  return known;
}
const decks = new Map<number, PieceSet>();
