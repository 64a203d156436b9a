import { boundsOf, studsOf, type Rect } from '../lattice/index.ts';
import {
  GROUNDS,
  listOf,
  padsInOrder,
  type Ground,
  type Pad,
  type Plot,
  type Scene,
} from '../scene/index.ts';

/** Ground code of a stud outside the footprint, and of a stud that no pad covers. */
export const OUTSIDE = 255;
export const BARE = 254;

/**
 * The scene compiled to each stud. Row-major: stud (x, y) of the display stands at
 * `(y - origin.y) * w + (x - origin.x)`. Heights are plates above datum.
 */
export interface Relief {
  x: number;
  y: number;
  w: number;
  d: number;
  /** Height of the ground, plates. */
  height: Int16Array;
  /** Index into GROUNDS, BARE or OUTSIDE. */
  ground: Uint8Array;
  /** Height with the buildings on it, plates. */
  top: Int16Array;
  /** 0: nobody; n: the plot at index n − 1 of `plots`. */
  owner: Uint16Array;
  /** Plots by id order, as `owner` counts them. */
  plots: string[];
}

/** Most studs a relief may have: 4,096 × 1,024. Beyond it a scene would not fit in memory several times over. */
const MAX_AREA = 4_194_304;

/** The rectangle that holds every footprint part, or null for a display without a footprint. */
export function footprintBounds(scene: Scene): Rect | null {
  const parts = listOf(scene, 'footprint');
  if (parts.length === 0) return null;
  return boundsOf(parts);
}

/**
 * Compiles the scene. Order: datum, pads by their order (a later one covers an earlier one), then plots by id, each
 * standing on the highest ground under it. A stud belongs to a shape by its centre, so half-stud shapes are exact.
 * @returns the relief of the footprint; empty (0 × 0) without a footprint
 * @throws RangeError when the footprint's bounding box has more studs than fit
 */
export function compileRelief(scene: Scene): Relief {
  const bounds = footprintBounds(scene) ?? { x: 0, y: 0, w: 0, d: 0 };
  const area = bounds.w * bounds.d;
  if (area > MAX_AREA)
    throw new RangeError(
      `the footprint spans ${area.toLocaleString('en')} studs; the most is ${MAX_AREA.toLocaleString('en')}`,
    );
  const relief: Relief = {
    ...bounds,
    height: new Int16Array(area),
    ground: new Uint8Array(area).fill(OUTSIDE),
    top: new Int16Array(area),
    owner: new Uint16Array(area),
    plots: [],
  };
  for (const part of listOf(scene, 'footprint'))
    eachRun(relief, part, (from, to) => relief.ground.fill(BARE, from, to));
  for (const pad of padsInOrder(scene))
    layPad(relief, pad, (scene.level[pad.level]?.height ?? 0) + pad.offset);
  relief.top.set(relief.height);
  for (const plot of listOf(scene, 'plot')) standPlot(relief, plot);
  return relief;
}

function layPad(relief: Relief, pad: Pad, height: number): void {
  const code = GROUNDS.indexOf(pad.ground);
  const lay = (from: number, to: number) => {
    for (let i = from; i < to; i++)
      if (relief.ground[i] !== OUTSIDE) {
        relief.ground[i] = code;
        relief.height[i] = height;
      }
  };
  if (pad.shape === 'rect') return eachRun(relief, pad, lay);
  const { x, y, w, d } = pad;
  for (const row of rowsOf(pad)) {
    // Half chord of the ellipse at the row's centre: (u/a)² + (v/b)² ≤ 1.
    const v = (row + 0.5 - y - d / 2) / (d / 2);
    const chord = v * v <= 1 ? (Math.sqrt(1 - v * v) * w) / 2 : 0;
    if (chord > 0) eachRun(relief, { x: x + w / 2 - chord, y: row, w: 2 * chord, d: 1 }, lay);
  }
}

function standPlot(relief: Relief, plot: Plot): void {
  relief.plots.push(plot.id);
  const index = relief.plots.length;
  let ground = -32_768;
  eachRun(relief, plot, (from, to) => {
    for (let i = from; i < to; i++)
      if (relief.ground[i] !== OUTSIDE) ground = Math.max(ground, relief.height[i]);
  });
  eachRun(relief, plot, (from, to) => {
    for (let i = from; i < to; i++)
      if (relief.ground[i] !== OUTSIDE) {
        relief.top[i] = ground + plot.height;
        relief.owner[i] = index;
      }
  });
}

/** Calls `visit` with the array range of each row of a shape's studs that lies on the relief. */
function eachRun(relief: Relief, shape: Rect, visit: (from: number, to: number) => void): void {
  const studs = studsOf(shape);
  const from = Math.max(studs.x, relief.x) - relief.x;
  const to = Math.min(studs.x + studs.w, relief.x + relief.w) - relief.x;
  if (from >= to) return;
  const last = Math.min(studs.y + studs.d, relief.y + relief.d) - relief.y;
  for (let row = Math.max(studs.y, relief.y) - relief.y; row < last; row++)
    visit(row * relief.w + from, row * relief.w + to);
}

function rowsOf(shape: Rect): number[] {
  const { y, d } = studsOf(shape);
  return Array.from({ length: Math.max(0, d) }, (_, row) => y + row);
}

/** Index of a stud in the relief's arrays, or −1 outside its bounding box. */
export function indexAt(relief: Relief, x: number, y: number): number {
  const column = Math.floor(x) - relief.x;
  const row = Math.floor(y) - relief.y;
  return column < 0 || row < 0 || column >= relief.w || row >= relief.d ? -1 : row * relief.w + column;
}

/** The ground's name at an index: one of GROUNDS, «bare» where no pad lies, or null outside the footprint. */
export function groundAt(relief: Relief, index: number): Ground | 'bare' | null {
  if (index < 0 || relief.ground[index] === OUTSIDE) return null;
  return relief.ground[index] === BARE ? 'bare' : GROUNDS[relief.ground[index]];
}

/** Lowest and highest ground under a shape, plates; null when none of its studs lies on the footprint. */
export function heightRange(relief: Relief, shape: Rect): { low: number; high: number } | null {
  let low = 32_767;
  let high = -32_768;
  eachRun(relief, shape, (from, to) => {
    for (let i = from; i < to; i++)
      if (relief.ground[i] !== OUTSIDE) {
        low = Math.min(low, relief.height[i]);
        high = Math.max(high, relief.height[i]);
      }
  });
  return low > high ? null : { low, high };
}
