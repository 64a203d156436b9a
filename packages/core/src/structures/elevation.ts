import { builtSides, frontLength, frontsOf, type FrontCard, type Fronted } from './fronts.ts';
import { buildingPieces } from './shell.ts';
import { storeysOf, type Storey } from './storeys.ts';
import type { Side } from '../document/index.ts';

// A front as it is seen from outside: what shows of each piece in its face, from the left and from the ground.

/** What is seen of a piece: studs from the left end of the front, plates above the building's ground. */
export interface SeenPiece {
  part: string;
  left: number;
  z: number;
  w: number;
  h: number;
}

export interface Elevation {
  side: Side;
  /** Studs from end to end, and plates from the ground to the top of the roof. */
  length: number;
  high: number;
  pieces: SeenPiece[];
  storeys: Storey[];
  /** The storeys of this side that are divided into bays. */
  fronts: FrontCard[];
}

/** A front drawn from the pieces that stand in its face; pavement before it is left out. */
export function elevationOf(plot: Fronted, side: Side): Elevation {
  const { w, d } = builtSides(plot);
  const length = frontLength(plot, side);
  const pieces = buildingPieces(plot).flatMap((piece): SeenPiece[] => {
    const isBuilt = piece.x >= 0 && piece.y >= 0 && piece.x + piece.w <= w && piece.y + piece.d <= d;
    const isIn = {
      n: piece.y === 0,
      s: piece.y + piece.d === d,
      w: piece.x === 0,
      e: piece.x + piece.w === w,
    }[side];
    if (!isBuilt || !isIn) return [];
    const isX = side === 'n' || side === 's';
    const [from, wide] = isX ? [piece.x, piece.w] : [piece.y, piece.d];
    const left = side === 's' || side === 'w' ? from : length - from - wide;
    return [{ part: piece.part, left, z: piece.z, w: wide, h: piece.h }];
  });
  return {
    ...{ side, length, high: Math.round(plot.height) + 1, pieces, storeys: storeysOf(plot) },
    fronts: frontsOf(plot).filter((front) => front.side === side),
  };
}
