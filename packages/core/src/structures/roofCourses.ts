import { partId } from '../catalogue/index.ts';
import { boundsOf, studsOfRect } from '../grid/index.ts';
import {
  cornersOf,
  endWalls,
  liesOn,
  rectAlong,
  rowOf,
  type RoofPlan,
  type RoofSide,
} from '../terrain/index.ts';
import { layFloor } from './floors.ts';
import type { LaidPiece } from './piece.ts';
import { layCap, layMask } from './round.ts';
import { layRow, layersBeside } from './slopeRow.ts';
import { FACING, layStretch } from './walls.ts';

// Roofs that fall to two sides or to all, over any area: courses of slopes round its corners, walls under its ends, and
// plates where no further slopes find room.

/** What a roof over an area stands on. */
interface RoofBase {
  /** Plates above the building's ground. */
  eaves: number;
  /** Thickness of the walls under its ends, studs. */
  thick: number;
}

/** A roof of two sides or of all: courses of slopes, with corner slopes round outer corners and valley slopes in inner ones. */
export function layCourses(plan: RoofPlan, { eaves, thick }: RoofBase): LaidPiece[] {
  const pieces: LaidPiece[] = [];
  let joints: ReadonlyMap<RoofSide, ReadonlySet<number>> = new Map();
  for (const level of plan.levels) {
    const { slope, up, edges, under, closed } = level;
    const z = eaves + up;
    const own = { use: 'roof' as const, z, h: slope.h };
    for (const { isOuter, falls, ...rect } of edges.flatMap((edge) => cornersOf(edge, slope.d))) {
      const family = isOuter ? 'corner-slope' : 'valley-slope';
      const part = partId(family, slope.d, slope.d, slope.h, slope.angle);
      pieces.push({ part, ...own, ...rect, turn: CORNER_FALLS[falls] });
    }
    for (const edge of edges) {
      const { from, to } = rowOf(edge, slope);
      const isBorne = (along: number) => liesOn(plan.w, edge, from + along, slope.d, under);
      for (const { at, wide, part } of layRow(slope, to - from, isBorne))
        pieces.push({ part, ...own, ...rectAlong(edge, from + at, wide, slope.d), turn: FACING[edge.faces] });
    }
    const walls = endWalls(plan, level, thick);
    for (const layer of layersBeside(slope, z)) {
      const found = new Map<RoofSide, Set<number>>();
      for (const { side, from, to, thick: wide } of walls) {
        const places = found.get(side) ?? new Set();
        found.set(side, places);
        for (const { at, long, part } of layStretch(from, to, joints.get(side) ?? NONE, wide, layer.family)) {
          pieces.push({
            part,
            use: 'wall',
            ...rectAlong(side, at, long, wide),
            z: layer.z,
            h: layer.h,
            turn: 0,
          });
          places.add(at);
        }
      }
      joints = found;
    }
    pieces.push(...layClosed(plan, closed, z));
  }
  return [...pieces, ...layTop(plan, pieces, eaves + plan.top.up)];
}

/** The plates that close a roof over its last course: where some would hang, strips from one side to the other. */
function layTop(plan: RoofPlan, below: readonly LaidPiece[], z: number): LaidPiece[] {
  const { w, d, top } = plan;
  const plates = layClosed(plan, top.closed, z);
  const under = new Uint8Array(w * d);
  for (const piece of below) if (piece.z + piece.h === z) for (const i of studsOfRect(piece, w)) under[i] = 1;
  return plates.every((plate) => studsOfRect(plate, w).some((i) => under[i]))
    ? plates
    : layCap(top.closed, under, w, z);
}

const NONE: ReadonlySet<number> = new Set();

/** One layer of plates over what is too narrow for slopes. */
function layClosed({ w, d }: RoofPlan, mask: Uint8Array, z: number): LaidPiece[] {
  if (!mask.includes(1)) return [];
  const studs = [...mask.keys()].filter((i) => mask[i]);
  const all = boundsOf(studs.map((i) => ({ x: i % w, y: Math.trunc(i / w), w: 1, d: 1 })));
  return all.w * all.d === studs.length ? layFloor(all, z, 'roof') : layMask({ mask, w, d }, z, 'roof');
}

/** The way a corner falls, degrees clockwise from east. */
const CORNER_FALLS = { nw: 225, ne: 315, se: 45, sw: 135 } as const;
