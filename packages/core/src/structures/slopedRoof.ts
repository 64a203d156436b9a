import {
  roofCoursesOf,
  roofSizeOf,
  roofTopOf,
  roofWall,
  type RoofPitch,
  type SlopedRoof,
} from '../terrain/index.ts';
import { partId, slopesLike, type Part } from '../catalogue/index.ts';
import { PLATES_PER_BRICK } from '../grid/index.ts';
import { wallTop, type Side, builtSides } from '../document/index.ts';
import { type Fronted } from './fronts.ts';
import { layFloor } from './floors.ts';
import type { LaidPiece } from './piece.ts';
import { longestFirst } from './row.ts';
import { FACING, layStretch } from './walls.ts';

// Roofs of slopes over the eaves: of two sides with walls at both ends, hipped to all four sides, or of one side that
// leans on a wall. A flat top of plates where no further slopes find room.

/** The pieces of a roof of slopes. Each course stands on the studs that the one below leaves free. */
export function laySlopedRoof(plot: Fronted, roof: SlopedRoof): LaidPiece[] {
  const { w, d } = builtSides(plot);
  const eaves = wallTop(plot);
  if (roof.form === 'hip') return layHip({ w, d, eaves }, roof);
  const size = { ...roofSizeOf(plot), eaves, thick: roofWall(plot) };
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
  for (const { slope, inset: from, up } of roofCoursesOf(pitches)) {
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
  for (const { slope, inset: from, up } of roofCoursesOf(pitches)) {
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
  const { inset, up } = roofTopOf(pitches);
  return layFloor({ x: 0, y: inset, w: length, d: flat }, eaves + up, 'roof');
}

/** Four sides that meet in corner slopes. */
function layHip(
  { w, d, eaves }: { w: number; d: number; eaves: number },
  { pitches }: SlopedRoof,
): LaidPiece[] {
  const pieces: LaidPiece[] = [];
  for (const { slope, inset: near, up } of roofCoursesOf(pitches)) {
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
  const { inset, up } = roofTopOf(pitches);
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
