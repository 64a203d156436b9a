import { MM_PER_STUD, type Rect } from '@quarry/core/lattice';
import { listOf, padsInOrder, type Kind, type Scene } from '@quarry/core/scene';
import { frameOf, hereOf, rectToRoom, tableInStuds } from '@quarry/core/site';
import type { Layer, Picked } from '../data/view.ts';
import { sectionMark } from './drawThings.ts';
import { rectToScreen, toStuds, type Viewport } from './viewport.ts';

/** Kinds that stand on the board as rectangles. */
export const PLACED = [
  'footprint',
  'table',
  'pad',
  'plot',
  'section',
  'module',
] as const satisfies readonly Kind[];
export type Placed = (typeof PLACED)[number];
export const isPlaced = (kind: Kind): kind is Placed => PLACED.some((placed) => placed === kind);

/** What a person may move and resize by hand, and on which steps in studs: tables in whole centimetres. */
export const STEPS: Partial<Record<Placed, number>> = {
  footprint: 1,
  pad: 0.5,
  plot: 0.5,
  section: 0.5,
  table: 10 / MM_PER_STUD,
};

/** Where something stands, in studs; null when it is not there or has no place. */
export function placeOf(scene: Scene, picked: Picked | null): Rect | null {
  if (!picked || !isPlaced(picked.kind)) return null;
  if (picked.kind === 'table') {
    const table = scene.table[picked.id];
    return table ? tableInStuds(scene, table) : null;
  }
  return scene[picked.kind][picked.id] ?? null;
}

/** A place as the fields of its entity: millimetres in the room for tables, studs for the rest. */
export function fieldsOf(scene: Scene, kind: Placed, rect: Rect): Rect {
  if (kind !== 'table') return { x: rect.x, y: rect.y, w: rect.w, d: rect.d };
  const { x, y, w, d } = rectToRoom(frameOf(scene), rect);
  return { x: Math.round(x), y: Math.round(y), w: Math.round(w), d: Math.round(d) };
}

/** Everything under a point of the screen, the nearest first: marks before areas, small before what carries them. */
function hits(scene: Scene, hidden: ReadonlySet<Layer>, view: Viewport, px: number, py: number): Picked[] {
  const { x, y } = toStuds(view, px, py);
  const inside = (rect: Rect) => x >= rect.x && y >= rect.y && x < rect.x + rect.w && y < rect.y + rect.d;
  const found: Picked[] = [];
  const take = (kind: Kind, list: readonly { id: string }[]) =>
    found.push(...list.map(({ id }) => ({ kind, id })));
  if (!hidden.has('sections'))
    take(
      'section',
      listOf(scene, 'section').filter((section) => {
        const mark = sectionMark(rectToScreen(view, section));
        return Math.hypot(mark.x - px, mark.y - py) <= 11;
      }),
    );
  if (!hidden.has('modules'))
    take(
      'module',
      listOf(scene, 'module').filter((module) => {
        const on = rectToScreen(view, module);
        return px >= on.x + 4 && px <= on.x + 36 && py >= on.y + 4 && py <= on.y + 20;
      }),
    );
  if (!hidden.has('plots')) take('plot', listOf(scene, 'plot').filter(inside).reverse());
  take(
    'pad',
    padsInOrder(scene)
      .filter((pad) => inside(pad) && (pad.shape === 'rect' || inOval(pad, x, y)))
      .reverse(),
  );
  take('footprint', listOf(scene, 'footprint').filter(inside));
  if (!hidden.has('tables'))
    take(
      'table',
      hereOf(scene, 'table').filter((table) => inside(tableInStuds(scene, table))),
    );
  return found;
}

function inOval({ x, y, w, d }: Rect, px: number, py: number): boolean {
  return ((px - x - w / 2) / (w / 2)) ** 2 + ((py - y - d / 2) / (d / 2)) ** 2 <= 1;
}

/** What a click picks: the nearest thing, or the one behind what is picked already. */
export function pickAt(
  scene: Scene,
  hidden: ReadonlySet<Layer>,
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
