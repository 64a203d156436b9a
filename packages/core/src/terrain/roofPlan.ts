import type { Part } from '../catalogue/index.ts';
import { runOfSlope } from '../catalogue/index.ts';
import { insideArea, outlineOfArea, studsOfRect, type Rect, type StudArea } from '../grid/index.ts';
import { SIDES, depthBehind, firstBehind, runsEast, type CORNERS, type Side } from '../document/index.ts';

// How courses of slopes lie over an area of studs that is no rectangle: each course follows the sides of what the one below
// leaves free, round its outer and inner corners. A wing too narrow for another course is closed with plates, and the
// course over the rest runs on across it.

/** A side of an area, studs from its north-west corner: the way it faces, where it lies across that, from and to along it. */
export interface RoofSide {
  faces: Side;
  at: number;
  from: number;
  to: number;
  /** The area has a wall under the roof there; else the roof falls to it. */
  isEnd: boolean;
}

/** A course of slopes. Masks: 1 for each stud of a raster as wide as the area. */
export interface RoofLevel {
  slope: Part;
  /** Plates over the eaves. */
  up: number;
  /** Its outer faces. */
  edges: readonly RoofEdge[];
  /** Studs from the sides that it falls to, 1 along them; 0 outside. */
  off: Uint8Array;
  /** What it lies on: the walls, or the course below. */
  under: Uint8Array;
  /** What plates close at its foot, because it is too narrow for this course. */
  closed: Uint8Array;
}

/** A roof over an area. */
export interface RoofPlan {
  w: number;
  d: number;
  sides: readonly RoofSide[];
  /** Courses that each of its pitches has. */
  courses: number[];
  /** From the eaves up. */
  levels: readonly RoofLevel[];
  /** What plates close over the last course, and how far up over the eaves that is. */
  top: { closed: Uint8Array; up: number };
  /** Side of the largest square of it, studs; between both sides of a roof with end walls. */
  flat: number;
}

const FACES: readonly { x: number; y: number; faces: Side }[] = [
  { x: 1, y: 0, faces: 'n' },
  { x: 0, y: 1, faces: 'e' },
  { x: -1, y: 0, faces: 's' },
  { x: 0, y: -1, faces: 'w' },
];

/**
 * The sides of an area, clockwise. Of a roof of two sides those with walls under it are the shortest between two outer
 * corners, none next to another: both ends of a box, of an L the end of either wing. What stands out less than half as far
 * as it is wide is no wing, and its side is an end only where no other can be. None ends a wing that is wider than it is
 * deep there, as the back of a U is, nor faces another wing.
 * @param hasEnds false: a roof that falls to all sides
 */
export function roofSides(area: StudArea, hasEnds: boolean): RoofSide[] {
  const corners = outlineOfArea(area);
  const after = (i: number, by: number) => (i + by + corners.length) % corners.length;
  const sides = corners.map((a, i): RoofSide => {
    const b = corners[after(i, 1)];
    const way = [Math.sign(b.x - a.x), Math.sign(b.y - a.y)];
    const faces = FACES.find(({ x, y }) => x === way[0] && y === way[1])?.faces ?? 'n';
    const [at, from, to] = runsEast(faces) ? [a.y, a.x, b.x] : [a.x, a.y, b.y];
    return { faces, at, from: Math.min(from, to), to: Math.max(from, to), isEnd: false };
  });
  if (!hasEnds) return sides;
  const long = (i: number) => sides[i].to - sides[i].from;
  const beside = (i: number) => [after(i, -1), after(i, 1)];
  const turnsOut = (from: number, to: number) =>
    SIDES.indexOf(sides[to].faces) === (SIDES.indexOf(sides[from].faces) + 1) % SIDES.length;
  const isWing = (i: number) => Math.min(...beside(i).map(long)) >= long(i) / 2;
  const order = [...sides.keys()]
    .filter((i) => turnsOut(after(i, -1), i) && turnsOut(i, after(i, 1)) && canEnd(area, sides[i]))
    .toSorted(
      (a, b) =>
        Number(isWing(b)) - Number(isWing(a)) ||
        long(a) - long(b) ||
        // Of a square the ridge runs from west to east.
        Number(runsEast(sides[a].faces)) - Number(runsEast(sides[b].faces)),
    );
  for (const i of order)
    if (!beside(i).some((next) => sides[next].isEnd)) sides[i] = { ...sides[i], isEnd: true };
  return sides;
}

