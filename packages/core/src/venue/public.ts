import { MM_PER_PLATE, type Rect, quadOf } from '../grid/index.ts';
import type { Entity, Scene } from '../document/index.ts';
import { currentPlace, currentContents, sceneInRoom } from './frame.ts';
import { distanceTo, sidesOf, type RoomPoint, type Segment } from './room.ts';

/** What a barrier keeps and leaves. */
export interface BarrierReport {
  barrier: Entity<'barrier'>;
  /** From the barrier to the nearest edge of the scene, mm; null without a scene. */
  toScene: number | null;
  /** Narrowest clear width behind it, on the public's side, to a wall or thing, mm; null: nothing behind it. */
  aisle: number | null;
}

/** Judges the barriers of the current place. The public stands on the side away from the scene's middle. */
export function evaluateBarriers(scene: Scene): BarrierReport[] {
  const parts = sceneInRoom(scene);
  const walls = sidesOf(currentPlace(scene)?.walls ?? []);
  const things: Rect<'mm'>[] = [...currentContents(scene, 'table'), ...currentContents(scene, 'obstacle')];
  const edges = [...walls, ...things.flatMap((thing) => sidesOf(quadOf(thing)))];
  return currentContents(scene, 'barrier').map((barrier): BarrierReport => {
    const line = { a: { x: barrier.x1, y: barrier.y1 }, b: { x: barrier.x2, y: barrier.y2 } };
    return { barrier, toScene: nearest(line, parts), aisle: behind(line, parts, edges) };
  });
}

function nearest(line: Segment, parts: readonly Rect<'mm'>[]): number | null {
  if (parts.length === 0) return null;
  // Two lines that do not cross are nearest at an end of one of them.
  return Math.min(
    ...parts.flatMap((part) =>
      sidesOf(quadOf(part)).flatMap((side) => [
        distanceTo(line.a, side),
        distanceTo(line.b, side),
        distanceTo(side.a, line),
        distanceTo(side.b, line),
      ]),
    ),
  );
}

/**
 * Least clear width behind a line, square to it. The width changes evenly between the feet of the edges' ends on the
 * line, so it is enough to look on both sides of each foot.
 */
function behind(line: Segment, parts: readonly Rect<'mm'>[], edges: readonly Segment[]): number | null {
  const [dx, dy] = [line.b.x - line.a.x, line.b.y - line.a.y];
  const length = Math.hypot(dx, dy);
  if (length === 0 || parts.length === 0) return null;
  const along = { x: dx / length, y: dy / length };
  const middle = {
    x: parts.reduce((sum, { x, w }) => sum + x + w / 2, 0) / parts.length,
    y: parts.reduce((sum, { y, d }) => sum + y + d / 2, 0) / parts.length,
  };
  const side = Math.sign((middle.x - line.a.x) * -along.y + (middle.y - line.a.y) * along.x) || 1;
  const out = { x: along.y * side, y: -along.x * side };
  const local = ({ x, y }: RoomPoint) => ({
    t: (x - line.a.x) * along.x + (y - line.a.y) * along.y,
    h: (x - line.a.x) * out.x + (y - line.a.y) * out.y,
  });
  const flat = edges.map(({ a, b }) => ({ a: local(a), b: local(b) }));
  const feet = [0, length, ...flat.flatMap(({ a, b }) => [a.t, b.t])].filter((t) => t >= 0 && t <= length);
  const looks = feet.flatMap((t) => [t - 0.01, t + 0.01]).filter((t) => t >= 0 && t <= length);
  let least = Infinity;
  for (const t of looks)
    for (const { a, b } of flat) {
      if (a.t === b.t || t < Math.min(a.t, b.t) || t > Math.max(a.t, b.t)) continue;
      const h = a.h + ((t - a.t) / (b.t - a.t)) * (b.h - a.h);
      if (h > 0.01) least = Math.min(least, h);
    }
  return Number.isFinite(least) ? least : null;
}

/** What a pair of eyes gets over the front edge of a table. */
export interface SightLineReport {
  who: 'adult' | 'seated' | 'child' | 'shoulders';
  /** Eye height above the floor, and over the table top, mm; below 0: under it. */
  eye: number;
  above: number;
  /** How much behind a front of `front` plates is hidden, mm, by similar triangles; null: everything. */
  hidden: number | null;
}

/**
 * What the public sees over a front of a height that stands on a table top, from a distance.
 * @param distance from the eye to the front, mm
 * @param front its height above the table top, plates
 */
export function evaluateSightLines(
  eyes: { eyeAdult: number; eyeSeated: number; eyeChild: number; eyeShoulders: number },
  tableTop: number,
  distance: number,
  front: number,
): SightLineReport[] {
  const height = front * MM_PER_PLATE;
  return (
    [
      ['adult', eyes.eyeAdult],
      ['seated', eyes.eyeSeated],
      ['child', eyes.eyeChild],
      ['shoulders', eyes.eyeShoulders],
    ] as const
  ).map(([who, eye]) => {
    const above = eye - tableTop;
    return { who, eye, above, hidden: above > height ? (distance * height) / (above - height) : null };
  });
}
