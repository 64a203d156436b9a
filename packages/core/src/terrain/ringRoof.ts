import {
  PLATES_PER_BRICK,
  boxArea,
  commonArea,
  discWithin,
  grownArea,
  insideArea,
  offArea,
  studsOfArea,
  type Rect,
  type StudArea,
  rememberFor,
} from '../grid/index.ts';
import {
  builtSides,
  isRound,
  roofFormOf,
  roomArea,
  studsBuilt,
  wallStuds,
  wallTop,
  type Plot,
} from '../document/index.ts';

// What closes a building that fills no rectangle over its eaves: rings of bricks that draw in course by course, and plates
// over the last.

type Roofed = Pick<
  Plot,
  | 'x'
  | 'y'
  | 'w'
  | 'd'
  | 'front'
  | 'streetFront'
  | 'pavement'
  | 'wall'
  | 'shape'
  | 'notches'
  | 'recesses'
  | 'height'
  | 'eaves'
  | 'roofForm'
  | 'roundRoof'
>;

/** One course of such a roof; areas from the north-west corner of the building. */
export interface RoofRing {
  /** Plates above the building's ground. */
  z: number;
  /** All within its outer face, and what it leaves open. */
  outer: StudArea;
  hole: StudArea;
}

export interface RingRoof {
  /** It is too flat to draw in over the room: a floor of plates lies under it. */
  hasFloor: boolean;
  /** From the eaves up. */
  rings: RoofRing[];
  /** Top of the plates that close it, plates above the building's ground. */
  top: number;
}

/** Studs of the uppermost ring at least, where corners are left out: of a small square in a bend one would be a chimney. */
const RIDGE = 4;
/** The plates that close a roof reach over a hole of at most so many studs a side. */
const CLOSED = 4;

/**
 * The roof of a building that fills no rectangle and rises over its eaves: a cone or half an oval as high as its height
 * allows; over an L, a T or a Z what is as far from the walls all round, so that it has hips and valleys. Each ring lies a
 * stud at most over the inside of the one below.
 * @returns null for other roofs, and where there is no height for a ring
 */
export const ringRoofOf = rememberFor((plot: Roofed): RingRoof | null =>
  plot.eaves === null || roofFormOf(plot) !== 'stepped' ? null : closeOver(plot),
);

function closeOver(plot: Roofed): RingRoof | null {
  const eaves = wallTop(plot);
  const high = Math.round(plot.height) - eaves;
  const ringsOf = (floor: number) =>
    ringsFrom(plot, eaves + floor, Math.floor((high - floor - 1) / PLATES_PER_BRICK));
  const free = ringsOf(0);
  if (free.length === 0) return null;
  // What the first ring may leave open at most, so that it lies on the walls.
  const overWalls = insideArea(roomArea(plot) ?? boxArea(0, 0), 1);
  const hasFloor = studsOfArea(commonArea(overWalls, free[0].hole)) < studsOfArea(overWalls);
  const rings = hasFloor ? ringsOf(1) : free;
  return rings.length === 0
    ? null
    : { hasFloor, rings, top: eaves + (hasFloor ? 1 : 0) + rings.length * PLATES_PER_BRICK + 1 };
}

function ringsFrom(plot: Roofed, from: number, count: number): RoofRing[] {
  const { outer, closed } = layersOf(plot);
  const outers = Array.from({ length: Math.max(0, count) }, (_, ring) => {
    const up = ring / count;
    return outer(plot.roundRoof === 'dome' ? Math.sqrt(1 - up * up) : 1 - up);
  });
  let hole = closed;
  const rings: RoofRing[] = [];
  for (let ring = outers.length - 1; ring >= 0; ring--) {
    // The next ring stands on this one, and reaches in over it by a stud.
    hole = commonArea(insideArea(outers.at(ring + 1) ?? outers[ring], 1), hole);
    rings.unshift({ z: from + ring * PLATES_PER_BRICK, outer: outers[ring], hole });
    hole = grownArea(hole, 1);
  }
  return rings;
}

