// Pieces to be carried, the space that carries them, and where they stand in it.

/** A piece to be carried, upright. */
export interface PackItem {
  id: string;
  /** mm: along the door, from the door to the back, up. */
  w: number;
  d: number;
  h: number;
  /** Grams. */
  mass: number;
  /** Whether it may be turned by 90° about the vertical. */
  canTurn: boolean;
  /** Grams it bears on its top; 0: nothing may stand on it. */
  bears: number;
  /** When it is needed, whole: 1 first. Equal ones bind nothing. */
  order: number;
}

/** The inside of what carries them, mm; the door is at y = 0, as wide and as high as the space. */
export interface PackSpace {
  w: number;
  d: number;
  h: number;
  /** Grams a trip carries; null: no limit. */
  maxMass: number | null;
}

/** Where a piece stands: in which trip (from 1), and its corner nearest to the door, the left wall and the floor. */
export interface Packed {
  trip: number;
  id: string;
  x: number;
  y: number;
  z: number;
  w: number;
  d: number;
  h: number;
}

/** Lengths that differ by less are equal, mm. */
export const PACK_TOLERANCE = 1e-6;
/** Both ways in which a piece may stand. */
export const standings = ({ w, d, canTurn }: PackItem): [number, number][] =>
  canTurn && w !== d
    ? [
        [w, d],
        [d, w],
      ]
    : [[w, d]];
