import {
  roofCoursesOf,
  roofPlanOf,
  roofSizeOf,
  roofTopOf,
  roofWall,
  type RoofPitch,
  type SlopedRoof,
} from '../terrain/index.ts';
import { wallTop, type Side } from '../document/index.ts';
import type { Fronted } from './fronts.ts';
import { layFloor } from './floors.ts';
import type { LaidPiece } from './piece.ts';
import { layCourses } from './roofCourses.ts';
import { layRow, layersBeside, type Layer } from './slopeRow.ts';
import { FACING, layStretch } from './walls.ts';

// Roofs of slopes over the eaves: of two sides with walls at their ends, hipped to all sides, or of one side that leans on
// a wall. A flat top of plates where no further slopes find room.

/** The pieces of a roof of slopes. Each course stands on the studs that the one below leaves free. */
export function laySlopedRoof(plot: Fronted, roof: SlopedRoof): LaidPiece[] {
  const eaves = wallTop(plot);
  if (roof.form !== 'lean-to')
    return layCourses(roofPlanOf(plot, roof.pitches), { eaves, thick: roofWall(plot) });
  const size = { ...roofSizeOf(plot), eaves, thick: roofWall(plot) };
  return layLeanTo(size, roof).map((piece) => facing(piece, plot.front, size.span));
}

interface RoofSize {
  length: number;
  span: number;
  /** Plates above the building's ground. */
  eaves: number;
  thick: number;
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