/**
 * What is within a ring by the share of the way from the middle that is left, 1 to 0, and what the plates of the last one
 * reach over.
 */
function layersOf(plot: Roofed): { outer: (share: number) => StudArea; closed: StudArea } {
  if (isRound(plot)) {
    const { w, d } = builtSides(plot);
    const off = (size: number, share: number) =>
      Math.min(Math.round((size * (1 - share)) / 2), Math.floor((size - 1) / 2));
    const least = (size: number) => Math.max(0, Math.ceil((size - CLOSED) / 2));
    return {
      outer: (share) => discWithin(w, d, { x: off(w, share), y: off(d, share) }),
      closed: discWithin(w, d, { x: least(w), y: least(d) }),
    };
  }
  const area = studsBuilt(plot);
  // So many studs can be taken off all round before no plate’s worth is left: the ridge is about two studs wide there.
  let deep = 0;
  while (studsOfArea(insideArea(area, deep + 1)) >= RIDGE) deep++;
  return {
    outer: (share) => insideArea(area, Math.min(deep, Math.round((deep + 1) * (1 - share)))),
    closed: insideArea(area, Math.max(0, deep + 1 - CLOSED / 2)),
  };
}

/**
 * How far a rectangle of a round room's floor is off its wall at least, studs: by its corner that is farthest out, as a
 * share of the way from the middle to the wall. 0: it touches it, or stands in it.
 * @param room sides of the room @param rect from the inside of the north-west corner
 */
function offRoundWall(room: { w: number; d: number }, { x, y, w, d }: Rect): number {
  const [rx, ry] = [room.w / 2, room.d / 2];
  const out = Math.hypot(
    Math.max(Math.abs(x - rx), Math.abs(x + w - rx)) / rx,
    Math.max(Math.abs(y - ry), Math.abs(y + d - ry)) / ry,
  );
  return Math.max(0, (1 - out) * Math.min(rx, ry));
}

/**
 * How far a rectangle of the floor of a building that fills no rectangle is off its walls at least, studs. 0: it touches
 * one, or stands in it.
 * @param rect from the inside of the north-west corner
 */
export function offWallOf(plot: Roofed, rect: Rect): number {
  const thick = wallStuds(plot);
  const inside = (size: number) => Math.max(1, Math.round(size)) - 2 * thick;
  return isRound(plot)
    ? offRoundWall({ w: inside(plot.w), d: inside(plot.d) }, rect)
    : offArea(roomArea(plot) ?? boxArea(0, 0), { ...rect, x: rect.x + thick, y: rect.y + thick });
}

const covers = new WeakMap<object, readonly { z: number; to: number }[]>();

/** For each ring of a roof how far off the wall it covers any of the room, studs, from the eaves up. */
function coversOf(plot: Roofed, rings: readonly RoofRing[]): readonly { z: number; to: number }[] {
  const before = covers.get(plot);
  if (before) return before;
  const room = roomArea(plot) ?? boxArea(0, 0);
  const thick = wallStuds(plot);
  const offs = Float64Array.from(room.mask, (on, i) => {
    const [x, y] = [(i % room.w) - thick, Math.trunc(i / room.w) - thick];
    return on ? offWallOf(plot, { x, y, w: 1, d: 1 }) : -Infinity;
  });
  const found = rings.map(({ z, outer, hole }) => ({
    z,
    to: offs.reduce(
      (most, off, i) => (outer.mask[i] && !hole.mask[i] ? Math.max(most, off) : most),
      -Infinity,
    ),
  }));
  covers.set(plot, found);
  return found;
}

/**
 * Height of the inside of a roof of rings at a distance from the inside of the wall, plates above the building's ground.
 * @param from studs off the wall, as `offWallOf` has them
 */
export function underRingRoof(plot: Roofed, { hasFloor, rings, top }: RingRoof, from: number): number {
  if (hasFloor) return wallTop(plot);
  return coversOf(plot, rings).find(({ to }) => to >= from - TIE)?.z ?? top - 1;
}
const TIE = 1e-9;
