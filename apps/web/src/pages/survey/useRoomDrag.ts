import { useState, type KeyboardEvent, type PointerEvent, type RefObject } from 'react';
import type { Rect } from '@quarry/core/grid';
import { snapTo, type Guide, type sidesOf } from '@quarry/core/venue';
import { arrowWay } from '../../ui/arrows.ts';
import type { RoomView } from './roomView.ts';

/** What is being dragged: how far, in mm, and what it was brought to. */
export interface RoomDrag {
  key: string;
  dx: number;
  dy: number;
  guides: Guide[];
  rect: Rect<'mm'> | null;
}

/** How a thing of the room is picked and moved. */
interface Handled {
  key: string;
  /** Where it is, mm. */
  rect: Rect<'mm'>;
  /** Receives where it lands. */
  commit: (to: Rect<'mm'>) => void;
  onPick: () => void;
  /** It was pressed and did not move. @param at mm */
  onClick?: (at: { x: number; y: number }) => void;
}
export type HandlesOf = (handled: Handled) => {
  shift: RoomDrag | null;
  onPointerDown: (event: PointerEvent<SVGElement>) => void;
  onFocus: () => void;
  onKeyDown: (event: KeyboardEvent) => void;
};

/** Pixels within which an edge snaps; Alt leaves it free. */
const SNAP_PX = 8;
/** Pixels a press may move before it is a drag. */
const SLOP = 3;
/** A free drag stands on whole centimetres, or half inches. */
const stepOf = (metric: 'mm' | 'in') => (metric === 'in' ? 12.7 : 10);

/**
 * Moves the things of a room by hand or with the arrows; while one moves, its edges snap to others and to walls.
 * @param others rectangles that a thing snaps to, by its key
 */
export function useRoomDrag({
  host,
  view,
  metric,
  disabled,
  sides,
  others,
}: {
  host: RefObject<HTMLDivElement | null>;
  view: RoomView | null;
  metric: 'mm' | 'in';
  disabled: boolean;
  sides: ReturnType<typeof sidesOf>;
  others: (key: string) => readonly Rect<'mm'>[];
}): { drag: RoomDrag | null; handles: HandlesOf } {
  const [drag, setDrag] = useState<RoomDrag | null>(null);
  const grab = (event: PointerEvent<SVGElement>, { key, rect, commit, onClick }: Handled) => {
    if (disabled || event.button !== 0 || !view) return;
    const from = { x: event.clientX, y: event.clientY };
    const corner = host.current?.getBoundingClientRect() ?? { x: 0, y: 0 };
    const target = event.currentTarget;
    target.setPointerCapture(event.pointerId);
    let last: Rect<'mm'> | null = null;
    // The neighbours do not move meanwhile: gathered once, so that a move costs little with sixty tables.
    const around = others(key);
    const unit = stepOf(metric);
    const on = (value: number) => Math.round(value / unit) * unit;
    const move = (now: globalThis.PointerEvent) => {
      if (last === null && Math.hypot(now.clientX - from.x, now.clientY - from.y) < SLOP) return;
      const [dx, dy] = [(now.clientX - from.x) / view.scale, (now.clientY - from.y) / view.scale];
      const free = { ...rect, x: on(rect.x + dx), y: on(rect.y + dy) };
      const snapped = now.altKey
        ? { rect: free, guides: [] }
        : snapTo(free, around, sides, SNAP_PX / view.scale);
      last = snapped.rect;
      setDrag({ key, dx: last.x - rect.x, dy: last.y - rect.y, guides: snapped.guides, rect: last });
    };
    const letGo = () => {
      target.removeEventListener('pointermove', move);
      target.removeEventListener('pointerup', end);
      target.removeEventListener('pointercancel', letGo);
      setDrag(null);
    };
    const end = () => {
      letGo();
      if (last) commit(last);
      else
        onClick?.({
          x: (from.x - corner.x - view.x) / view.scale,
          y: (from.y - corner.y - view.y) / view.scale,
        });
    };
    target.addEventListener('pointermove', move);
    target.addEventListener('pointerup', end);
    target.addEventListener('pointercancel', letGo);
  };
  const arrows = (event: KeyboardEvent, { rect, commit }: Handled) => {
    const way = arrowWay(event.key);
    if (!way || disabled) return;
    event.preventDefault();
    event.stopPropagation();
    const by = stepOf(metric) * (event.shiftKey ? 10 : event.altKey ? 0.1 : 1);
    commit({ ...rect, x: rect.x + way[0] * by, y: rect.y + way[1] * by });
  };
  return {
    drag,
    handles: (handled) => ({
      shift: drag?.key === handled.key ? drag : null,
      onPointerDown: (event) => {
        event.stopPropagation();
        handled.onPick();
        grab(event, handled);
      },
      onFocus: handled.onPick,
      onKeyDown: (event) => arrows(event, handled),
    }),
  };
}