/** Whether an area is as deep behind a side as that is long, but for a step, and nothing of it lies before the side. */
function canEnd(area: StudArea, { faces, at, from, to }: RoofSide): boolean {
  const long = to - from;
  const back = faces === 'n' || faces === 'w' ? at : (runsEast(faces) ? area.d : area.w) - at;
  const along = Array.from({ length: long }, (_, i) => from + i);
  return (
    along.every((one) => firstBehind(area, faces, one).back >= back) &&
    along.filter((one) => depthBehind(area, faces, one, back) >= long).length >= DEEP_SHARE * long
  );
}
/** Share of a side behind which an area is as deep as the side is long, where it ends a wing. */
const DEEP_SHARE = 0.75;

/** How far a rectangle of an area is off the nearest side that its roof falls to, studs; 0: it touches one. */
export const offSides = (sides: readonly RoofSide[], { x, y, w, d }: Rect): number =>
  Math.max(
    0,
    Math.min(
      ...sides
        .filter(({ isEnd }) => !isEnd)
        .map(({ faces, at, from, to }) => {
          const [near, far, low, high] = runsEast(faces) ? [y, y + d, x, x + w] : [x, x + w, y, y + d];
          return Math.max(Math.max(at - far, near - at), Math.max(from - high, low - to));
        }),
    ),
  );

/**
 * Lays out the courses of a roof. A course finds room where two of its slopes fit back to back.
 * @param pitches from the eaves up, with the most courses of each @param wall thickness of the walls at the eaves, studs
 */
export function planRoof(
  area: StudArea,
  sides: readonly RoofSide[],
  pitches: readonly { slope: Part; courses: number }[],
  wall: number,
): RoofPlan {
  const { w, d } = area;
  const pad = 2 * pitches.reduce((deep, { slope }) => Math.max(deep, slope.d), 1);
  const field: Field = { w, d, pad, ends: sides.filter(({ isEnd }) => isEnd) };
  const levels: RoofLevel[] = [];
  const room = insideArea(area, wall).mask;
  let [free, up] = [area.mask, 0];
  let under: Uint8Array = free.map((on, i) => (room[i] ? 0 : on));
  const laid = pitches.map(({ slope, courses }) => {
    for (let course = 0; course < courses; course++) {
      const { within, edges } = partedRoom(field, free, slope);
      const off = offOutside(field, within);
      if (edges.length === 0 || !isCovered(field, { slope, edges, off, under })) return course;
      levels.push({ slope, up, edges, off, under, closed: free.map((on, i) => (on && !within[i] ? 1 : 0)) });
      free = off.map((by) => (by > runOfSlope(slope) ? 1 : 0));
      under = courseStuds({ off, slope });
      up += slope.h;
    }
    return courses;
  });
  const flat = squares(field, extended(field, free)).reduce((most, size) => Math.max(most, size), 0);
  return { w, d, sides, courses: laid, levels, top: { closed: free, up }, flat };
}

/** The studs that the slopes of a course cover: 1, else 0. */
export const courseStuds = ({ off, slope }: Pick<RoofLevel, 'off' | 'slope'>): Uint8Array =>
  off.map((by) => (by > 0 && by <= slope.d ? 1 : 0));

/** A straight side of a course, and how it ends: at an outer or an inner corner, or over a wall of its own. */
export interface RoofEdge extends Pick<RoofSide, 'faces' | 'at' | 'from' | 'to'> {
  ends: { from: EdgeEnd; to: EdgeEnd };
}
export type EdgeEnd = 'outer' | 'inner' | 'wall';

