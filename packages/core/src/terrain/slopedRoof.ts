import {
  PLATE_SIZES,
  SLOPES,
  partOf,
  roofOf,
  runOfSlope,
  slopesLike,
  type Part,
} from '../catalogue/index.ts';
import {
  builtSides,
  isBoxed,
  roofFormOf,
  studsBuilt,
  runsEast,
  wallStuds,
  wallTop,
  type Plot,
  type RoofForm,
} from '../document/index.ts';
import { rememberFor, type StudArea } from '../grid/index.ts';
import { planRoof, roofSides, type RoofPlan, type RoofSide } from './roofPlan.ts';

// How a roof of slopes comes out: its courses, its ridge, and the room under it. Laid in pieces in `structures`.

type Roofed = Parameters<typeof builtSides>[0] &
  Pick<Plot, 'front' | 'height' | 'eaves' | 'wall' | 'roofForm' | 'slope' | 'lowerSlope' | 'lowerCourses'>;

/** A roof of slopes as it comes out. */
export interface SlopedRoof {
  form: RoofForm;
  /** Its pitches from the eaves up, with the courses of slopes on each side: two of a mansard, else one. */
  pitches: readonly RoofPitch[];
  /** Courses of slopes on each side, of all pitches. */
  courses: number;
  /** Plates above the building's ground: its ridge with the plates on it. */
  ridge: number;
  /** Studs of the flat top: between both sides, or from the last course to the back of a roof of one side. */
  flat: number;
}

export interface RoofPitch {
  slope: Part;
  courses: number;
}

/** One course of slopes: how far it lies in from the eaves, studs, and how far up over them, plates. */
export interface RoofCourse {
  slope: Part;
  inset: number;
  up: number;
}

/** The courses of a roof from the eaves up. */
export function roofCoursesOf(pitches: readonly RoofPitch[]): RoofCourse[] {
  let [inset, up] = [0, 0];
  return pitches.flatMap(({ slope, courses }) =>
    Array.from({ length: courses }, () => {
      const course = { slope, inset, up };
      inset += runOfSlope(slope);
      up += slope.h;
      return course;
    }),
  );
}

/** How far in from the eaves what lies on the last course begins, studs, and how far up over them, plates. */
export function roofTopOf(pitches: readonly RoofPitch[]): { inset: number; up: number } {
  const sum = (of: (slope: Part) => number) =>
    pitches.reduce((all, { slope, courses }) => all + courses * of(slope), 0);
  return { inset: sum(runOfSlope), up: sum(({ h }) => h) };
}

/** The longest plate a stud wide, studs. */
const LONGEST_PLATE = PLATE_SIZES.reduce((long, [w, d]) => (w === 1 ? Math.max(long, d) : long), 1);

/** Whether courses of a slope carry one another: it keeps a row of studs for the next. */
const carriesNext = ({ d }: Part): boolean => d >= 2;

/** One slope of each pitch, the narrowest, that a roof can be laid of: width does not matter to it. */
export const ROOF_SLOPES: readonly Part[] = SLOPES.filter(
  (slope) => carriesNext(slope) && slopesLike(slope).at(-1) === slope,
);

/** How thick the walls within a roof are: bricks are two studs thick at most, and both ends have room. */
export const roofWall = (plot: Roofed): number =>
  Math.max(1, Math.min(2, wallStuds(plot), Math.floor(roofSizeOf(plot).length / 2)));

/** The studs under a roof, and its sides. */
const roofArea = rememberFor((plot: Roofed): { studs: StudArea; sides: RoofSide[] } => {
  const studs = studsBuilt(plot);
  return { studs, sides: roofSides(studs, roofFormOf(plot) === 'gable') };
});
/** Plots never change: each place of a figure asks for the sides, masses and pieces for the courses. */
const plans = new WeakMap<readonly RoofPitch[], RoofPlan>();

/** The sides of a building under a roof that falls to two sides or to all of them. */
export const sidesOfRoof = (plot: Roofed): RoofSide[] => roofArea(plot).sides;

/** Where the courses of such a roof lie. @param pitches of this plot's roof alone: their plan is kept with them */
export function roofPlanOf(plot: Roofed, pitches: readonly RoofPitch[]): RoofPlan {
  const before = plans.get(pitches);
  if (before) return before;
  const { studs, sides } = roofArea(plot);
  const plan = planRoof(studs, sides, pitches, wallStuds(plot));
  plans.set(pitches, plan);
  return plan;
}

