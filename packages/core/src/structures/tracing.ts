import { MM_PER_PLATE, MM_PER_STUD } from '../grid/index.ts';

// A photograph below an elevation, to be traced: where it lies, and how it is scaled by two of its points.

/** Where a photograph lies behind a front, as seen from outside. */
export interface Tracing {
  /** Its width, studs, and its height as a share of that. */
  wide: number;
  tall: number;
  /** From the left end of the side to its own, studs; and its lower edge, plates above the building's ground. */
  left: number;
  up: number;
}

/** A point of an elevation: mm from the left end of the side and above the building's ground. */
export interface ElevationPoint {
  x: number;
  y: number;
}

/** The least and the most a photograph is wide, studs. */
export const TRACING_WIDE = { min: 1, max: 2000 } as const;

/**
 * A photograph scaled so that two of its points are as far apart as is said; the first stays where it is.
 * @param apart mm of the model
 * @returns the same where the points lie in one place
 */
export function scaledTracing(
  tracing: Tracing,
  [p, q]: readonly [ElevationPoint, ElevationPoint],
  apart: number,
): Tracing {
  const now = Math.hypot(p.x - q.x, p.y - q.y);
  if (now === 0) return tracing;
  const wide = Math.min(TRACING_WIDE.max, Math.max(TRACING_WIDE.min, (tracing.wide * apart) / now));
  const by = wide / tracing.wide;
  const from = (at: number, edge: number) => at - (at - edge) * by;
  return {
    ...tracing,
    wide,
    left: from(p.x, tracing.left * MM_PER_STUD) / MM_PER_STUD,
    up: from(p.y, tracing.up * MM_PER_PLATE) / MM_PER_PLATE,
  };
}
