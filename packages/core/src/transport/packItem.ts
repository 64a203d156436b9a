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

/** The inside of what carries them, mm; the door is at y = 0 and as high as the space. */
export interface PackSpace {
  w: number;
  d: number;
  h: number;
  /** Grams a trip carries; null: no limit. */
  maxMass: number | null;
  /** The door's clear width, from x on; left out: as wide as the space. */
  door?: { x: number; w: number };
  /** Two boxes at the side walls, from so far behind the door on; left out: none. */
  arches?: Arches;
}

/** Wheel arches, each with its size, mm: things may stand on them, and pass between them. */
export interface Arches {
  from: number;
  w: number;
  d: number;
  h: number;
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

/** The boxes of both arches, as far as they are inside; none where the space has none. */
export function archBoxes({ w, d, h, arches }: PackSpace): Omit<Packed, 'trip' | 'id'>[] {
  if (!arches) return [];
  const box = {
    w: Math.min(arches.w, w / 2),
    d: Math.min(arches.d, d - arches.from),
    h: Math.min(arches.h, h),
  };
  if (Math.min(box.w, box.d, box.h) <= 0) return [];
  return [0, w - box.w].map((x) => ({ x, y: arches.from, z: 0, ...box }));
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