/** Length and span of a roof: along its courses and across them, studs. */
export function roofSizeOf(plot: Roofed): { length: number; span: number } {
  const { w, d } = builtSides(plot);
  if (roofFormOf(plot) !== 'lean-to') return { length: Math.max(w, d), span: Math.min(w, d) };
  return runsEast(plot.front) ? { length: w, span: d } : { length: d, span: w };
}

/** A slope of the catalogue that a roof can be laid of; null for another part. */
function roofSlope(part: string | null): Part | null {
  const slope = part === null ? null : partOf(part);
  return slope?.family === 'slope' && carriesNext(slope) ? slope : null;
}

function roofWith(plot: Roofed, slope: Part): SlopedRoof {
  const form = roofFormOf(plot);
  const lower = roofSlope(plot.lowerSlope);
  if (!isBoxed(plot)) {
    const asked = [
      ...(lower ? [{ slope: lower, courses: plot.lowerCourses }] : []),
      { slope, courses: Infinity },
    ];
    const plan = roofPlanOf(plot, asked);
    const { courses, flat } = plan;
    // Over more than that no plate reaches from one side to the other: without walls inside it is no roof.
    const isClosed = flat <= LONGEST_PLATE;
    const roof = summed(
      plot,
      asked.map((pitch, i) => ({ ...pitch, courses: isClosed ? courses[i] : 0 })),
      flat,
    );
    // As many courses as find room are those that were laid out.
    if (roof.pitches.length === asked.length) plans.set(roof.pitches, plan);
    return roof;
  }
  const { length, span } = roofSizeOf(plot);
  /** Courses that find room over some that are laid. @param inset of those, studs */
  const room = (of: Part, inset: number): number => {
    if (form !== 'lean-to') return roofOf(Math.max(0.5, span - 2 * inset), of).plainCourses;
    // A roof of one side keeps clear of the wall behind it.
    const left = span - inset - roofWall(plot) - of.d;
    return length < 2 ? 0 : Math.max(0, Math.floor(left / runOfSlope(of)) + 1);
  };
  const pitches: RoofPitch[] = [];
  if (lower) pitches.push({ slope: lower, courses: Math.min(plot.lowerCourses, room(lower, 0)) });
  pitches.push({ slope, courses: room(slope, roofTopOf(pitches).inset) });
  return summed(plot, pitches, span - (form === 'lean-to' ? 1 : 2) * roofTopOf(pitches).inset);
}

function summed(plot: Roofed, pitches: readonly RoofPitch[], flat: number): SlopedRoof {
  const laid = pitches.filter(({ courses }) => courses > 0);
  return {
    ...{ form: roofFormOf(plot), pitches: laid, flat },
    courses: laid.reduce((sum, { courses }) => sum + courses, 0),
    ridge: wallTop(plot) + roofTopOf(laid).up + 1,
  };
}

/**
 * The roof of slopes of a building; null for a flat one and for one of rings. With the slopes that it names where they carry
 * one another, or those whose ridge comes nearest to its height, the flatter of two; below them the lower slopes of a
 * mansard, as many courses as find room. Of an area that is no rectangle the courses, the ridge and the flat top are those
 * of its widest part.
 * @returns of no courses where the building is too narrow for any
 */
export const slopedRoofOf = rememberFor((plot: Roofed): SlopedRoof | null =>
  plot.eaves === null || roofFormOf(plot) === 'stepped' ? null : bestRoof(plot),
);

function bestRoof(plot: Roofed): SlopedRoof {
  const own = roofSlope(plot.slope);
  if (own) return roofWith(plot, own);
  const off = (roof: SlopedRoof) => Math.abs(roof.ridge - plot.height);
  return ROOF_SLOPES.map((slope) => roofWith(plot, slope)).reduce((best, roof) =>
    off(roof) < off(best) || (off(roof) === off(best) && roof.ridge < best.ridge) ? roof : best,
  );
}

/**
 * Height of the inside of a roof of slopes, plates above the building's ground: the underside of the lowest course that
 * reaches so far in, or of the plates on top.
 * @param from studs from the inside of the wall that it falls to, the nearest of several
 */
export function underSlopedRoof(plot: Roofed, roof: SlopedRoof, from: number): number {
  const eaves = wallTop(plot);
  const at = from + plot.wall;
  const over = roofCoursesOf(roof.pitches).find(({ slope, inset }) => inset + slope.d > at + 1e-9);
  return eaves + (over ?? roofTopOf(roof.pitches)).up;
}
