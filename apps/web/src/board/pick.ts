import { lengthOfLine } from '@quarry/core/grid';
import type { Rect } from '@quarry/core/grid';
import { isIn, nearestOn } from '@quarry/core/terrain';
import { listOf, placedAt, type Entity, type Kind, type Scene } from '@quarry/core/document';
import type { BoardLayer, Picked } from '../data/view.ts';
import { BOARD_KINDS, PICK_ORDER, boardKindOf, type Placed } from './kinds/index.ts';
import { tableFields } from './kinds/table.ts';
import { lineOf, placeOf } from './place.ts';
import { toStuds, type Viewport } from './viewport.ts';

/** The least step on which a person moves a thing by hand, studs; 0: it is not moved by hand. */
export const stepOf = (kind: string, snap: number): number => {
  const board = boardKindOf(kind);
  return board ? (board.step ?? snap) : 0;
};

/** A place as fields of the thing: millimetres in the room for tables, studs or moved points for the rest. */
export function fieldsForRect(scene: Scene, { kind, id }: Picked, rect: Rect): Record<string, unknown> {
  const entity: Entity<Kind> | undefined = scene[kind][id];
  if (kind === 'table') return { ...tableFields(scene, rect) };
  return entity ? { ...placedAt(kind, entity, rect) } : {};
}

/** How near to a spot or a thin line a click must come, px. */
const NEAR = 9;

const isHidden = (kind: Placed, hidden: ReadonlySet<BoardLayer>): boolean => {
  const { layer } = BOARD_KINDS[kind];
  return layer !== undefined && hidden.has(layer);
};

/** Everything under a point of the screen, the nearest first. */
function hits(
  scene: Scene,
  hidden: ReadonlySet<BoardLayer>,
  view: Viewport,
  px: number,
  py: number,
): Picked[] {
  const spot = { px, py, view, at: toStuds(view, px, py) };
  return PICK_ORDER.filter((kind) => !isHidden(kind, hidden)).flatMap((kind): Picked[] => {
    const { list, hit } = BOARD_KINDS[kind];
    const all: readonly { id: string }[] = list ? list(scene) : listOf(scene, kind);
    return all
      .filter(({ id }) => (hit ? hit(scene, id, spot) : isHit(scene, kind, id, spot.at, NEAR / view.scale)))
      .map(({ id }) => ({ kind, id }))
      .reverse();
  });
}

type Point = { x: number; y: number };

/** Whether a place belongs to a thing. @param near how near to a spot or a thin line it must be, studs */
function isHit(scene: Scene, kind: Placed, id: string, at: Point, near: number): boolean {
  const rect = placeOf(scene, { kind, id });
  if (!rect) return false;
  const line = lineOf(scene, kind, id);
  if (line) return onLine(line.points, at, Math.max(line.width / 2, near));
  const entity: Entity<Kind> | undefined = scene[kind][id];
  if (!entity) return false;
  const { x, y, w, d } = rect;
  if (!('w' in entity)) return Math.hypot(at.x - x - w / 2, at.y - y - d / 2) <= Math.max(w / 2, near);
  if ('outline' in entity) return isIn(entity, at.x, at.y);
  return at.x >= x && at.y >= y && at.x < x + w && at.y < y + d;
}

function onLine(points: readonly Point[], at: Point, near: number): boolean {
  const [first] = points;
  if (first && lengthOfLine(points) === 0) return Math.hypot(at.x - first.x, at.y - first.y) <= near;
  return points.some((point, i) => {
    const before = points[i - 1];
    if (!before) return false;
    const on = nearestOn(before, point, at);
    return Math.hypot(on.x - at.x, on.y - at.y) <= near;
  });
}

/** Everything of the plan that lies wholly in a rectangle of studs, what is hidden left out. */
export function pickIn(scene: Scene, hidden: ReadonlySet<BoardLayer>, box: Rect): Picked[] {
  return PICK_ORDER.filter((kind) => BOARD_KINDS[kind].boxed && !isHidden(kind, hidden)).flatMap((kind) =>
    listOf(scene, kind).flatMap(({ id }): Picked[] => {
      const rect = placeOf(scene, { kind, id });
      const within =
        rect &&
        rect.x >= box.x &&
        rect.y >= box.y &&
        rect.x + rect.w <= box.x + box.w &&
        rect.y + rect.d <= box.y + box.d;
      return within ? [{ kind, id }] : [];
    }),
  );
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
  return found[(at + 1) % found.length] ?? null;
}

/** Puts a rectangle on steps; its least size is one step. */
export function snapRect(rect: Rect, step: number): Rect {
  const on = (value: number) => Math.round(value / step) * step;
  return { x: on(rect.x), y: on(rect.y), w: Math.max(step, on(rect.w)), d: Math.max(step, on(rect.d)) };
}
