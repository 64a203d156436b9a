import { SLOPES, roofOf, runOfSlope, slopesLike, partId, partOf, type Part } from '../catalogue/index.ts';
import { PLATES_PER_BRICK } from '../grid/index.ts';
import { isBoxed, runsEast, wallStuds, wallTop, type Plot, type Side } from '../document/index.ts';
import { builtSides, type Fronted } from './fronts.ts';
import { layFloor } from './floors.ts';
import type { LaidPiece } from './piece.ts';
import { longestFirst } from './row.ts';
import { FACING, layStretch } from './walls.ts';

// Roofs of slopes over the eaves: of two sides with walls at both ends, hipped to all four sides, or of one side that
// leans on a wall. A flat top of plates where no further slopes find room.

/** A roof of slopes as it comes out. */
export interface SlopedRoof {
  form: Plot['roofForm'];
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
interface RoofCourse {
  slope: Part;
  inset: number;
  up: number;
}

/** The courses of a roof from the eaves up. */
function coursesOf(pitches: readonly RoofPitch[]): RoofCourse[] {
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
function topOf(pitches: readonly RoofPitch[]): { inset: number; up: number } {
  const sum = (of: (slope: Part) => number) =>
    pitches.reduce((all, { slope, courses }) => all + courses * of(slope), 0);
  return { inset: sum(runOfSlope), up: sum(({ h }) => h) };
}

/** Whether courses of a slope carry one another: it keeps a row of studs for the next. */
const carriesNext = ({ d }: Part): boolean => d >= 2;

/** One slope of each pitch, the narrowest, that a roof can be laid of: width does not matter to it. */
export const ROOF_SLOPES: readonly Part[] = SLOPES.filter(
  (slope) => carriesNext(slope) && slopesLike(slope).at(-1) === slope,
);

/** How thick the walls within a roof are: bricks are two studs thick at most, and both ends have room. */
const roofWall = (plot: Fronted): number =>
  Math.max(1, Math.min(2, wallStuds(plot), Math.floor(sizeOf(plot).length / 2)));

/** Length and span of a roof: along its courses and across them, studs. */
function sizeOf(plot: Fronted): { length: number; span: number } {
  const { w, d } = builtSides(plot);
  if (plot.roofForm !== 'lean-to') return { length: Math.max(w, d), span: Math.min(w, d) };
  return runsEast(plot.front) ? { length: w, span: d } : { length: d, span: w };
}

/** A slope of the catalogue that a roof can be laid of; null for another part. */
function roofSlope(part: string | null): Part | null {
  const slope = part === null ? null : partOf(part);
  return slope?.family === 'slope' && carriesNext(slope) ? slope : null;
}

function roofWith(plot: Fronted, slope: Part): SlopedRoof {
  const { length, span } = sizeOf(plot);
  const form = plot.roofForm;
  /** Courses that find room over some that are laid. @param inset of those, studs */
  const room = (of: Part, inset: number): number => {
    if (form !== 'lean-to') return roofOf(Math.max(0.5, span - 2 * inset), of).plainCourses;
    // A roof of one side keeps clear of the wall behind it.
    const left = span - inset - roofWall(plot) - of.d;
    return length < 2 ? 0 : Math.max(0, Math.floor(left / runOfSlope(of)) + 1);
  };
  const lower = roofSlope(plot.lowerSlope);
  const pitches: RoofPitch[] = [];
  if (lower) pitches.push({ slope: lower, courses: Math.min(plot.lowerCourses, room(lower, 0)) });
  pitches.push({ slope, courses: room(slope, topOf(pitches).inset) });
  const laid = pitches.filter(({ courses }) => courses > 0);
  const { inset, up } = topOf(laid);
  return {
    ...{ form, pitches: laid, courses: laid.reduce((sum, { courses }) => sum + courses, 0) },
    ridge: wallTop(plot) + up + 1,
    flat: span - (form === 'lean-to' ? 1 : 2) * inset,
  };
}

/**
 * The roof of slopes of a building; null for a flat one and for a building that fills no rectangle. With the slopes that it names where they carry one another,
 * or those whose ridge comes nearest to its height, the flatter of two; below them the lower slopes of a mansard, as many
 * courses as find room.
 * @returns of no courses where the building is too narrow for any
 */
export function slopedRoofOf(plot: Fronted): SlopedRoof | null {
  if (plot.eaves === null || !isBoxed(plot)) return null;
  const own = roofSlope(plot.slope);
  if (own) return roofWith(plot, own);
  const off = (roof: SlopedRoof) => Math.abs(roof.ridge - plot.height);
  return ROOF_SLOPES.map((slope) => roofWith(plot, slope)).reduce((best, roof) =>
    off(roof) < off(best) || (off(roof) === off(best) && roof.ridge < best.ridge) ? roof : best,
  );
}

/** The pieces of a roof of slopes. Each course stands on the studs that the one below leaves free. */
export function laySlopedRoof(plot: Fronted, roof: SlopedRoof): LaidPiece[] {
  const { w, d } = builtSides(plot);
  const eaves = wallTop(plot);
  if (roof.form === 'hip') return layHip({ w, d, eaves }, roof);
  const size = { ...sizeOf(plot), eaves, thick: roofWall(plot) };
  if (roof.form === 'lean-to')
    return layLeanTo(size, roof).map((piece) => facing(piece, plot.front, size.span));
  const pieces = layGable(size, roof);
  return w >= d ? pieces : pieces.map(acrossX);
}

/** Slopes side by side, the widest first. */
const layRow = (slope: Part, length: number): { at: number; wide: number; part: string }[] =>
  longestFirst(
    length,
    slopesLike(slope).map(({ w }) => w),
  ).map(({ at, long }) => ({
    ...{ at, wide: long },
    part: partId('slope', long, slope.d, slope.h, slope.angle),
  }));

interface RoofSize {
  length: number;
  span: number;
  /** Plates above the building's ground. */
  eaves: number;
  thick: number;
}

/** One layer of bricks or plates beside a course of slopes. */
interface Layer {
  z: number;
  h: number;
  family: 'brick' | 'plate';
}

/** The layers of bricks and plates beside one course of slopes. */
function* layersBeside(slope: Part, z: number): Generator<Layer> {
  for (let up = 0; up < slope.h;) {
    const isBrick = slope.h - up >= PLATES_PER_BRICK;
    const h = isBrick ? PLATES_PER_BRICK : 1;
    yield { z: z + up, h, family: isBrick ? 'brick' : 'plate' };
    up += h;
  }
}

/** Adds a layer of the wall across one end of a roof. @returns where its pieces begin, for the layer over it */
function layEnd(
  pieces: LaidPiece[],
  { x, from, to, thick }: { x: number; from: number; to: number; thick: number },
  not: ReadonlySet<number>,
  { z, h, family }: Layer,
): ReadonlySet<number> {
  const laid = layStretch(from, to, not, thick, family);
  for (const { at, long, part } of laid)
    pieces.push({ part, use: 'wall', x, y: at, w: thick, d: long, z, h, turn: 0 });
  return new Set(laid.map(({ at }) => at));
}

/** Two sides, the ridge along x. */
function layGable({ length, span, eaves, thick }: RoofSize, { pitches, flat }: SlopedRoof): LaidPiece[] {
  const pieces: LaidPiece[] = [];
  let below: ReadonlySet<number>[] = [new Set(), new Set()];
  for (const { slope, inset: from, up } of coursesOf(pitches)) {
    const z = eaves + up;
    for (const { at, wide, part } of layRow(slope, length)) {
      const own = { part, use: 'roof' as const, x: at, w: wide, d: slope.d, z, h: slope.h };
      pieces.push({ ...own, y: from, turn: FACING.n }, { ...own, y: span - from - slope.d, turn: FACING.s });
    }
    const [a, b] = [from + slope.d, span - from - slope.d];
    if (b <= a) continue;
    for (const layer of layersBeside(slope, z))
      below = [0, length - thick].map((x, end) =>
        layEnd(pieces, { x, from: a, to: b, thick }, below[end], layer),
      );
  }
  return [...pieces, ...layFlatTop(pitches, { length, flat, eaves })];
}

/** One side that falls north, with walls behind it and at both ends that interlock. */
function layLeanTo({ length, span, eaves, thick }: RoofSize, { pitches, flat }: SlopedRoof): LaidPiece[] {
  const pieces: LaidPiece[] = [];
  let below: { west: ReadonlySet<number>; east: ReadonlySet<number>; back: ReadonlySet<number> } = {
    ...{ west: new Set(), east: new Set(), back: new Set() },
  };
  let isEven = true;
  for (const { slope, inset: from, up } of coursesOf(pitches)) {
    const z = eaves + up;
    for (const { at, wide, part } of layRow(slope, length))
      pieces.push({
        ...{ part, use: 'roof', x: at, y: from, w: wide, d: slope.d, z, h: slope.h, turn: FACING.n },
      });
    for (const layer of layersBeside(slope, z)) {
      const end = (x: number, not: ReadonlySet<number>) =>
        layEnd(pieces, { x, from: from + slope.d, to: span - (isEven ? 0 : thick), thick }, not, layer);
      const [a, b] = isEven ? [thick, length - thick] : [0, length];
      const back = a < b ? layStretch(a, b, below.back, thick, layer.family) : [];
      for (const { at: x, long, part } of back)
        pieces.push({
          part,
          use: 'wall',
          x,
          y: span - thick,
          w: long,
          d: thick,
          z: layer.z,
          h: layer.h,
          turn: 0,
        });
      below = {
        ...{ west: end(0, below.west), east: end(length - thick, below.east) },
        back: new Set(back.map(({ at: joint }) => joint)),
      };
      isEven = !isEven;
    }
  }
  return [...pieces, ...layFlatTop(pitches, { length, flat, eaves })];
}

/** Plates over the last course of a roof of one or two sides. */
function layFlatTop(
  pitches: readonly RoofPitch[],
  { length, flat, eaves }: { length: number; flat: number; eaves: number },
): LaidPiece[] {
  const { inset, up } = topOf(pitches);
  return layFloor({ x: 0, y: inset, w: length, d: flat }, eaves + up, 'roof');
}

/** Four sides that meet in corner slopes. */
function layHip(
  { w, d, eaves }: { w: number; d: number; eaves: number },
  { pitches }: SlopedRoof,
): LaidPiece[] {
  const pieces: LaidPiece[] = [];
  for (const { slope, inset: near, up } of coursesOf(pitches)) {
    const deep = slope.d;
    const corner = partId('corner-slope', deep, deep, slope.h, slope.angle);
    const own = { use: 'roof' as const, z: eaves + up, h: slope.h };
    const [east, south] = [w - near - deep, d - near - deep];
    for (const [x, y, turn] of [
      [east, south, 45],
      [near, south, 135],
      [near, near, 225],
      [east, near, 315],
    ])
      pieces.push({ part: corner, ...own, x, y, w: deep, d: deep, turn });
    for (const { at, wide, part } of layRow(slope, east - near - deep)) {
      const along = { part, ...own, x: near + deep + at, w: wide, d: deep };
      pieces.push({ ...along, y: near, turn: FACING.n }, { ...along, y: south, turn: FACING.s });
    }
    for (const { at, wide, part } of layRow(slope, south - near - deep)) {
      const along = { part, ...own, y: near + deep + at, w: deep, d: wide };
      pieces.push({ ...along, x: near, turn: FACING.w }, { ...along, x: east, turn: FACING.e });
    }
  }
  const { inset, up } = topOf(pitches);
  const top = { x: inset, y: inset, w: w - 2 * inset, d: d - 2 * inset };
  return [...pieces, ...layFloor(top, eaves + up, 'roof')];
}

/** A piece with x and y exchanged: what fell north falls west, what fell south east. */
const acrossX = ({ x, y, w, d, turn, ...piece }: LaidPiece): LaidPiece => ({
  ...piece,
  ...{ x: y, y: x, w: d, d: w },
  turn: turn === FACING.n ? FACING.w : turn === FACING.s ? FACING.e : turn,
});

/** A piece of a roof that falls north, turned or mirrored to fall to a side. @param span across its courses, studs */
function facing(piece: LaidPiece, side: Side, span: number): LaidPiece {
  const mirrored = (one: LaidPiece): LaidPiece => ({
    ...one,
    y: span - one.y - one.d,
    turn: one.turn === FACING.n ? FACING.s : one.turn,
  });
  if (side === 'n') return piece;
  if (side === 's') return mirrored(piece);
  return acrossX(side === 'w' ? piece : mirrored(piece));
}
