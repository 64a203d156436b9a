import type { BuildingUse } from '../masonry/index.ts';

/** A placed piece of a building. */
export interface LaidPiece {
  part: string;
  use: BuildingUse;
  /** Studs from the north-west corner of what is built, unturned; pavement lies beyond it. */
  x: number;
  y: number;
  w: number;
  d: number;
  /** Plates above the building's ground. */
  z: number;
  h: number;
  /** Of a window, a door or a slope the way its front faces or falls, degrees clockwise from east; else 0. */
  turn: number;
}

/** A placed piece with its colour. */
export interface BuildingPiece extends LaidPiece {
  colour: string;
}
