import { hullOf } from '../grid/index.ts';
import type { Joint, Weight } from './joints.ts';

// Pieces that simply rest: from the top down, the weight of each goes to what lies under it, by pushes alone.

/** A place where a piece is pushed up: studs, and the piece that pushes; −1: one that counts as ground. */
interface Prop {
  x: number;
  y: number;
  by: number;
}

/**
 * Passes the weight of one piece on to what it rests on: to what leads to the ground over the fewest pieces, as far as
 * that holds it.
 * @param weight of the piece with all that it bears
 * @param under the joints under it
 * @param steps over how many pieces a lower piece leads down to the ground; 0: it counts as ground
 * @param pass receives what each lower piece bears of it, not the ground's share
 * @returns false when its weight does not lie within its supports: then nothing is passed
 */
export function settle(
  weight: Weight,
  under: readonly Joint[],
  steps: (piece: number) => number,
  pass: (lower: number, weight: Weight) => void,
): boolean {
  const { grams } = weight;
  if (grams <= 1e-9) return grams > -1e-9;
  const at = { x: weight.mx / grams, y: weight.my / grams };
  const far = under.map(({ lower }) => steps(lower));
  for (const most of [...new Set(far)].toSorted((a, b) => a - b)) {
    const props = under.filter((_, k) => far[k] <= most).flatMap(cornersOf);
    const pushes = pushesOf(props, at);
    if (!pushes) continue;
    props.forEach(({ x, y, by }, k) => {
      const part = pushes[k] * grams;
      if (part > 0 && steps(by) > 0) pass(by, { grams: part, mx: part * x, my: part * y });
    });
    return true;
  }
  return false;
}

const cornersOf = ({ x, y, w, d, lower }: Joint): Prop[] =>
  [
    [x, y],
    [x + w, y],
    [x + w, y + d],
    [x, y + d],
  ].map(([px, py]) => ({ x: px, y: py, by: lower }));

/**
 * Shares of a weight of one that props at given places bear, spread as evenly as pushes allow.
 * @returns null when the weight is not within their hull
 */
function pushesOf(props: readonly Prop[], at: { x: number; y: number }): Float64Array | null {
  const open = new Uint8Array(props.length).fill(1);
  // The smallest sum of squares that balances, without those that would have to pull, until none does.
  for (let left = props.length; left >= 1;) {
    const multipliers = evenly(props, open, at);
    if (!multipliers) break;
    const [a, b, c] = multipliers;
    const pushes = Float64Array.from(props, ({ x, y }, k) =>
      open[k] ? a + b * (x - at.x) + c * (y - at.y) : 0,
    );
    let worst = -1;
    for (let k = 0; k < pushes.length; k++)
      if (pushes[k] < -1e-9 && (worst < 0 || pushes[k] < pushes[worst])) worst = k;
    if (worst < 0) return balances(props, pushes, at) ? pushes : byTriangle(props, at);
    open[worst] = 0;
    left--;
  }
  return byTriangle(props, at);
}

/** Solves for the multipliers of the least squares: sum of pushes 1, no moment about the weight. */
function evenly(props: readonly Prop[], open: Uint8Array, at: { x: number; y: number }) {
  let [n, sx, sy, xx, xy, yy] = [0, 0, 0, 0, 0, 0];
  props.forEach((prop, k) => {
    if (!open[k]) return;
    const [x, y] = [prop.x - at.x, prop.y - at.y];
    n++;
    sx += x;
    sy += y;
    xx += x * x;
    xy += x * y;
    yy += y * y;
  });
  const minor = xx * yy - xy * xy;
  const det = n * minor - sx * (sx * yy - xy * sy) + sy * (sx * xy - xx * sy);
  if (Math.abs(det) < 1e-9) return null;
  return [minor / det, (xy * sy - sx * yy) / det, (sx * xy - xx * sy) / det] as const;
}

function balances(props: readonly Prop[], pushes: Float64Array, at: { x: number; y: number }): boolean {
  let [sum, mx, my] = [0, 0, 0];
  props.forEach(({ x, y }, k) => {
    sum += pushes[k];
    mx += pushes[k] * (x - at.x);
    my += pushes[k] * (y - at.y);
  });
  return Math.abs(sum - 1) < 1e-6 && Math.abs(mx) < 1e-6 && Math.abs(my) < 1e-6;
}

/** Three props, or two, whose triangle holds a place; null when there are none. */
function byTriangle(props: readonly Prop[], at: { x: number; y: number }): Float64Array | null {
  const hull = hullOf(props);
  const pushes = new Float64Array(props.length);
  const [first] = hull;
  if (first === undefined) return null;
  for (let k = 1; k < Math.max(2, hull.length - 1); k++) {
    const corners = [first, hull[k] ?? first, hull[k + 1] ?? hull[k] ?? first];
    const shares = inTriangle(
      corners.map((index) => props[index]),
      at,
    );
    if (!shares) continue;
    corners.forEach((index, c) => (pushes[index] += shares[c]));
    return pushes;
  }
  return null;
}

/** Barycentric shares of a place in a triangle, which may be flat; null outside. */
function inTriangle([a, b, c]: readonly Prop[], { x, y }: { x: number; y: number }) {
  const twice = (b.x - a.x) * (c.y - a.y) - (c.x - a.x) * (b.y - a.y);
  if (Math.abs(twice) < 1e-9) {
    const length = (b.x - a.x) ** 2 + (b.y - a.y) ** 2;
    if (length === 0) return null;
    const along = ((x - a.x) * (b.x - a.x) + (y - a.y) * (b.y - a.y)) / length;
    const off = (x - a.x) * (b.y - a.y) - (y - a.y) * (b.x - a.x);
    return Math.abs(off) < 1e-7 && along > -1e-9 && along < 1 + 1e-9 ? [1 - along, along, 0] : null;
  }
  const v = ((x - a.x) * (c.y - a.y) - (c.x - a.x) * (y - a.y)) / twice;
  const w = ((b.x - a.x) * (y - a.y) - (x - a.x) * (b.y - a.y)) / twice;
  const u = 1 - v - w;
  return Math.min(u, v, w) < -1e-7 ? null : [Math.max(0, u), Math.max(0, v), Math.max(0, w)];
}
