import { isSlope } from '../catalogue/index.ts';
import { boundsOf, centreOf } from '../grid/index.ts';
import { builtRect, turnedPoint, type Plot } from '../document/index.ts';
import { sortedSteps, type BuildSteps } from '../masonry/index.ts';
import type { Fronted, WallOpening } from './fronts.ts';
import type { StreetRules } from './pavement.ts';
import type { BuildingPiece } from './piece.ts';
import { buildingPieces } from './shell.ts';

// The pieces of a building where they are: step by step for its builder, and as they stand on the plan.

/** A building as its builder works through it. */
export interface BuildingSteps extends BuildSteps {
  /** Studs of all of it with its pavement; the pieces are counted from its north-west corner. */
  w: number;
  d: number;
  /** From its ground to its top, plates. */
  high: number;
}

/** The steps of a building from the ground up, unturned; heights in plates above its ground. */
export function buildingSteps(plot: Fronted, street: StreetRules): BuildingSteps {
  const pieces = buildingPieces(plot, street);
  const { x, y, w, d } = boundsOf(pieces);
  const laid = pieces.map(({ use, turn, ...piece }) => ({
    ...piece,
    ...{ x: piece.x - x, y: piece.y - y, purpose: use },
    ...(isSlope(piece) ? { falls: turn / 90 } : {}),
  }));
  const high = pieces.reduce((top, { z, h }) => Math.max(top, z + h), 0);
  return { w, d, high, ...sortedSteps(laid) };
}

/** The middle of what is let into a wall, on the plan. @param before studs before its face */
export function placeOfOpening(
  plot: Plot,
  { side, back, from, wide }: WallOpening,
  before = 0,
): { x: number; y: number } {
  const { x, y, w, d } = builtRect(plot);
  const middle = from + wide / 2;
  const at = {
    n: { x: x + middle, y: y + back - before },
    s: { x: x + middle, y: y + d - back + before },
    w: { x: x + back - before, y: y + middle },
    e: { x: x + w - back + before, y: y + middle },
  }[side];
  return turnedPoint(at, centreOf(plot), plot.turn);
}

/**
 * The pieces of a building on the plan, studs and plates above datum: by their sides square to the grid, about their
 * middle, to be turned by what its turn leaves over whole quarters.
 * @param foot what the building stands on, plates above datum
 * @returns with the turn of each: of windows, doors and slopes the way they face, of other pieces less than a quarter
 */
export function placedPieces(plot: Plot, foot: number, street: StreetRules): BuildingPiece[] {
  const built = builtRect(plot);
  const middle = centreOf(plot);
  const isAcross = Math.floor(plot.turn / 90) % 2 === 1;
  return buildingPieces(plot, street).map((piece) => {
    const own = { x: built.x + piece.x, y: built.y + piece.y, w: piece.w, d: piece.d };
    const at = turnedPoint(centreOf(own), middle, plot.turn);
    const [w, d] = isAcross ? [own.d, own.w] : [own.w, own.d];
    const hasFront = piece.use === 'opening' || isSlope(piece);
    const turn = hasFront ? (piece.turn + plot.turn) % 360 : plot.turn % 90;
    return { ...piece, x: at.x - w / 2, y: at.y - d / 2, w, d, z: foot + piece.z, turn };
  });
}