/** The sides of a mask to which a roof falls. */
function edgesOf(field: Field, mask: Uint8Array): RoofEdge[] {
  const { w, d } = field;
  const wide = wideOf(field);
  // Of the studs beyond an end wall the first: the roof does not fall there.
  const on = extended(field, mask, 1);
  const first = indexOf(field, 0, 0);
  const edges: RoofEdge[] = [];
  for (const faces of SIDES) {
    const isX = runsEast(faces);
    const [length, lines] = isX ? [w, d] : [d, w];
    const [step, next] = isX ? [1, wide] : [wide, 1];
    const [ownStep, ownNext] = isX ? [1, w] : [w, 1];
    const isBefore = faces === 'n' || faces === 'w';
    const out = isBefore ? -next : next;
    for (let line = 0; line < lines; line++) {
      const begin = first + line * next;
      const isEdge = (along: number) =>
        mask[line * ownNext + along * ownStep] === 1 && on[begin + along * step + out] === 0;
      const endAt = (along: number): EdgeEnd => {
        const i = begin + along * step;
        return on[i] === 0 ? 'outer' : on[i + out] === 1 ? 'inner' : 'wall';
      };
      for (let from = 0; from < length; from++) {
        if (!isEdge(from)) continue;
        let to = from + 1;
        while (to < length && isEdge(to)) to++;
        const ended = { from: endAt(from - 1), to: endAt(to) };
        edges.push({ faces, at: isBefore ? line : line + 1, from, to, ends: ended });
        from = to;
      }
    }
  }
  return edges;
}

/** A rectangle along a side, so many studs deep behind it. */
export function rectAlong(
  { faces, at }: Pick<RoofSide, 'faces' | 'at'>,
  from: number,
  long: number,
  deep: number,
): Rect {
  const across = faces === 'n' || faces === 'w' ? at : at - deep;
  return runsEast(faces)
    ? { x: from, y: across, w: long, d: deep }
    : { x: across, y: from, w: deep, d: long };
}

/** A stretch of a wall under an end of a roof, studs along its side, and how thick it is. */
export interface EndWall {
  side: RoofSide;
  from: number;
  to: number;
  thick: number;
}

/** Where the walls at the ends of a roof stand beside a course, as thick as they find room. @param thick they are meant to be, studs */
export function endWalls(
  { w, d, sides }: Pick<RoofPlan, 'w' | 'd' | 'sides'>,
  { off, slope }: Pick<RoofLevel, 'off' | 'slope'>,
  thick: number,
): EndWall[] {
  const open = off.map((by) => (by > slope.d ? 1 : 0));
  const walls: EndWall[] = [];
  for (const side of sides) {
    if (!side.isEnd) continue;
    const inwards = side.faces === 'n' || side.faces === 'w' ? 1 : -1;
    const take = (along: number, deep: number): boolean => {
      const { x, y } = rectAlong({ faces: side.faces, at: side.at + inwards * deep }, along, 1, 1);
      const isOpen = x >= 0 && y >= 0 && x < w && y < d && open[y * w + x] === 1;
      if (isOpen) open[y * w + x] = 0;
      return isOpen;
    };
    for (let along = side.from; along < side.to; along++) {
      let deep = 0;
      while (deep < thick && take(along, deep)) deep++;
      const last = walls.at(-1);
      if (deep > 0 && last?.side === side && last.to === along && last.thick === deep) last.to++;
      else if (deep > 0) walls.push({ side, from: along, to: along + 1, thick: deep });
    }
  }
  return walls;
}

/** Where a slope of a corner lies, studs; round an outer corner or in an inner one, and the way it falls. */
export interface RoofCorner extends Rect {
  isOuter: boolean;
  falls: (typeof CORNERS)[number];
}

