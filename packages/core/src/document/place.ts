import { type Rect, boundsOfPoints } from '../grid/index.ts';
import { isPlanKind, specOf, type Entity, type Kind } from './schema.ts';
import type { Scene } from './scene.ts';

type Data = Readonly<Record<string, unknown>>;
type Point = { x: number; y: number };

/**
 * The rectangle that holds a thing of the plan, studs: of areas their own, of lines that of their points, of spots
 * one stud about them (of a tree its crown). A turned plot gives its unturned place. Null for what has no place.
 */
export function extentOf(kind: Kind, thing: Data): Rect | null {
  const spec = specOf(kind);
  if (spec.outlinePoints) {
    const valid = validFields(kind, thing);
    return valid && boundsOfPoints(spec.outlinePoints(valid));
  }
  const points = pointsOf(thing);
  if (points) return points.length > 0 ? boundsOfPoints(points) : null;
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
  const spec = specOf(kind);
  if (spec.influencePoints) {
    const valid = validFields(kind, thing);
    return valid && boundsOfPoints(spec.influencePoints(valid));
  }
  const extent = extentOf(kind, thing);
  if (!extent || !spec.beyond) return extent;
  const valid = validFields(kind, thing);
  const by = valid ? spec.beyond(valid) : 0;
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

/** The fields of a thing as its schema reads them; null of one that is not valid, such as a half-typed change. */
function validFields(kind: Kind, { id: _id, v: _v, ...fields }: Data): Data | null {
  const read = specOf(kind).schema.safeParse(fields);
  return read.success ? read.data : null;
}
