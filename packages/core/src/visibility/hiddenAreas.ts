import type { Rect } from '../grid/index.ts';

// Ground that nobody sees, as rectangles large enough to be laid apart.

/** The smallest that is worth it: so many studs, and so many a side (ours, no source). */
const LEAST = { studs: 16, side: 2 } as const;
/** So many at most: as plain ground takes. */
const MAX_AREAS = 200;

/**
 * Rectangles of studs that nobody sees, none over another, the largest first: each is a largest one of what those before
 * it leave. What a row ends is kept until a rectangle over it is taken, so that its cost grows with studs, and with what the
 * rectangles change.
 * @param hidden studs that nobody sees: 1, row by row over `size`
 */
export function hiddenAreas(hidden: Uint8Array, size: Rect): Rect[] {
  const { w, d } = size;
  const isFree = hidden.slice();
  const high = new Int32Array(w * d);
  const ending: Rect[] = [];
  const starts = new Int32Array(2 * (w + 1));
  const areas: Rect[] = [];
  /** What may differ: all at first, then the rows and columns of what was taken, and what is below it. */
  let taken: Rect = { x: 0, y: 0, w, d };
  while (areas.length < MAX_AREAS) {
    for (let y = taken.y; y < d; y++) {
      let isSame = ending[y] !== undefined;
      for (let x = taken.x; x < taken.x + taken.w; x++) {
        const i = y * w + x;
        const now = isFree[i] ? (y > 0 ? high[i - w] : 0) + 1 : 0;
        if (now !== high[i]) isSame = false;
        high[i] = now;
      }
      // Below what was taken, rows follow from the one above them.
      if (isSame && y >= taken.y + taken.d) break;
      if (!isSame) ending[y] = largestEnding(high, w, y, starts);
    }
    const best = ending.reduce((most, one) => (one.w * one.d > most.w * most.d ? one : most), NO_AREA);
    if (best.w * best.d < LEAST.studs) break;
    for (let row = best.y; row < best.y + best.d; row++)
      isFree.fill(0, row * w + best.x, row * w + best.x + best.w);
    taken = best;
    areas.push({ ...best, x: size.x + best.x, y: size.y + best.y });
  }
  return areas;
}

const NO_AREA: Rect = { x: 0, y: 0, w: 0, d: 0 };

/**
 * A largest rectangle that ends with a row, no side below the least, by the heights of its columns; 0 wide where
 * there is none.
 * @param starts room for where stretches begin and how high they are
 */
function largestEnding(high: Int32Array, w: number, y: number, starts: Int32Array): Rect {
  let best = NO_AREA;
  // Beginnings of stretches that are at least so high, the lowest first; a column of no height ends them all.
  let count = 0;
  for (let x = 0; x <= w; x++) {
    const here = x < w ? high[y * w + x] : 0;
    let from = x;
    while (count > 0 && starts[2 * count - 1] >= here) {
      const [west, tall] = [starts[2 * count - 2], starts[2 * count - 1]];
      if (x - west >= LEAST.side && tall >= LEAST.side && (x - west) * tall > best.w * best.d)
        best = { x: west, y: y - tall + 1, w: x - west, d: tall };
      from = west;
      count--;
    }
    if (here > 0) {
      starts[2 * count] = from;
      starts[2 * count + 1] = here;
      count++;
    }
  }
  return best;
}