/** The corners at both ends of a northern or southern side: each corner has one such side. */
export function cornersOf(edge: RoofEdge, deep: number): RoofCorner[] {
  const { faces, from, to, ends } = edge;
  if (faces !== 'n' && faces !== 's') return [];
  const at = (end: EdgeEnd, isWest: boolean): RoofCorner[] => {
    if (end === 'wall') return [];
    // An outer corner lies within its side, an inner one beyond it; both fall out of the area there.
    const isOuter = end === 'outer';
    const x = isWest ? (isOuter ? from : from - deep) : isOuter ? to - deep : to;
    return [
      { ...rectAlong(edge, x, deep, deep), isOuter, falls: `${faces}${isOuter === isWest ? 'w' : 'e'}` },
    ];
  };
  return [...at(ends.from, true), ...at(ends.to, false)];
}

/** Where the slopes along a side begin and end: between the corner slopes at its outer corners. */
export function rowOf({ from, to, ends }: RoofEdge, { d }: Part): { from: number; to: number } {
  const atCorner = (end: EdgeEnd) => (end === 'outer' ? d : 0);
  return { from: from + atCorner(ends.from), to: to - atCorner(ends.to) };
}

/** Whether a stud along a side lies on something, so many studs deep. */
export const liesOn = (
  w: number,
  edge: RoofEdge,
  along: number,
  deep: number,
  under: Uint8Array,
): boolean => {
  const rect = rectAlong(edge, along, 1, deep);
  for (let k = 0; k < deep; k++) {
    const [x, y] = rect.w > 1 ? [rect.x + k, rect.y] : [rect.x, rect.y + k];
    if (under[y * w + x]) return true;
  }
  return false;
};

/**
 * Whether corners and rows of slopes cover a course, each stud once, and outer corners and rows lie on something: not round a
 * step that is shorter than they are deep, nor over a gap as wide as a row.
 */
function isCovered(field: Field, level: Omit<RoofLevel, 'up' | 'closed'>): boolean {
  const { slope, edges, under } = level;
  const { w, d } = field;
  const left = courseStuds(level);
  const take = ({ x, y, w: wide, d: deep }: Rect): boolean => {
    if (x < 0 || y < 0 || x + wide > w || y + deep > d) return false;
    return studsOfRect({ x, y, w: wide, d: deep }, w).every((i) => {
      const isFree = left[i] === 1;
      left[i] = 0;
      return isFree;
    });
  };
  // In an inner corner beside a flat neck one hangs on the course over it.
  const isBorne = ({ isOuter, ...rect }: RoofCorner) =>
    !isOuter || studsOfRect(rect, w).some((i) => under[i]);
  const isRowLaid = (edge: RoofEdge): boolean => {
    const { from, to } = rowOf(edge, slope);
    let liesThere = from === to;
    for (let along = from; along < to; along++) liesThere ||= liesOn(w, edge, along, slope.d, under);
    return liesThere && from <= to && take(rectAlong(edge, from, to - from, slope.d));
  };
  return (
    edges.flatMap((edge) => cornersOf(edge, slope.d)).every((corner) => take(corner) && isBorne(corner)) &&
    edges.every(isRowLaid) &&
    !left.includes(1)
  );
}

interface Field {
  w: number;
  d: number;
  /** Studs of it that are looked at beyond each side. */
  pad: number;
  ends: readonly RoofSide[];
}

const wideOf = ({ w, pad }: Field): number => w + 2 * pad;
const indexOf = (field: Field, x: number, y: number): number =>
  (y + field.pad) * wideOf(field) + x + field.pad;

/** A mask with a border round it, in which it runs on beyond its end walls. @param reach so many studs far, at most the border */
function extended(field: Field, mask: Uint8Array, reach = field.pad): Uint8Array {
  const { w, d, pad, ends } = field;
  const wide = new Uint8Array(wideOf(field) * (d + 2 * pad));
  for (let y = 0; y < d; y++) wide.set(mask.subarray(y * w, (y + 1) * w), indexOf(field, 0, y));
  for (const { faces, at, from, to } of ends)
    for (let along = from; along < to; along++) {
      const isBefore = faces === 'n' || faces === 'w';
      const edge = isBefore ? at : at - 1;
      const place = (across: number) =>
        runsEast(faces) ? indexOf(field, along, across) : indexOf(field, across, along);
      if (!wide[place(edge)]) continue;
      for (let by = 1; by <= reach; by++) wide[place(isBefore ? edge - by : edge + by)] = 1;
    }
  return wide;
}

