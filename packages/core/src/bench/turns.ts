import { MM_PER_STUD } from '../grid/index.ts';
import { tiesAlong } from '../stability/index.ts';

// Walls turned off the grid on hinges: right triangles whose ends meet studs.

/** A right triangle of whole studs: `a` and `b` along the grid, `c` along the turned wall. */
export interface Turn {
  a: number;
  b: number;
  c: number;
  /** Between the wall and the longer side, degrees, at most 45. */
  angle: number;
  /** By how much the way between its ends is longer than the wall, mm; below 0: shorter. */
  errorMm: number;
}

/**
 * Right triangles whose wall is at most so long, the shortest wall first (Pythagoras; where nothing may be amiss these
 * are Euclid's triples and their multiples).
 * @param within longest wall, whole studs @param error that hinges and play take up, mm, at least 0
 */
export function turnsWithin(within: number, error: number): Turn[] {
  const turns: Turn[] = [];
  for (let a = 1; a <= within; a++)
    for (let b = a; b <= within; b++) {
      const way = Math.hypot(a, b);
      const [from, to] = [way - error / MM_PER_STUD, way + error / MM_PER_STUD];
      if (from > within) break;
      for (let c = Math.max(1, Math.ceil(from - 1e-9)); c <= Math.min(within, to + 1e-9); c++)
        turns.push({ a, b, c, angle: degrees(a, b), errorMm: (way - c) * MM_PER_STUD });
    }
  return turns.toSorted((p, q) => p.c - q.c || p.a - q.a || p.b - q.b);
}

const degrees = (a: number, b: number) => (Math.atan2(a, b) * 180) / Math.PI;

/** Where a turned wall is tied to what stands behind it, studs from its beginning to half a stud: evenly, its ends not among them. */
export function tiesOf(length: number, every: number): number[] {
  const ties = tiesAlong(length, every);
  return Array.from({ length: ties }, (_, i) => Math.round((2 * length * (i + 1)) / (ties + 1)) / 2);
}
