import { intersection, type CoordinateFrame, type Rect } from '../grid/index.ts';
import type { Side } from '../document/index.ts';
import { clip, type Segment } from './room.ts';

/** A line to which something was brought: at this x, or at this y, in the frame of what was brought. */
export interface Guide {
  axis: 'x' | 'y';
  at: number;
}

/**
 * Brings a moving rectangle to the edges and middles of others and to straight walls, if any is near enough.
 * @param near how near an edge must come, in their frame
 * @returns the moved rectangle and the lines it now stands on
 */
export function snapTo<F extends CoordinateFrame>(
  moving: Rect<F>,
  others: readonly Rect<F>[],
  walls: readonly Segment[],
  near: number,
): { rect: Rect<F>; guides: Guide[] } {
  const lines = (axis: 'x' | 'y'): number[] => {
    const edges = others.flatMap((other) => {
      const [from, length] = axis === 'x' ? [other.x, other.w] : [other.y, other.d];
      return [from, from + length, from + length / 2];
    });
    const straight = walls.filter(({ a, b }) => Math.abs(a[axis] - b[axis]) < 0.5).map(({ a }) => a[axis]);
    return [...edges, ...straight];
  };
  const bring = (from: number, length: number, targets: readonly number[]) => {
    let best: { by: number; at: number } | null = null;
    for (const own of [from, from + length, from + length / 2])
      for (const at of targets) {
        const by = at - own;
        if (Math.abs(by) <= near && (!best || Math.abs(by) < Math.abs(best.by))) best = { by, at };
      }
    return best;
  };
  const x = bring(moving.x, moving.w, lines('x'));
  const y = bring(moving.y, moving.d, lines('y'));
  return {
    rect: { ...moving, x: moving.x + (x?.by ?? 0), y: moving.y + (y?.by ?? 0) },
    guides: [
      ...(x ? [{ axis: 'x' as const, at: x.at }] : []),
      ...(y ? [{ axis: 'y' as const, at: y.at }] : []),
    ],
  };
}

/** Clear distance from each side of a rectangle to the nearest thing or wall straight before it, mm; null: nothing. */
export function clearances(
  rect: Rect<'mm'>,
  others: readonly Rect<'mm'>[],
  walls: readonly Segment[],
): Record<Side, number | null> {
  const far = 100_000;
  const { x, y, w, d } = rect;
  const strips: Record<Side, Rect<'mm'>> = {
    n: { x, y: y - far, w, d: far },
    e: { x: x + w, y, w: far, d },
    s: { x, y: y + d, w, d: far },
    w: { x: x - far, y, w: far, d },
  };
  const gap = (side: Side, low: { x: number; y: number }, high: { x: number; y: number }) =>
    ({ n: y - high.y, e: low.x - x - w, s: low.y - y - d, w: x - high.x })[side];
  const along = (side: Side): number | null => {
    const strip = strips[side];
    const found: number[] = [];
    for (const other of others) {
      const shared = intersection(other, strip);
      if (shared) found.push(gap(side, shared, { x: shared.x + shared.w, y: shared.y + shared.d }));
    }
    for (const wall of walls) {
      const part = clip(wall, strip);
      if (!part) continue;
      const { a, b } = part;
      found.push(
        gap(
          side,
          { x: Math.min(a.x, b.x), y: Math.min(a.y, b.y) },
          { x: Math.max(a.x, b.x), y: Math.max(a.y, b.y) },
        ),
      );
    }
    return found.length > 0 ? Math.max(0, Math.min(...found)) : null;
  };
  return { n: along('n'), e: along('e'), s: along('s'), w: along('w') };
}