/** For each stud the side of the largest square of a mask that ends with it at the south-east. */
function squares(field: Field, mask: Uint8Array): Uint8Array {
  const wide = wideOf(field);
  const size = new Uint8Array(mask.length);
  for (let i = 0; i < mask.length; i++) {
    if (!mask[i]) continue;
    const isEdge = i < wide || i % wide === 0;
    size[i] = isEdge ? 1 : 1 + Math.min(size[i - 1], size[i - wide], size[i - wide - 1], 254);
  }
  return size;
}

/**
 * Where a course finds room, and its outer faces; a neck between two inner corners that is too narrow for both their slopes
 * parts it.
 */
function partedRoom(field: Field, free: Uint8Array, slope: Part): { within: Uint8Array; edges: RoofEdge[] } {
  for (let left = free; ;) {
    const within = roomFor(field, left, 2 * slope.d);
    const edges = edgesOf(field, within);
    const necks = necksOf(field, { within, edges }, slope.d);
    if (!necks.includes(1)) return { within, edges };
    left = within.map((on, i) => (necks[i] ? 0 : on));
  }
}

/** Studs of a mask that the slopes of more than one of its inner corners would take. */
function necksOf(
  { w, d }: Field,
  { within, edges }: { within: Uint8Array; edges: readonly RoofEdge[] },
  deep: number,
): Uint8Array {
  const taken = new Uint8Array(w * d);
  const corners = edges.flatMap((edge) => cornersOf(edge, deep));
  for (const { isOuter, ...square } of corners)
    for (let k = 0; k < deep * deep && !isOuter; k++) {
      const [x, y] = [square.x + (k % deep), square.y + Math.trunc(k / deep)];
      if (x >= 0 && y >= 0 && x < w && y < d) taken[y * w + x]++;
    }
  return taken.map((times, i) => (times > 1 && within[i] ? 1 : 0));
}

/** What of a mask lies in a square of it of so many studs a side. */
function roomFor(field: Field, mask: Uint8Array, side: number): Uint8Array {
  const wide = wideOf(field);
  const size = squares(field, extended(field, mask));
  const room = new Uint8Array(size.length);
  size.forEach((one, i) => {
    if (one < side) return;
    for (let up = 0; up < side; up++) room.fill(1, i - up * wide - side + 1, i - up * wide + 1);
  });
  return inner(field, room, mask);
}

/** What a mask with a border round it has within another. */
function inner(field: Field, padded: Uint8Array, within: Uint8Array): Uint8Array {
  const { w, d } = field;
  const found = new Uint8Array(w * d);
  for (let y = 0, i = 0; y < d; y++)
    for (let x = 0, from = indexOf(field, 0, y); x < w; x++, i++) if (within[i]) found[i] = padded[from + x];
  return found;
}

/** For each stud of a mask how many studs off what is outside it is, along x or y, whichever is more: 1 beside it; else 0. */
function offOutside(field: Field, mask: Uint8Array): Uint8Array {
  const wide = wideOf(field);
  const off = extended(field, mask);
  /** The least of four neighbours, one of them beside it and three in the row before or after. @param way 1 or -1 */
  const near = (i: number, way: 1 | -1): number => {
    const row = i + way * wide;
    return Math.min(off[i + way] ?? 0, off[row - 1] ?? 0, off[row] ?? 0, off[row + 1] ?? 0, 254);
  };
  // From the north-west, then back from the south-east.
  for (let i = 0; i < off.length; i++) if (off[i]) off[i] = 1 + near(i, -1);
  for (let i = off.length - 1; i >= 0; i--) if (off[i]) off[i] = Math.min(off[i], 1 + near(i, 1));
  return inner(field, off, mask);
}
