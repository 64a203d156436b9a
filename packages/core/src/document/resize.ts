import { MM_PER_STUD, boundsOf, intersection, type Rect } from '../grid/index.ts';
import type { Change } from './change.ts';
import type { EntityRef } from './edit.ts';
import { KIND_NAMES, isPlanKind, type Kind } from './schema.ts';
import { placeIn } from './place.ts';
import { displayOf, listOf, type Scene } from './scene.ts';

/** What one act of resizing a display does. */
export interface Resizing {
  changes: Change[];
  /** What takes the new size with it. */
  follows: EntityRef[];
  /** What stood in the scene and would lie wholly or in part outside it. */
  outside: EntityRef[];
}

/** One side of an interval that begins at 0 in an old length, taken to a new one; `spans`: only if it is all of it. */
function followed(at: number, size: number, old: number, now: number, spans: boolean): number {
  const touches = at + size === old && at < now;
  return touches && (!spans || at <= 0) ? now - at : size;
}

/**
 * Gives a display another size. Its north-west corner stays. Footprint parts and sections at its far sides follow,
 * so does ground that spans it, and, where it stands in no place, the tables under it.
 * @param w studs, whole, 1 to `MAX_STUDS` @param d the same
 * @returns no changes where it has that size, or no footprint
 */
export function resizeDisplay(scene: Scene, w: number, d: number): Resizing {
  const parts = listOf(scene, 'footprint');
  const none: Resizing = { changes: [], follows: [], outside: [] };
  if (parts.length === 0) return none;
  const old = boundsOf(parts);
  if (old.w === w && old.d === d) return none;
  const sized = ({ x, y, ...rect }: Rect, spans: boolean) => ({
    w: followed(x - old.x, rect.w, old.w, w, spans),
    d: followed(y - old.y, rect.d, old.d, d, spans),
  });
  const changes: Change[] = [];
  const follows: EntityRef[] = [];
  const take = (kind: Kind, one: { id: string; v: number }, set: Record<string, unknown>) => {
    changes.push({ op: 'patch', kind, id: one.id, v: one.v, set });
    follows.push({ kind, id: one.id });
  };
  const beyond = ({ x, y }: Rect) => x >= old.x + w || y >= old.y + d;
  for (const part of parts) {
    if (beyond(part)) changes.push({ op: 'remove', kind: 'footprint', id: part.id, v: part.v });
    else {
      const now = sized(part, false);
      // A part that reached past the new edge ends there.
      const set = { w: Math.min(now.w, old.x + w - part.x), d: Math.min(now.d, old.y + d - part.y) };
      if (set.w !== part.w || set.d !== part.d) take('footprint', part, set);
    }
  }
  for (const section of listOf(scene, 'section')) {
    const now = sized(section, false);
    if (!beyond(section) && (now.w !== section.w || now.d !== section.d)) take('section', section, now);
  }
  for (const pad of listOf(scene, 'pad')) {
    const now = sized(pad, true);
    if (pad.shape === 'rect' && (now.w !== pad.w || now.d !== pad.d)) take('pad', pad, now);
  }
  if (displayOf(scene).place === null)
    for (const table of listOf(scene, 'table').filter(({ place }) => place === null)) {
      const spansX = table.x <= old.x * MM_PER_STUD && table.x + table.w >= (old.x + old.w) * MM_PER_STUD;
      const spansY = table.y <= old.y * MM_PER_STUD && table.y + table.d >= (old.y + old.d) * MM_PER_STUD;
      const set = {
        ...(spansX && w !== old.w ? { w: Math.max(1, table.w + (w - old.w) * MM_PER_STUD) } : {}),
        ...(spansY && d !== old.d ? { d: Math.max(1, table.d + (d - old.d) * MM_PER_STUD) } : {}),
      };
      if (Object.keys(set).length > 0) take('table', table, set);
    }
  const now = { ...old, w, d };
  const covers = (rect: Rect, place: Rect) => {
    const common = intersection(rect, place);
    return common !== null && common.w === place.w && common.d === place.d;
  };
  const moved = new Set(follows.map(({ kind, id }) => `${kind} ${id}`));
  const outside = KIND_NAMES.filter((kind) => isPlanKind(kind) && kind !== 'footprint').flatMap((kind) =>
    listOf(scene, kind).flatMap(({ id }) => {
      const place = placeIn(scene, kind, id);
      return place && !moved.has(`${kind} ${id}`) && covers(old, place) && !covers(now, place)
        ? [{ kind, id }]
        : [];
    }),
  );
  return { changes, follows, outside };
}
