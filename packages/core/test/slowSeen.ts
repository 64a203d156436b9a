import { NO_COLUMN, type Eye, type HeightField } from '../src/visibility/index.ts';

// What eyes see of a height field, asked slowly: for tests and for the bench.

const TOLERANCE = 1e-6;

/**
 * Whether a column hides a point from an eye: the part of the line within its open box, by the three slabs of that box
 * (Kay and Kajiya 1986).
 */
export function columnHides({ w, d, heights, voids }: HeightField, j: number, point: Eye, eye: Eye): boolean {
  const height = heights[j];
  // What is solid: between its open stretches.
  const open = [...(voids?.get(j) ?? [])].sort((a, b) => a.from - b.from);
  const solid = [...open.map(({ to }) => to), 0]
    .sort((a, b) => a - b)
    .map((low) => ({
      low,
      high: Math.min(height, ...open.flatMap(({ from }) => (from >= low ? [from] : []))),
    }));
  return solid.some(({ low, high }) => boxHides(w, d, j, low, high, point, eye));
}

function boxHides(w: number, d: number, j: number, low: number, high: number, point: Eye, eye: Eye): boolean {
  if (!(high - low > 2 * TOLERANCE)) return false;
  const length = Math.hypot(eye.x - point.x, eye.y - point.y);
  const [west, south] = [j % w, d - Math.trunc(j / w) - 1];
  let [from, to] = [0, 1];
  const clip = (at: number, by: number, least: number, most: number) => {
    if (by === 0) {
      if (at <= least || at >= most) to = -1;
      return;
    }
    const [a, b] = [(least - at) / by, (most - at) / by];
    [from, to] = [Math.max(from, Math.min(a, b)), Math.min(to, Math.max(a, b))];
  };
  clip(point.x, eye.x - point.x, west, west + 1);
  clip(point.y, eye.y - point.y, south, south + 1);
  if (to - from <= TOLERANCE / length) return false;
  clip(point.z, eye.z - point.z, low + TOLERANCE, high - TOLERANCE);
  return to > from;
}

/** Every column asked by itself. */
export function slowSeenCounts(field: HeightField, eyes: readonly Eye[]): number[] {
  const { w, d, heights } = field;
  const solid = [...heights.keys()].filter((j) => heights[j] > 0);
  return [...heights].map((top, i) => {
    if (Number.isNaN(top)) return NO_COLUMN;
    const target = { x: (i % w) + 0.5, y: d - Math.trunc(i / w) - 0.5, z: top };
    return eyes.filter(
      (eye) => eye.z >= top - TOLERANCE && solid.every((j) => j === i || !columnHides(field, j, target, eye)),
    ).length;
  });
}
