import { MM_PER_STUD, polygonApothem } from '../grid/index.ts';

// Rings and round rooms: n equal pieces close a regular polygon.

/**
 * The edges that the pieces of a ring meet at, and that its polygon is of: straight bricks meet at their inner faces and
 * gape outside; wedges, which narrow inwards, at their outer ones.
 */
export const RING_EDGES = ['inner', 'outer'] as const;
export type RingEdge = (typeof RING_EDGES)[number];

/** A ring of equal straight pieces, mm and studs. */
export interface Ring {
  pieces: number;
  /** Degrees between two pieces: 24 of 15° close a ring (common practice). */
  angle: number;
  /** From its middle to the middle of a side. */
  innerMm: number;
  /** From its middle to a corner. */
  outerMm: number;
  /** Numbers of equal bays that its pieces divide into, neither 1 nor all. */
  bays: number[];
  /** The radius in half studs that is nearest to the inner one, as studs, and by how much the inner one is larger, mm. */
  gridStuds: number;
  errorMm: number;
}

/**
 * The regular polygon of a number of pieces (regular-polygon trigonometry: inner radius s ÷ (2 tan(π ÷ n)), outer
 * s ÷ (2 sin(π ÷ n))).
 * @param pieces whole, at least 3 @param width of a piece, studs, above 0
 */
export function polygonRing(pieces: number, width: number): Ring {
  const side = width * MM_PER_STUD;
  const innerMm = polygonApothem(pieces, side);
  const gridStuds = Math.round((2 * innerMm) / MM_PER_STUD) / 2;
  return {
    pieces,
    angle: 360 / pieces,
    innerMm,
    outerMm: side / (2 * Math.sin(Math.PI / pieces)),
    bays: divisorsOf(pieces).filter((bays) => bays !== 1 && bays !== pieces),
    gridStuds,
    errorMm: innerMm - gridStuds * MM_PER_STUD,
  };
}

/** Divisors of a whole number, the smallest first. */
const divisorsOf = (number: number): number[] =>
  Array.from({ length: number }, (_, i) => i + 1).filter((one) => number % one === 0);

/** How a ring is parted into bays, or by how many pieces it misses. */
export interface RingBays {
  /** Pieces of each bay, and how many pieces are left over. */
  each: number;
  left: number;
  /** Numbers of pieces nearest to the ring's that part evenly, the smaller one first; null below 3. */
  fewer: number | null;
  more: number;
}

/** Parts a ring into equal bays. @param bays whole, from 2 to the ring's pieces */
export function baysOfRing(pieces: number, bays: number): RingBays {
  const each = Math.floor(pieces / bays);
  const left = pieces - each * bays;
  const fewer = pieces - left;
  return { each, left, fewer: fewer >= 3 ? fewer : null, more: left === 0 ? pieces : fewer + bays };
}

/**
 * The ring whose inner radius is nearest to one that is wanted.
 * @param inner mm, above 0 @param width of a piece, studs @param most pieces it may have
 */
export function ringNear(inner: number, width: number, most: number): Ring {
  // The inner radius grows with each piece: the wanted one lies between two neighbours.
  const exact = Math.PI / Math.atan((width * MM_PER_STUD) / (2 * inner));
  const pieces = Math.min(most, Math.max(3, Math.floor(exact)));
  const [less, more] = [polygonRing(pieces, width), polygonRing(Math.min(most, pieces + 1), width)];
  return Math.abs(more.innerMm - inner) < Math.abs(less.innerMm - inner) ? more : less;
}

/** Corners of a ring about its middle, mm, a side to the north. */
export function ringCorners({ pieces, outerMm }: Ring): { x: number; y: number }[] {
  return Array.from({ length: pieces }, (_, i) => {
    const angle = (2 * Math.PI * (i - 0.5)) / pieces - Math.PI / 2;
    return { x: outerMm * Math.cos(angle), y: outerMm * Math.sin(angle) };
  });
}

/**
 * Its pieces from above, a stud thick, about its middle, mm: straight ones outside of their inner faces, wedges inside of
 * their outer ones. Four corners each, those that meet first.
 */
export function ringPieceOutlines(ring: Ring, edge: RingEdge): { x: number; y: number }[][] {
  const corners = ringCorners(ring);
  const inwards = (ring.innerMm - MM_PER_STUD) / ring.innerMm;
  return corners.map((a, i) => {
    const b = corners[(i + 1) % corners.length];
    if (edge === 'outer') {
      const inner = [b, a].map(({ x, y }) => ({ x: x * inwards, y: y * inwards }));
      return [a, b, ...inner];
    }
    const share = MM_PER_STUD / ring.innerMm / 2;
    const [u, v] = [(a.x + b.x) * share, (a.y + b.y) * share];
    return [a, b, { x: b.x + u, y: b.y + v }, { x: a.x + u, y: a.y + v }];
  });
}
