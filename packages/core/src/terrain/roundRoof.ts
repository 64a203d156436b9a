import {
  PLATES_PER_BRICK,
  commonRows,
  discWithin,
  grownRows,
  insideRows,
  studsOfRows,
  type Rect,
  type StudRow,
} from '../grid/index.ts';
import { isRound, roundRoom, roundRows, wallStuds, wallTop, type Plot } from '../document/index.ts';

// What closes a round building over its eaves: rings of bricks that draw in course by course, and plates over the last.

type Roofed = Pick<Plot, 'w' | 'd' | 'wall' | 'shape' | 'height' | 'eaves' | 'roundRoof'>;

/** One course of a round roof; rows from the north-west corner of the building. */
export interface RoofRing {
  /** Plates above the building's ground. */
  z: number;
  /** All within its outer face, and what it leaves open. */
  outer: StudRow[];
  hole: StudRow[];
}

export interface RoundRoof {
  /** It is too flat to draw in over the room: a floor of plates lies under it. */
  hasFloor: boolean;
  /** From the eaves up. */
  rings: RoofRing[];
  /** Top of the plates that close it, plates above the building's ground. */
  top: number;
}

/** The plates that close a roof reach over a hole of at most so many studs a side. */
const CLOSED = 4;

/**
 * The roof of a round building that rises over its eaves: a cone or half an oval as high as its height allows, each ring
 * a stud at most over the inside of the one below.
 * @returns null for other buildings, for a flat roof, and where there is no height for a ring
 */
export function roundRoofOf(plot: Roofed): RoundRoof | null {
  if (!isRound(plot) || plot.eaves === null) return null;
  const before = roofs.get(plot);
  if (before !== undefined) return before;
  const roof = closeOver(plot);
  roofs.set(plot, roof);
  return roof;
}
/** Plots never change, and each fitting and place of a figure asks. */
const roofs = new WeakMap<object, RoundRoof | null>();

function closeOver(plot: Roofed): RoundRoof | null {
  const eaves = wallTop(plot);
  const high = Math.round(plot.height) - eaves;
  const ringsOf = (floor: number) =>
    ringsFrom(plot, eaves + floor, Math.floor((high - floor - 1) / PLATES_PER_BRICK));
  const free = ringsOf(0);
  if (free.length === 0) return null;
  // What the first ring may leave open at most, so that it lies on the walls.
  const overWalls = insideRows(roundRoom(plot), 1);
  const hasFloor = studsOfRows(commonRows(overWalls, free[0].hole)) < studsOfRows(overWalls);
  const rings = hasFloor ? ringsOf(1) : free;
  return rings.length === 0
    ? null
    : { hasFloor, rings, top: eaves + (hasFloor ? 1 : 0) + rings.length * PLATES_PER_BRICK + 1 };
}

function ringsFrom(plot: Roofed, from: number, count: number): RoofRing[] {
  const rows = roundRows(plot);
  const [w, d] = [Math.max(1, Math.round(plot.w)), rows.length];
  const outers = Array.from({ length: Math.max(0, count) }, (_, ring) => {
    const up = ring / count;
    const share = plot.roundRoof === 'dome' ? Math.sqrt(1 - up * up) : 1 - up;
    const off = (size: number) => Math.min(Math.round((size * (1 - share)) / 2), Math.floor((size - 1) / 2));
    return discWithin(w, d, { x: off(w), y: off(d) });
  });
  const least = (size: number) => Math.max(0, Math.ceil((size - CLOSED) / 2));
  let hole = discWithin(w, d, { x: least(w), y: least(d) });
  const rings: RoofRing[] = [];
  for (let ring = outers.length - 1; ring >= 0; ring--) {
    // The next ring stands on this one, and reaches in over it by a stud.
    hole = commonRows(insideRows(outers.at(ring + 1) ?? outers[ring], 1), hole);
    rings.unshift({ z: from + ring * PLATES_PER_BRICK, outer: outers[ring], hole });
    hole = grownRows(hole, 1);
  }
  return rings;
}

/**
 * How far a rectangle of a round room's floor is off its wall at least, studs: by its corner that is farthest out, as a
 * share of the way from the middle to the wall. 0: it touches it, or stands in it.
 * @param room sides of the room @param rect from the inside of the north-west corner
 */
export function offRoundWall(room: { w: number; d: number }, { x, y, w, d }: Rect): number {
  const [rx, ry] = [room.w / 2, room.d / 2];
  const out = Math.hypot(
    Math.max(Math.abs(x - rx), Math.abs(x + w - rx)) / rx,
    Math.max(Math.abs(y - ry), Math.abs(y + d - ry)) / ry,
  );
  return Math.max(0, (1 - out) * Math.min(rx, ry));
}

const covers = new WeakMap<object, readonly { z: number; to: number }[]>();

/** For each ring of a roof how far off the wall it covers any of the room, studs, from the eaves up. */
function coversOf(plot: Roofed, rings: readonly RoofRing[]): readonly { z: number; to: number }[] {
  const before = covers.get(plot);
  if (before) return before;
  const room = roundRoom(plot);
  const thick = wallStuds(plot);
  const sides = { w: Math.round(plot.w) - 2 * thick, d: room.length - 2 * thick };
  const found = rings.map(({ z, outer, hole }) => {
    let to = -Infinity;
    room.forEach((row, y) => {
      for (let x = row.from; x < row.to; x++) {
        const isCovered = x >= outer[y].from && x < outer[y].to && !(x >= hole[y].from && x < hole[y].to);
        if (isCovered) to = Math.max(to, offRoundWall(sides, { x: x - thick, y: y - thick, w: 1, d: 1 }));
      }
    });
    return { z, to };
  });
  covers.set(plot, found);
  return found;
}

/**
 * Height of the inside of a round roof at a distance from the inside of the wall, plates above the building's ground.
 * @param from studs off the wall, as `offRoundWall` has them
 */
export function underRoundRoof(plot: Roofed, { hasFloor, rings, top }: RoundRoof, from: number): number {
  if (hasFloor) return wallTop(plot);
  return coversOf(plot, rings).find(({ to }) => to >= from - TIE)?.z ?? top - 1;
}
const TIE = 1e-9;
