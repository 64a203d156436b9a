import type { Rect } from '@quarry/core/grid';

/** How studs come to the screen: `scale` px a stud, and the screen place of stud (0, 0). */
export interface Viewport {
  scale: number;
  x: number;
  y: number;
}

export const MIN_SCALE = 0.3;
export const MAX_SCALE = 60;

export const toScreen = (view: Viewport, x: number, y: number) => ({
  x: view.x + x * view.scale,
  y: view.y + y * view.scale,
});
export const toStuds = (view: Viewport, x: number, y: number) => ({
  x: (x - view.x) / view.scale,
  y: (y - view.y) / view.scale,
});
export const rectToScreen = (view: Viewport, { x, y, w, d }: Rect): Rect<'px'> => ({
  x: view.x + x * view.scale,
  y: view.y + y * view.scale,
  w: w * view.scale,
  d: d * view.scale,
});
export const rectToStuds = (view: Viewport, { x, y, w, d }: Rect<'px'>): Rect => ({
  x: (x - view.x) / view.scale,
  y: (y - view.y) / view.scale,
  w: w / view.scale,
  d: d / view.scale,
});

/** The whole of a rectangle of studs in a screen of this size, with margins for rulers and flags. */
export function fit({ x, y, w, d }: Rect, width: number, height: number): Viewport {
  const margin = { left: 34, top: 50, right: 38, bottom: 56 };
  const scale = clampScale(
    Math.min((width - margin.left - margin.right) / w, (height - margin.top - margin.bottom) / d),
  );
  return {
    scale,
    x: margin.left + (width - margin.left - margin.right - w * scale) / 2 - x * scale,
    y: margin.top + (height - margin.top - margin.bottom - d * scale) / 2 - y * scale,
  };
}

/** Zooms by a factor; what is under the given screen point stays there. */
export function zoomAt(view: Viewport, factor: number, px: number, py: number): Viewport {
  const scale = clampScale(view.scale * factor);
  const real = scale / view.scale;
  return { scale, x: px - (px - view.x) * real, y: py - (py - view.y) * real };
}

/** Brings a stud to the middle of the screen, unless it is well in sight already. */
export function bringIn(view: Viewport, x: number, y: number, width: number, height: number): Viewport {
  const at = toScreen(view, x, y);
  if (at.x > 60 && at.y > 60 && at.x < width - 60 && at.y < height - 60) return view;
  return { ...view, x: width / 2 - x * view.scale, y: height / 2 - y * view.scale };
}

const clampScale = (scale: number) => Math.min(MAX_SCALE, Math.max(MIN_SCALE, scale));
