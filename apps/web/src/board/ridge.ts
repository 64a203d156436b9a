import { present } from '@quarry/core/grid';
import type { Hill, Hollow } from '@quarry/core/document';

// The ridge of a hill on the board: shares of its width and depth in the document, points of the plan under the hand.

type Point = { x: number; y: number };
type Rising = Pick<Hill | Hollow, 'x' | 'y' | 'w' | 'd' | 'ridge'>;

/** The ends of a ridge, studs: one point where it is a peak. */
export function ridgeEnds({ x, y, w, d, ridge: { x1, y1, x2, y2 } }: Rising): Point[] {
  const [a, b] = [
    { x: x + x1 * w, y: y + y1 * d },
    { x: x + x2 * w, y: y + y2 * d },
  ];
  return x1 === x2 && y1 === y2 ? [a] : [a, b];
}

/** The ridge between two points, or the peak at one, kept within the hill's rectangle. */
export function ridgeFrom({ x, y, w, d }: Rising, ends: readonly Point[]): Hill['ridge'] {
  const share = (at: number, from: number, size: number) => Math.min(1, Math.max(0, (at - from) / size));
  const [a, b] = [present(ends.at(0), 'an end of a ridge'), present(ends.at(-1), 'an end of a ridge')];
  return { x1: share(a.x, x, w), y1: share(a.y, y, d), x2: share(b.x, x, w), y2: share(b.y, y, d) };
}
