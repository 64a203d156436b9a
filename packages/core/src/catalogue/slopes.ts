import { CATALOGUE, partOf, type Part } from './parts.ts';
import { MM_PER_PLATE, MM_PER_STUD } from '../grid/index.ts';

// Roofs of two sides by the slope pieces that exist.

/** The slopes of the catalogue, those of one pitch together: width does not matter to a pitch. */
export const SLOPES: readonly Part[] = CATALOGUE.filter(({ family }) => family === 'slope');

/** The slopes of the catalogue that have the pitch of one, the widest first. */
export const slopesLike = (slope: Part): readonly Part[] =>
  SLOPES.filter(({ d, h, angle }) => d === slope.d && h === slope.h && angle === slope.angle).toSorted(
    (a, b) => b.w - a.w,
  );

/** Whether a piece is a slope, of a corner or not. */
export const isSlope = ({ part }: { part: string }): boolean =>
  partOf(part)?.family === 'slope' || isCornerSlope({ part });

/** Whether a piece is a slope that falls to two sides: round an outer corner, or in an inner one. */
export const isCornerSlope = (piece: { part: string }): boolean =>
  partOf(piece.part)?.family === 'corner-slope' || isValleySlope(piece);

/** Whether a piece is a slope in an inner corner, where two roofs meet: low at that corner alone. */
export const isValleySlope = ({ part }: { part: string }): boolean => partOf(part)?.family === 'valley-slope';

/** How far a course of slopes lies in from the one under it, studs: a slope keeps a row of studs for the next course. */
export const runOfSlope = ({ d }: Part): number => Math.max(1, d - 1);

/** Degrees that a slope truly rises: nominal angles are rounded. */
export const pitchOfSlope = (slope: Part): number =>
  (Math.atan((slope.h * MM_PER_PLATE) / (runOfSlope(slope) * MM_PER_STUD)) * 180) / Math.PI;

/** A roof of two equal sides. */
export interface Roof {
  /** Courses of one side, up to where both sides meet. */
  courses: number;
  /** Those whose slopes have room for their own row of studs; what is over them takes slopes of two sides, or tiles. */
  plainCourses: number;
  /** Height of the ridge over the eaves, plates. */
  ridgePlates: number;
  /** What stays open between both sides at the top, studs: for a ridge of plates, tiles or bricks. */
  leftStuds: number;
}

/** As many courses as a span takes: span = 2 × run × courses + left. @param span studs, above 0 */
export function roofOf(span: number, slope: Part): Roof {
  const run = runOfSlope(slope);
  const courses = Math.floor(span / (2 * run) + 1e-9);
  const plain = Math.floor((span / 2 - slope.d) / run + 1e-9) + 1;
  return {
    courses,
    plainCourses: Math.max(0, Math.min(courses, plain)),
    ridgePlates: courses * slope.h,
    leftStuds: span - 2 * run * courses,
  };
}

/**
 * The slopes of both sides that have room for their own studs, the fewest that cover each course: the widest first, and at a course's end what is left.
 * @param length along the ridge, whole studs, at least 1
 */
export function roofPieces({ plainCourses }: Roof, slope: Part, length: number): PartCount[] {
  let left = length;
  return slopesLike(slope).flatMap(({ id, w }) => {
    const each = Math.floor(left / w);
    left -= each * w;
    return each > 0 && plainCourses > 0 ? [{ part: id, qty: each * 2 * plainCourses }] : [];
  });
}

/** A number of pieces of one part. */
export interface PartCount {
  part: string;
  qty: number;
}

/** What raises a ridge to a height: a number of whole bricks and plates under the eaves, or by how much it is too high. */
export interface RidgeMeets {
  /** Plates that are missing; below 0: it is too high. */
  missing: number;
  bricks: number;
  plates: number;
}

/** The fewest pieces high that raise a ridge to meet another. @param height wanted over the same eaves, plates */
export function raiseToMeet({ ridgePlates }: Roof, height: number): RidgeMeets {
  const missing = height - ridgePlates;
  return { missing, bricks: Math.max(0, Math.floor(missing / 3)), plates: Math.max(0, missing % 3) };
}
