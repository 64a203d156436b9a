import type { FocusEventHandler, KeyboardEvent, PointerEvent, ReactNode } from 'react';
import type { Rect } from '@quarry/core/grid';
import type { RoomPoint } from '@quarry/core/venue';
import type { RoomView } from './roomView.ts';

/** What every mark in the room can do. */
export interface Handled {
  /** While it is dragged: by how much, mm. */
  shift: { dx: number; dy: number } | null;
  onPointerDown: (event: PointerEvent<SVGElement>) => void;
  onFocus: FocusEventHandler<SVGElement>;
  onKeyDown: (event: KeyboardEvent) => void;
}
export interface Mark extends Handled {
  view: RoomView;
  picked?: boolean;
}

export const on = (view: RoomView, { x, y, w, d }: Rect<'mm'>) => ({
  x: view.x + x * view.scale,
  y: view.y + y * view.scale,
  width: w * view.scale,
  height: d * view.scale,
});
export const at = (view: RoomView, { x, y }: RoomPoint) => ({
  x: view.x + x * view.scale,
  y: view.y + y * view.scale,
});
export const path = (view: RoomView, points: readonly RoomPoint[]) =>
  `M${points.map((point) => `${at(view, point).x} ${at(view, point).y}`).join('L')}Z`;
export const moved = (view: RoomView, shift: Handled['shift']) =>
  shift ? `translate(${shift.dx * view.scale} ${shift.dy * view.scale})` : undefined;

/** A focusable group; the drag only shifts it. */
export function MarkGroup({
  mark: { view, shift, onPointerDown, onFocus, onKeyDown },
  label,
  children,
}: {
  mark: Mark;
  label: string;
  children: ReactNode;
}) {
  return (
    <g
      tabIndex={0}
      role="button"
      aria-label={label}
      transform={moved(view, shift)}
      className="cursor-grab outline-none focus-visible:[&>*:first-child]:stroke-secondary"
      onPointerDown={onPointerDown}
      onFocus={onFocus}
      onKeyDown={onKeyDown}
    >
      {children}
    </g>
  );
}
