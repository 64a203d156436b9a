import { MM_PER_STUD, type Rect } from '@quarry/core/grid';
import { isIn, lengthOfLine, nearestOn } from '@quarry/core/terrain';
import {
  PLAN_KINDS,
  wallCorners,
  isPlanKind,
  listOf,
  padsInOrder,
  placeIn,
  placedAt,
  pointsOf,
  trackLine,
  type Entity,
  type Kind,
  type PlanKind,
  type Scene,
} from '@quarry/core/document';
import { frameOf, currentContents, rectToRoom, tableInStuds } from '@quarry/core/venue';
import type { BoardLayer, Picked } from '../data/view.ts';
import { sectionMark } from './drawSections.ts';
import { rectToScreen, toStuds, type Viewport } from './viewport.ts';

/** Kinds that stand on the board, in the order of the outline. */
export const PLACED = ['table', ...PLAN_KINDS] as const satisfies readonly Kind[];
export type Placed = PlanKind | 'table';
export const isPlaced = (kind: Kind): kind is Placed => kind === 'table' || isPlanKind(kind);

/** Tables move in whole centimetres. */
const TABLE_STEP = 10 / MM_PER_STUD;

/** The least step on which a person moves a thing by hand, studs; 0: it is not moved by hand. */
export function stepOf(kind: Kind, snap: number): number {
  if (kind === 'table') return TABLE_STEP;
  if (kind === 'module' || !isPlanKind(kind)) return 0;
  return kind === 'footprint' ? 1 : snap;
}

/** Where something stands, in studs; null when it is not there or has no place. */
export function placeOf(scene: Scene, picked: Picked | null): Rect | null {
  if (!picked) return null;
  if (picked.kind !== 'table') return placeIn(scene, picked.kind, picked.id);
  const table = scene.table[picked.id];
  return table ? tableInStuds(scene, table) : null;
}

/** A place as fields of the thing: millimetres in the room for tables, studs or moved points for the rest. */
export function fieldsForRect(scene: Scene, { kind, id }: Picked, rect: Rect): Record<string, unknown> {
  const entity: Entity<Kind> | undefined = scene[kind][id];
  if (kind === 'table') return { ...tableFields(scene, rect) };
  return entity ? { ...placedAt(kind, entity, rect) } : {};
}

export function tableFields(scene: Scene, rect: Rect): Rect {
  const { x, y, w, d } = rectToRoom(frameOf(scene), rect);
  return { x: Math.round(x), y: Math.round(y), w: Math.round(w), d: Math.round(d) };
}

/** The layer a kind is drawn in. */
const LAYER_OF: Partial<Record<Placed, BoardLayer>> = {
  table: 'tables',
  section: 'sections',
  module: 'modules',
  picture: 'pictures',
  way: 'ways',
  track: 'ways',
  plot: 'plots',
  run: 'dressing',
  repeat: 'dressing',
  planting: 'dressing',
  tree: 'dressing',
  figure: 'dressing',
  flag: 'dressing',
  marker: 'signs',
  reserved: 'signs',
  note: 'signs',
};

/** Nearest first: signs before walls, walls before buildings, buildings before ways, small before what carries it. */
const NEAREST = [
  'note',
  'flag',
  'figure',
  'marker',
  'tree',
  'repeat',
  'run',
  'plot',
  'planting',
  'track',
  'way',
  'stream',
  'water',
  'hollow',
  'hill',
  'pad',
  'terrain',
  'reserved',
  'picture',
  'footprint',
] as const satisfies readonly PlanKind[];

/** How near to a spot or a thin line a click must come, px. */
const NEAR = 9;

/** Everything under a point of the screen, the nearest first. */
function hits(
  scene: Scene,
  hidden: ReadonlySet<BoardLayer>,
  view: Viewport,
  px: number,
  py: number,
): Picked[] {
  const at = toStuds(view, px, py);
  const found: Picked[] = [];
  const take = (kind: Kind, list: readonly { id: string }[]) =>
    found.push(...list.map(({ id }) => ({ kind, id })));
  const shown = (kind: Placed) => !hidden.has(LAYER_OF[kind] ?? 'findings') || LAYER_OF[kind] === undefined;
  if (shown('section'))
    take(
      'section',
      listOf(scene, 'section').filter((section) => {
        const mark = sectionMark(rectToScreen(view, section));
        return Math.hypot(mark.x - px, mark.y - py) <= 11;
      }),
    );
  if (shown('module'))
    take(
      'module',
      listOf(scene, 'module').filter((module) => {
        const on = rectToScreen(view, module);
        return px >= on.x + 4 && px <= on.x + 36 && py >= on.y + 4 && py <= on.y + 20;
      }),
    );
  for (const kind of NEAREST) {
    if (!shown(kind)) continue;
    const list = kind === 'pad' ? padsInOrder(scene) : listOf(scene, kind);
    take(kind, list.filter(({ id }) => isHit(scene, kind, id, at, NEAR / view.scale)).reverse());
  }
  if (shown('table'))
    take(
      'table',
      currentContents(scene, 'table').filter((table) => {
        const { x, y, w, d } = tableInStuds(scene, table);
        return at.x >= x && at.y >= y && at.x < x + w && at.y < y + d;
      }),
    );
  return found;
}

