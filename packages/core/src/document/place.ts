import { boundsOf, type Rect } from '../grid/index.ts';
import { KINDS, isPlanKind, specOf, type Entity, type Kind, type Plot } from './schema.ts';
import type { Scene } from './scene.ts';
import { trackLine } from './track.ts';

type Data = Readonly<Record<string, unknown>>;
type Point = { x: number; y: number };

/**
 * The rectangle that holds a thing of the plan, studs: of areas their own, of lines that of their points, of spots
 * one stud about them (of a tree its crown). A turned plot gives its unturned place. Null for what has no place.
 */
export function extentOf(kind: Kind, thing: Data): Rect | null {
  if (kind === 'track') {
    const read = KINDS.track.schema.safeParse(bare(thing));
    return read.success ? boundsOf(trackLine(read.data, 0).line.map(asRect)) : null;
  }
  const points = pointsOf(thing);
  if (points) return points.length > 0 ? boundsOf(points.map(asRect)) : null;
  const { x, y, w, d, crown } = thing;
  if (typeof x !== 'number' || typeof y !== 'number') return null;
  if (typeof w === 'number' && typeof d === 'number') return { x, y, w, d };
  const wide = typeof crown === 'number' ? crown : 1;
  return { x: x - wide / 2, y: y - wide / 2, w: wide, d: wide };
}

/**
 * The rectangle that holds all a thing lays or stands on, studs: its extent, with half a line's width, with banks,
 * slopes and crowns; of a plot that of its turned walls and what stands out over them.
 */
export function influenceBounds(kind: Kind, thing: Data): Rect | null {
  let bounds = influences.get(thing);
  if (bounds === undefined) {
    bounds = influenceOfFields(kind, thing);
    influences.set(thing, bounds);
  }
  return bounds;
}
/** Entities are never written to, so that this is worked out once for each. */
const influences = new WeakMap<Data, Rect | null>();

function influenceOfFields(kind: Kind, thing: Data): Rect | null {
  if (kind === 'plot') {
    const read = KINDS.plot.schema.safeParse(bare(thing));
    return read.success ? boundsOf(outerCorners(read.data).map(asRect)) : null;
  }
  const extent = extentOf(kind, thing);
  if (!extent) return null;
  const by = specOf(kind).beyond?.(thing) ?? 0;
  return { x: extent.x - by, y: extent.y - by, w: extent.w + 2 * by, d: extent.d + 2 * by };
}

const isRecord = (value: unknown): value is Data => typeof value === 'object' && value !== null;
const listIn = (value: unknown): readonly unknown[] => (Array.isArray(value) ? value : []);

/** Where something of the plan stands in a scene; null when it is not there or has no place. */
export function placeIn(scene: Scene, kind: Kind, id: string): Rect | null {
  const entity: Entity<Kind> | undefined = scene[kind][id];
  return entity && isPlanKind(kind) ? extentOf(kind, entity) : null;
}

/** Whether a thing has a size that can be changed by pulling at its sides. */
export const hasSize = (thing: Data): boolean => typeof thing.w === 'number' && typeof thing.d === 'number';

/** The points of a thing that is a line; null for others. */
export function pointsOf(thing: Data): Point[] | null {
  if (!Array.isArray(thing.points)) return null;
  return listIn(thing.points).filter(
    (point): point is Point => isRecord(point) && typeof point.x === 'number' && typeof point.y === 'number',
  );
}

/**
 * The fields of a thing that put it in another place: areas take the place's size too, lines and spots only move.
 * @param to the rectangle its extent should have; of lines and spots only the corner counts
 */
export function placedAt(kind: Kind, thing: Data, to: Pick<Rect, 'x' | 'y'> & Partial<Rect>): Data {
  const now = extentOf(kind, thing);
  if (!now) return {};
  const [dx, dy] = [to.x - now.x, to.y - now.y];
  const { x, y, points } = thing;
  if (Array.isArray(points))
    return {
      points: points.map((point: Point) => ({ ...point, x: point.x + dx, y: point.y + dy })),
    };
  if (hasSize(thing)) return { x: to.x, y: to.y, ...(to.w && to.d ? { w: to.w, d: to.d } : {}) };
  return typeof x === 'number' && typeof y === 'number' ? { x: x + dx, y: y + dy } : {};
}

