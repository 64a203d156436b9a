import { isCornerSlope, isSlope, isValleySlope, ANY_COLOUR } from '../catalogue/index.ts';
import {
  beginsLeft,
  frontsOf,
  leftOf,
  recessWall,
  sideLength,
  type Face,
  type FrontCard,
  type Fronted,
} from './fronts.ts';
import type { LaidPiece } from './piece.ts';
import { buildingPieces } from './shell.ts';
import { storeysOf, type Storey } from './storeys.ts';
import { FACING } from './walls.ts';
import { isBoxed, runsEast, wallTop, type Side, builtSides } from '../document/index.ts';

// A front as it is seen from outside: what shows of each piece in its face, from the left and from the ground.

/** Pavement is not drawn, so that its colours do not matter. */
const NO_STREET = { pavementLight: ANY_COLOUR, pavementDark: ANY_COLOUR };

/** What is seen of a piece: studs from the left end of the front, plates above the building's ground. */
export interface SeenPiece {
  part: string;
  colour: string;
  left: number;
  z: number;
  w: number;
  h: number;
  /** A slope that is seen from its end: the way it falls. */
  falls?: 'left' | 'right';
}

export interface Elevation extends Face {
  /** Studs from end to end of the face, and plates from the ground to the top of the roof. */
  length: number;
  high: number;
  pieces: SeenPiece[];
  storeys: Storey[];
  /** The storeys of this face that are divided into bays, which begin at its left end. */
  fronts: FrontCard[];
}

/** Whether a slope is seen from its end, as it falls to the left or the right; a valley slope is high there. */
const isEndOn = (piece: LaidPiece, side: Side): boolean =>
  isSlope(piece) && !isValleySlope(piece) && piece.turn % 180 !== FACING[side] % 180;

/** Those of pieces that no nearer one hides whole; past the slant of a slope one sees on. @param pieces those farther back first */
function shown<P extends LaidPiece>(pieces: readonly P[], side: Side): P[] {
  const seen = new Set<string>();
  return pieces
    .toReversed()
    .filter((piece) => {
      const { x, y, w, d, z, h } = piece;
      const [from, wide] = runsEast(side) ? [x, w] : [y, d];
      const cells = Array.from(
        { length: wide * h },
        (_, k) => `${from + (k % wide)} ${z + Math.trunc(k / wide)}`,
      );
      const isSeen = cells.some((cell) => !seen.has(cell));
      if (!isEndOn(piece, side)) for (const cell of cells) seen.add(cell);
      return isSeen;
    })
    .toReversed();
}

/** Whether a slope falls to a side, a corner slope to that and another. */
const fallsTo = (piece: LaidPiece, side: Side): boolean => {
  const off = (piece.turn - FACING[side] + 360) % 360;
  return off === 0 || (isCornerSlope(piece) && (off === 45 || off === 315));
};

/**
 * A front drawn from the pieces that stand in its face and the slopes that fall to it; pavement before it is left out.
 * @param recess the wall in it that faces the side, with what is seen over it, instead of the whole side
 * @returns those farther back first
 */
export function elevationOf(plot: Fronted, side: Side, recess: number | null = null): Elevation {
  const { w, d } = builtSides(plot);
  const whole = sideLength(plot, side);
  const wall = recessWall(plot, { side, recess });
  const [start, length] = wall ? [leftOf(plot, side, wall), wall.to - wall.from] : [0, whole];
  const isX = runsEast(side);
  const isFromWest = beginsLeft(side);
  const depthOf = (piece: LaidPiece) =>
    ({ n: piece.y, s: d - piece.y - piece.d, w: piece.x, e: w - piece.x - piece.w })[side];
  const faces = buildingPieces(plot, NO_STREET)
    .filter((piece) => {
      if (piece.use === 'pavement' || piece.z < 0) return false;
      if (wall && depthOf(piece) < wall.back) return false;
      if (depthOf(piece) === 0) return true;
      // Round walls, those behind a corner left out and their roofs draw back: all of them, the farther hidden by the nearer.
      if (!isBoxed(plot)) return piece.use !== 'pillar';
      // The ridge lies behind the slopes, as high as they end.
      return piece.use === 'roof' && (isSlope(piece) ? fallsTo(piece, side) : piece.z > wallTop(plot));
    })
    .toSorted((a, b) => depthOf(b) - depthOf(a));
  const pieces = (isBoxed(plot) ? faces : shown(faces, side)).flatMap((piece): SeenPiece[] => {
    const [from, wide] = isX ? [piece.x, piece.w] : [piece.y, piece.d];
    const left = (isFromWest ? from : whole - from - wide) - start;
    // Of what reaches beyond the ends of the face what lies between them.
    const [near, far] = [Math.max(0, left), Math.min(length, left + wide)];
    if (near >= far) return [];
    // Seen from the south and the west the east and the south are at the right.
    const turn = (piece.turn * Math.PI) / 180;
    const isRight = (isX ? Math.cos(turn) : Math.sin(turn)) > 0 === isFromWest;
    const seen = {
      part: piece.part,
      colour: piece.colour,
      left: near,
      z: piece.z,
      w: far - near,
      h: piece.h,
    };
    return [isEndOn(piece, side) ? { ...seen, falls: isRight ? 'right' : 'left' } : seen];
  });
  const high = pieces.reduce((top, { z, h }) => Math.max(top, z + h), 0);
  return {
    ...{ side, recess: wall ? recess : null, length, high, pieces, storeys: storeysOf(plot) },
    fronts: frontsOf(plot)
      .filter((front) => front.side === side && front.recess === (wall ? recess : null))
      .map((front) => ({ ...front, bays: front.bays.map((bay) => ({ ...bay, left: bay.left - start })) })),
  };
}