type Point = { x: number; y: number };

/** Whether a place belongs to a thing. @param near how near to a spot or a thin line it must be, studs */
function isHit(scene: Scene, kind: PlanKind, id: string, at: Point, near: number): boolean {
  const rect = placeIn(scene, kind, id);
  if (!rect) return false;
  const line = lineOf(scene, kind, id);
  if (line) return onLine(line.points, at, Math.max(line.width / 2, near));
  if (kind === 'plot') return onQuad(wallCorners(scene.plot[id]), at);
  const { x, y, w, d } = rect;
  if (['tree', 'figure', 'flag', 'note'].includes(kind))
    return Math.hypot(at.x - x - w / 2, at.y - y - d / 2) <= Math.max(w / 2, near);
  const entity: Entity<Kind> = scene[kind][id];
  if ('outline' in entity) return isIn(entity, at.x, at.y);
  return at.x >= x && at.y >= y && at.x < x + w && at.y < y + d;
}

/** The line of a thing that is one, with its width in studs; null for others. */
export function lineOf(
  scene: Scene,
  kind: Kind,
  id: string,
): { points: readonly Point[]; width: number } | null {
  if (kind === 'track') {
    const track = scene.track[id];
    return track ? { points: trackLine(track, 0).line, width: track.bed } : null;
  }
  const entity: Entity<Kind> | undefined = scene[kind][id];
  const points = entity && pointsOf(entity);
  if (!points) return null;
  return { points, width: 'width' in entity && typeof entity.width === 'number' ? entity.width : 1 };
}

function onLine(points: readonly Point[], at: Point, near: number): boolean {
  if (lengthOfLine(points) === 0) return Math.hypot(at.x - points[0].x, at.y - points[0].y) <= near;
  return points.some((point, i) => {
    if (i === 0) return false;
    const on = nearestOn(points[i - 1], point, at);
    return Math.hypot(on.x - at.x, on.y - at.y) <= near;
  });
}

const onQuad = (corners: readonly Point[], at: Point): boolean =>
  corners.every((a, i) => {
    const b = corners[(i + 1) % corners.length];
    return (b.x - a.x) * (at.y - a.y) - (b.y - a.y) * (at.x - a.x) >= 0;
  });

/** Everything of the plan that lies wholly in a rectangle of studs, what is hidden left out; ground only if nothing else does. */
export function pickIn(scene: Scene, hidden: ReadonlySet<BoardLayer>, box: Rect): Picked[] {
  const inside = NEAREST.filter((kind) => kind !== 'footprint').flatMap((kind) => {
    const layer = LAYER_OF[kind];
    if (layer && hidden.has(layer)) return [];
    return listOf(scene, kind).flatMap(({ id }): Picked[] => {
      const rect = placeIn(scene, kind, id);
      const within =
        rect &&
        rect.x >= box.x &&
        rect.y >= box.y &&
        rect.x + rect.w <= box.x + box.w &&
        rect.y + rect.d <= box.y + box.d;
      return within ? [{ kind, id }] : [];
    });
  });
  return inside;
}

/** What a click picks: the nearest thing, or the one behind what is picked already. */
export function pickAt(
  scene: Scene,
  hidden: ReadonlySet<BoardLayer>,
  view: Viewport,
  px: number,
  py: number,
  now: Picked | null,
): Picked | null {
  const found = hits(scene, hidden, view, px, py);
  const at = found.findIndex(({ kind, id }) => kind === now?.kind && id === now.id);
  return found.length === 0 ? null : found[(at + 1) % found.length];
}

/** Puts a rectangle on steps; its least size is one step. */
export function snapRect(rect: Rect, step: number): Rect {
  const on = (value: number) => Math.round(value / step) * step;
  return { x: on(rect.x), y: on(rect.y), w: Math.max(step, on(rect.w)), d: Math.max(step, on(rect.d)) };
}