/** What a plot is built on: its place less its pavement, which lies before its front. Unturned, studs. */
export function builtRect({
  x,
  y,
  w,
  d,
  front,
  streetFront,
  pavement,
}: Pick<Plot, 'x' | 'y' | 'w' | 'd' | 'front' | 'streetFront' | 'pavement'>): Rect {
  const by = streetFront ? Math.min(pavement ?? 0, front === 'n' || front === 's' ? d : w) : 0;
  if (front === 'n') return { x, y: y + by, w, d: d - by };
  if (front === 's') return { x, y, w, d: d - by };
  return front === 'w' ? { x: x + by, y, w: w - by, d } : { x, y, w: w - by, d };
}

/** Studs inside the walls of one floor of a plot, along x and along y: walls and pavement taken off; 0 where none is left. */
export function insideOf(plot: Parameters<typeof builtRect>[0] & Pick<Plot, 'wall'>): {
  w: number;
  d: number;
} {
  const { w, d } = builtRect(plot);
  return { w: Math.max(0, w - 2 * plot.wall), d: Math.max(0, d - 2 * plot.wall) };
}

/** Whether anything of a building stands out over its walls. */
export const isOverhanging = ({ overhang }: Pick<Plot, 'overhang'>): boolean =>
  Object.values(overhang).some((by) => by > 0);

type Turned = Pick<Plot, 'x' | 'y' | 'w' | 'd' | 'turn'>;

/** Corners of a rectangle that is wider than a plot by so much on each side (narrower where negative), turned with it. */
function cornersAround(plot: Turned, by: Plot['overhang']): Point[] {
  const { x, y, w, d, turn } = plot;
  const outer = { x: x - by.w, y: y - by.n, w: w + by.w + by.e, d: d + by.n + by.s };
  const [cx, cy] = [x + w / 2, y + d / 2];
  const { cos, sin } = direction(turn);
  return [
    [outer.x, outer.y],
    [outer.x + outer.w, outer.y],
    [outer.x + outer.w, outer.y + outer.d],
    [outer.x, outer.y + outer.d],
  ].map(([px, py]) => ({
    x: cx + (px - cx) * cos - (py - cy) * sin,
    y: cy + (px - cx) * sin + (py - cy) * cos,
  }));
}

/** Quarters exactly, so that a building on the grid stays on the grid. */
function direction(turn: number): { cos: number; sin: number } {
  if (turn % 90 === 0) return { cos: [1, 0, -1, 0][turn / 90], sin: [0, 1, 0, -1][turn / 90] };
  const angle = (turn * Math.PI) / 180;
  return { cos: Math.cos(angle), sin: Math.sin(angle) };
}

/** The four corners of a plot's walls, turned about its middle: studs, from the unturned north-west one clockwise. */
export const wallCorners = (plot: Turned): Point[] => cornersAround(plot, { n: 0, e: 0, s: 0, w: 0 });

/** Corners of what stands out over a building's walls, turned with it. */
export const outerCorners = (plot: Turned & Pick<Plot, 'overhang'>): Point[] =>
  cornersAround(plot, plot.overhang);

/** Corners of what a plot is built on, without its pavement, turned with it. */
export function builtCorners(plot: Turned & Parameters<typeof builtRect>[0]): Point[] {
  const built = builtRect(plot);
  return cornersAround(plot, {
    n: plot.y - built.y,
    w: plot.x - built.x,
    e: built.x + built.w - plot.x - plot.w,
    s: built.y + built.d - plot.y - plot.d,
  });
}

/** The rectangle that holds a plot's turned walls. */
export function plotBounds(plot: Pick<Plot, 'x' | 'y' | 'w' | 'd' | 'turn'>): Rect {
  let bounds = known.get(plot);
  if (!bounds) {
    const { x, y, w, d, turn } = plot;
    bounds = turn === 0 ? { x, y, w, d } : boundsOf(wallCorners(plot).map(asRect));
    known.set(plot, bounds);
  }
  return bounds;
}
/** Plots never change, and a board asks for the bounds of all of them at every drawing. */
const known = new WeakMap<object, Rect>();

const asRect = ({ x, y }: Point): Rect => ({ x, y, w: 0, d: 0 });

function bare(thing: Data): Data {
  const { id: _id, v: _v, ...data } = thing;
  return data;
}
