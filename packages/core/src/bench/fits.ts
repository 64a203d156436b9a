import { TICKS, TICK, MM } from '../grid/index.ts';

// Sideways building: plates on their side against studs. Both are whole numbers of ticks, so that every fit is an
// integer problem: half a stud is 5 ticks of 0.8 mm, half a plate (a bracket's leaf) 2. 5 plates = 2 studs.

const HALF_STUD = TICKS.halfStud;
const HALF_PLATE = TICKS.halfPlate;
const MM_PER_TICK = TICK / MM;

/** A stack of half plates laid sideways against a row of half studs. */
export interface SidewaysFit {
  halfStuds: number;
  halfPlates: number;
  /** By how much the stack is longer than the row, mm; below 0: shorter. */
  errorMm: number;
}

/** Inclusive ranges of whole studs and plates. */
export interface FitRanges {
  studs: readonly [number, number];
  plates: readonly [number, number];
}

/** Errors are whole ticks: what a sum of decimals leaves over is none. */
const TIE = 1e-9;

const errorOf = (halfStuds: number, halfPlates: number): number =>
  Math.round((halfPlates * HALF_PLATE - halfStuds * HALF_STUD) * MM_PER_TICK * 10) / 10 + 0;

/**
 * All stacks that close against a row of studs within a tolerance, the smallest first (5 plates = 2 studs; common
 * practice).
 * @param within mm, at least 0
 * @returns empty where none closes; its cost grows with the product of both ranges
 */
export function sidewaysFits({ studs, plates }: FitRanges, within: number): SidewaysFit[] {
  const fits: SidewaysFit[] = [];
  for (let halfStuds = 2 * studs[0]; halfStuds <= 2 * studs[1]; halfStuds++)
    for (let halfPlates = 2 * plates[0]; halfPlates <= 2 * plates[1]; halfPlates++) {
      const errorMm = errorOf(halfStuds, halfPlates);
      if (Math.abs(errorMm) <= within + TIE) fits.push({ halfStuds, halfPlates, errorMm });
    }
  return fits;
}

/**
 * The stack that comes nearest to a row of half studs; of two the shorter, which fits into the gap.
 * @param halfStuds at least 1 @param wholePlates no half plates
 */
export function nearestStack(halfStuds: number, wholePlates: boolean): SidewaysFit {
  const step = wholePlates ? 2 : 1;
  const exact = (halfStuds * HALF_STUD) / (HALF_PLATE * step);
  const halfPlates = step * Math.ceil(exact - 0.5);
  return { halfStuds, halfPlates, errorMm: errorOf(halfStuds, halfPlates) };
}
