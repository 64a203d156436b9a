import type { Rect } from '@quarry/core/grid';

/** How the room comes to the screen: px a mm, and the screen place of the room's origin. */
export interface RoomView {
  scale: number;
  x: number;
  y: number;
}

/** The whole of a rectangle in a drawing of this size, with a margin for the lengths of the walls. */
export function fitted(
  { x, y, w, d }: Rect<'mm'>,
  { width, height }: { width: number; height: number },
): RoomView {
  const margin = 52;
  const scale = Math.max(0.005, Math.min((width - 2 * margin) / w, (height - 2 * margin) / d));
  return { scale, x: (width - w * scale) / 2 - x * scale, y: (height - d * scale) / 2 - y * scale };
}

/** Zooms by a factor; what is under the given point of the screen stays there. */
export function zoomed(view: RoomView, factor: number, px: number, py: number): RoomView {
  const scale = Math.min(2, Math.max(0.005, view.scale * factor));
  const real = scale / view.scale;
  return { scale, x: px - (px - view.x) * real, y: py - (py - view.y) * real };
}
