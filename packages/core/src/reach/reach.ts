import type { Rect } from '../grid/index.ts';
import { runsEast, listOf, type Scene } from '../document/index.ts';
import { OUTSIDE, type Relief } from '../terrain/index.ts';
import {
  clip,
  currentPlace,
  frameOf,
  currentContents,
  insideRoom,
  pointToRoom,
  rectToRoom,
  sceneInRoom,
  sidesOf,
  type RoomPoint,
} from '../venue/index.ts';

/** What stands in a room, mm: enough to tell where a builder can stand. */
export interface Layout {
  walls: readonly RoomPoint[];
  /** Tables and whatever else one cannot stand in; the scene's own parts are apart. */
  tables: readonly Rect<'mm'>[];
  obstacles: readonly Rect<'mm'>[];
  scene: readonly Rect<'mm'>[];
  /** Floor one needs to stand, mm deep. */
  standDepth: number;
}

/** A straight stretch of edge at which one can stand, along x or along y, mm in the room. */
export interface OpenSide {
  x1: number;
  y1: number;
  x2: number;
  y2: number;
}

/** The least width of floor a person needs, mm (from memory: shoulders and some play). */
export const STAND_WIDTH = 450;
const DEFAULTS = { armReach: 750, ladderReach: 1000, standDepth: 600 };

export function layoutOf(scene: Scene): Layout {
  const place = currentPlace(scene);
  return {
    walls: place?.walls ?? [],
    tables: currentContents(scene, 'table'),
    obstacles: currentContents(scene, 'obstacle'),
    scene: sceneInRoom(scene),
    standDepth: place?.standDepth ?? DEFAULTS.standDepth,
  };
}

/** How far an arm reaches and from where on it takes a ladder, in the current place. */
export function reachesOf(scene: Scene): { arm: number; ladder: number } {
  const { armReach, ladderReach } = currentPlace(scene) ?? DEFAULTS;
  return { arm: armReach, ladder: Math.max(armReach, ladderReach) };
}

/**
 * The stretches of table and scene edge at which a person can stand: before them the floor is free of walls, tables,
 * scene and obstacles to the standing depth, over at least 450 mm. It is not asked whether one can walk there.
 */
export function openSides({ walls, tables, obstacles, scene, standDepth }: Layout): OpenSide[] {
  const blocks = [...tables, ...scene, ...obstacles];
  const sides = sidesOf(walls);
  const open: OpenSide[] = [];
  for (const { x, y, w, d } of [...tables, ...scene])
    for (const [edge, strip] of [
      ['n', { x, y: y - standDepth, w, d: standDepth }],
      ['s', { x, y: y + d, w, d: standDepth }],
      ['w', { x: x - standDepth, y, w: standDepth, d }],
      ['e', { x: x + w, y, w: standDepth, d }],
    ] as const) {
      const flat = runsEast(edge);
      const [start, end] = flat ? [x, x + w] : [y, y + d];
      const taken: [number, number][] = [];
      for (const block of blocks) {
        const apart =
          Math.max(block.x, strip.x) >= Math.min(block.x + block.w, strip.x + strip.w) - 0.5 ||
          Math.max(block.y, strip.y) >= Math.min(block.y + block.d, strip.y + strip.d) - 0.5;
        if (!apart) taken.push(flat ? [block.x, block.x + block.w] : [block.y, block.y + block.d]);
      }
      for (const side of sides) {
        const part = clip(side, strip);
        if (!part) continue;
        const [p, q] = flat ? [part.a.x, part.b.x] : [part.a.y, part.b.y];
        taken.push([Math.min(p, q), Math.max(p, q)]);
      }
      for (const [from, to] of gapsIn(start, end, taken)) {
        if (to - from < Math.min(STAND_WIDTH, end - start)) continue;
        const middle = (from + to) / 2;
        const foot = flat ? { x: middle, y: strip.y + strip.d / 2 } : { x: strip.x + strip.w / 2, y: middle };
        if (!insideRoom(walls, foot)) continue;
        open.push(
          edge === 'n'
            ? { x1: from, y1: y, x2: to, y2: y }
            : edge === 's'
              ? { x1: from, y1: y + d, x2: to, y2: y + d }
              : edge === 'w'
                ? { x1: x, y1: from, x2: x, y2: to }
                : { x1: x + w, y1: from, x2: x + w, y2: to },
        );
      }
    }
  return open;
}

/** What is left of a stretch after parts of it are taken. */
function gapsIn(start: number, end: number, taken: [number, number][]): [number, number][] {
  const gaps: [number, number][] = [];
  let at = start;
  for (const [from, to] of taken.sort((a, b) => a[0] - b[0])) {
    if (from > at) gaps.push([at, Math.min(from, end)]);
    at = Math.max(at, to);
    if (at >= end) return gaps;
  }
  gaps.push([at, end]);
  return gaps;
}

