import { partId, type PartCount } from '../catalogue/index.ts';
import { MM_PER_STUD, boundsOfPoints, outlineOfArea, type Rect } from '../grid/index.ts';
import { PLATES, tileLayer } from '../masonry/index.ts';
import type { Ring, RingEdge } from './rings.ts';

// The floor of a round room: the whole studs that lie inside its ring, in plates.

/** A floor of whole studs inside a ring. */
export interface RingFloor {
  /** Studs along each side of its raster, its middle in the middle of that. */
  size: number;
  /** 1 for each stud of the floor, row by row from the north-west. */
  studs: Uint8Array;
  count: number;
  /** Its plates, the most frequent first. */
  plates: PartCount[];
  /** From the inside of the ring, at the middle of a side to the north, to the floor, mm. */
  gap: number;
}

/** Floors wider than that are not laid out, studs. */
export const MAX_FLOOR = 160;

/**
 * The largest floor of whole studs inside a ring whose pieces are a stud thick, its middle on the corner of studs or on
 * the middle of one.
 * @param edge that its pieces meet at: the walls stand outside of inner ones
 * @param parity whether its middle is a corner of studs (even) or the middle of one; else the larger of both
 * @returns null for a ring that is wider than 160 studs inside, or in which no stud lies
 */
export function ringFloor(ring: Ring, edge: RingEdge, parity?: 'even' | 'odd'): RingFloor | null {
  const inside = ring.innerMm - (edge === 'outer' ? MM_PER_STUD : 0);
  const widest = Math.floor((2 * ring.outerMm) / MM_PER_STUD);
  if (inside <= 0 || widest > MAX_FLOOR) return null;
  const even = 2 * Math.ceil(widest / 2);
  const [first, second] = [even, even + 1].map((size) => ({ size, studs: studsInside(ring, inside, size) }));
  const isOdd = parity ? parity === 'odd' : countOnes(second.studs) > countOnes(first.studs);
  const best = isOdd ? second : first;
  const count = countOnes(best.studs);
  if (count === 0) return null;
  const { size, studs } = best;
  const laid = tileLayer(studs, size, size, PLATES, null);
  const counts = new Map<string, number>();
  for (let p = 0; p < laid.length; p += 4) {
    const part = partId('plate', laid[p + 2], laid[p + 3]);
    counts.set(part, (counts.get(part) ?? 0) + 1);
  }
  const top = Math.floor(studs.indexOf(1) / size);
  return {
    ...{ size, studs, count },
    plates: [...counts].map(([part, qty]) => ({ part, qty })).toSorted((a, b) => b.qty - a.qty),
    gap: inside - (size / 2 - top) * MM_PER_STUD,
  };
}

/**
 * A floor inside a ring as the outline of an area on the plan.
 * @param middle of the ring, studs; on a whole stud for a raster of even size, else on half a one
 * @returns its rectangle, and the outline in shares of that
 */
export function floorArea(
  { size, studs }: RingFloor,
  middle: { x: number; y: number },
): Rect & { outline: { x: number; y: number }[] } {
  const corners = outlineOfArea({ w: size, d: size, mask: studs });
  const { x, y, w, d } = boundsOfPoints(corners);
  return {
    ...{ x: middle.x - size / 2 + x, y: middle.y - size / 2 + y, w, d },
    outline: corners.map((corner) => ({ x: (corner.x - x) / w, y: (corner.y - y) / d })),
  };
}

const countOnes = (mask: Uint8Array): number => mask.reduce((sum, one) => sum + one, 0);

/** Studs of a raster about the middle of a ring whose four corners lie inside its sides. @param inside mm to a side */
function studsInside({ pieces }: Ring, inside: number, size: number): Uint8Array {
  const normals = Array.from({ length: pieces }, (_, i) => {
    const angle = (2 * Math.PI * i) / pieces - Math.PI / 2;
    return [Math.cos(angle), Math.sin(angle)] as const;
  });
  const isInside = (x: number, y: number): boolean =>
    normals.every(([a, b]) => a * x + b * y <= inside + 1e-6);
  const corner = (n: number) => (n - size / 2) * MM_PER_STUD;
  // Corners of studs once each: a stud lies inside where its four do.
  const side = size + 1;
  const corners = Uint8Array.from({ length: side * side }, (_, i) =>
    isInside(corner(i % side), corner(Math.floor(i / side))) ? 1 : 0,
  );
  return Uint8Array.from({ length: size * size }, (_, i) => {
    const at = Math.floor(i / size) * side + (i % size);
    return corners[at] & corners[at + 1] & corners[at + side] & corners[at + side + 1];
  });
}
