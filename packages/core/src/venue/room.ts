import { areaOfOutline, type Rect, quadOf } from '../grid/index.ts';

export interface RoomPoint {
  x: number;
  y: number;
}
/** A straight line between two points. */
export interface Segment {
  a: RoomPoint;
  b: RoomPoint;
}

/** The sides of a room, in order; none for fewer than three corners. */
export function sidesOf(walls: readonly RoomPoint[]): Segment[] {
  return walls.length < 3 ? [] : walls.map((a, i) => ({ a, b: walls[(i + 1) % walls.length] }));
}

export const lengthOf = ({ a, b }: Segment) => Math.hypot(b.x - a.x, b.y - a.y);

/** Area within the walls, mm², by the shoelace formula; above 0 when the corners run clockwise (y south). */
export const signedArea = (walls: readonly RoomPoint[]): number => areaOfOutline(walls).area;

/** Whether a point lies within the walls (even-odd rule); true where no walls are known. */
export function insideRoom(walls: readonly RoomPoint[], { x, y }: RoomPoint): boolean {
  if (walls.length < 3) return true;
  let inside = false;
  for (const { a, b } of sidesOf(walls))
    if (a.y > y !== b.y > y && x < a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x)) inside = !inside;
  return inside;
}

/** Distance from a point to a line between two points. */
export function distanceTo({ x, y }: RoomPoint, { a, b }: Segment): number {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const square = dx * dx + dy * dy;
  const t = square === 0 ? 0 : Math.min(1, Math.max(0, ((x - a.x) * dx + (y - a.y) * dy) / square));
  return Math.hypot(x - a.x - t * dx, y - a.y - t * dy);
}

/** The part of a line within a rectangle's inside (Liang and Barsky 1984), or null. */
export function clip({ a, b }: Segment, { x, y, w, d }: Rect<'mm'>): Segment | null {
  let [from, to] = [0, 1];
  for (const [delta, low, high, at] of [
    [b.x - a.x, x, x + w, a.x],
    [b.y - a.y, y, y + d, a.y],
  ]) {
    if (delta === 0) {
      if (at <= low || at >= high) return null;
      continue;
    }
    const [enter, leave] = [(low - at) / delta, (high - at) / delta].sort((p, q) => p - q);
    from = Math.max(from, enter);
    to = Math.min(to, leave);
  }
  if (to - from <= 1e-9) return null;
  const at = (t: number) => ({ x: a.x + t * (b.x - a.x), y: a.y + t * (b.y - a.y) });
  return { a: at(from), b: at(to) };
}

/** A point nearer to a wall than this lies on it, mm: distances to a side carry rounding in their last digits. */
const ON_WALL = 1e-6;

/** How far a rectangle reaches through the walls, mm; 0 when it lies within them or no walls are known. */
export function leavesRoom(walls: readonly RoomPoint[], rect: Rect<'mm'>): number {
  const sides = sidesOf(walls);
  if (sides.length === 0) return 0;
  const toWall = (point: RoomPoint) => Math.min(...sides.map((side) => distanceTo(point, side)));
  // A corner on the wall itself is inside.
  const out = quadOf(rect).map((corner) => {
    const away = insideRoom(walls, corner) ? 0 : toWall(corner);
    return away < ON_WALL ? 0 : away;
  });
  // A corner of the room that juts into the rectangle.
  const jut = walls.map(({ x, y }) =>
    Math.max(0, Math.min(x - rect.x, rect.x + rect.w - x, y - rect.y, rect.y + rect.d - y)),
  );
  return Math.max(...out, ...jut);
}

/** The line an opening takes in its wall, or null when the room has no such wall. */
export function openingLine(
  walls: readonly RoomPoint[],
  { wall, at, width }: { wall: number; at: number; width: number },
): Segment | null {
  const side = sidesOf(walls)[wall];
  if (!side) return null;
  const length = lengthOf(side);
  if (length === 0) return null;
  const point = (t: number) => ({
    x: side.a.x + ((side.b.x - side.a.x) * t) / length,
    y: side.a.y + ((side.b.y - side.a.y) * t) / length,
  });
  return { a: point(Math.min(at, length)), b: point(Math.min(at + width, length)) };
}

/** Floor kept free inside an opening, as deep as it is asked: four corners, from the wall inwards. */
export function openingFloor(walls: readonly RoomPoint[], line: Segment, depth: number): RoomPoint[] {
  const length = lengthOf(line) || 1;
  // Clockwise corners have the room on the right of each side (y south).
  const inwards = signedArea(walls) >= 0 ? 1 : -1;
  const nx = (-(line.b.y - line.a.y) / length) * inwards * depth;
  const ny = ((line.b.x - line.a.x) / length) * inwards * depth;
  return [line.a, line.b, { x: line.b.x + nx, y: line.b.y + ny }, { x: line.a.x + nx, y: line.a.y + ny }];
}

/** How deep two convex shapes overlap, mm: the least push that parts them (separating axes); 0 when they do not. */
export function overlapDepth(first: readonly RoomPoint[], second: readonly RoomPoint[]): number {
  let least = Infinity;
  for (const shape of [first, second])
    for (let i = 0; i < shape.length; i++) {
      const [a, b] = [shape[i], shape[(i + 1) % shape.length]];
      const length = Math.hypot(b.x - a.x, b.y - a.y);
      if (length === 0) continue;
      const along = ({ x, y }: RoomPoint) => (-(b.y - a.y) * x + (b.x - a.x) * y) / length;
      const [p, q] = [first.map(along), second.map(along)];
      least = Math.min(
        least,
        Math.min(Math.max(...p), Math.max(...q)) - Math.max(Math.min(...p), Math.min(...q)),
      );
      if (least <= 0) return 0;
    }
  return Number.isFinite(least) ? least : 0;
}