/** Distance from each stud's centre to the nearest open side, mm, over the relief's raster. */
export interface Reach {
  x: number;
  y: number;
  w: number;
  d: number;
  /** NaN outside the footprint, Infinity where there is no open side at all. */
  distance: Float32Array;
  sides: OpenSide[];
  arm: number;
  ladder: number;
}

/** Squared distance to the nearest of the open sides, which run along x or y. */
export function nearestSide(sides: readonly OpenSide[], x: number, y: number): number {
  let least = Infinity;
  for (const side of sides) {
    const dx = x < side.x1 ? side.x1 - x : x > side.x2 ? x - side.x2 : 0;
    const dy = y < side.y1 ? side.y1 - y : y > side.y2 ? y - side.y2 : 0;
    const square = dx * dx + dy * dy;
    if (square < least) least = square;
  }
  return least;
}

/** Studs along a tile: small enough that few sides can be nearest to any of its studs. */
const TILE = 16;

/** The sides that can be nearest to some point of a rectangle: no other comes near it. */
export function nearSides(sides: readonly OpenSide[], { x, y, w, d }: Rect<'mm'>): OpenSide[] {
  const gap = (low: number, high: number, from: number, to: number) => Math.max(from - high, low - to, 0);
  // A point of the rectangle is no farther from a side than its nearest corner to the rectangle and its diagonal.
  const nearest = sides.map(({ x1, y1, x2, y2 }) => Math.hypot(gap(x, x + w, x1, x2), gap(y, y + d, y1, y2)));
  const bound = Math.min(...nearest) + Math.hypot(w, d);
  return sides.filter((_, i) => nearest[i] <= bound);
}

/** Each stud's distance to the nearest place where one can stand, straight over whatever is between. */
export function reachOf(scene: Scene, relief: Relief): Reach {
  const sides = openSides(layoutOf(scene));
  const frame = frameOf(scene);
  const distance = new Float32Array(relief.ground.length);
  const centre = (column: number, row: number) =>
    pointToRoom(frame, { x: relief.x + column + 0.5, y: relief.y + row + 0.5 });
  const origin = centre(0, 0);
  const east = { x: centre(1, 0).x - origin.x, y: centre(1, 0).y - origin.y };
  const south = { x: centre(0, 1).x - origin.x, y: centre(0, 1).y - origin.y };
  for (let top = 0; top < relief.d; top += TILE)
    for (let left = 0; left < relief.w; left += TILE) {
      const [bottom, right] = [Math.min(top + TILE, relief.d), Math.min(left + TILE, relief.w)];
      const near = nearSides(
        sides,
        rectToRoom(frame, { x: relief.x + left, y: relief.y + top, w: right - left, d: bottom - top }),
      );
      for (let row = top; row < bottom; row++)
        for (let column = left; column < right; column++) {
          const i = row * relief.w + column;
          distance[i] =
            relief.ground[i] === OUTSIDE
              ? NaN
              : Math.sqrt(
                  nearestSide(
                    near,
                    origin.x + column * east.x + row * south.x,
                    origin.y + column * east.y + row * south.y,
                  ),
                );
        }
    }
  const { arm, ladder } = reachesOf(scene);
  return { x: relief.x, y: relief.y, w: relief.w, d: relief.d, distance, sides, arm, ladder };
}

/** How much of an area one cannot reach: studs in all, past the arm, past the ladder line, and the farthest, mm. */
export interface ReachShare {
  studs: number;
  pastArm: number;
  pastLadder: number;
  farthest: number;
  /** The farthest stud's centre, studs. */
  at: { x: number; y: number } | null;
}

/** Counts a rectangle of studs (default: the whole scene). A stud half a stud past the line counts as past it. */
export function shareOf(reach: Reach, area: Rect = reach): ReachShare {
  const share: ReachShare = { studs: 0, pastArm: 0, pastLadder: 0, farthest: 0, at: null };
  const [x0, y0] = [
    Math.max(0, Math.ceil(area.x - reach.x - 0.5)),
    Math.max(0, Math.ceil(area.y - reach.y - 0.5)),
  ];
  const [x1, y1] = [
    Math.min(reach.w, Math.ceil(area.x + area.w - reach.x - 0.5)),
    Math.min(reach.d, Math.ceil(area.y + area.d - reach.y - 0.5)),
  ];
  for (let row = y0; row < y1; row++)
    for (let column = x0; column < x1; column++) {
      const far = reach.distance[row * reach.w + column];
      if (Number.isNaN(far)) continue;
      share.studs++;
      if (far > reach.arm) share.pastArm++;
      if (far > reach.ladder) share.pastLadder++;
      if (share.at === null || far > share.farthest) {
        share.farthest = far;
        share.at = { x: reach.x + column + 0.5, y: reach.y + row + 0.5 };
      }
    }
  return share;
}

/** The share of each section, by letter. */
export const sectionShares = (scene: Scene, reach: Reach) =>
  listOf(scene, 'section')
    .map((section) => ({ section, share: shareOf(reach, section) }))
    .sort((a, b) => (a.section.letter < b.section.letter ? -1 : 1));
