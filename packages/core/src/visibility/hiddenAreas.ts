import type { Rect } from '../grid/index.ts';

// Ground that nobody sees, as rectangles large enough to be laid apart.

/** The smallest that is worth it: so many studs, and so many a side (ours, no source). */
const LEAST = { studs: 16, side: 2 } as const;
/** So many at most: as plain ground takes. */
const MAX_AREAS = 200;

/**
 * Rectangles of studs that nobody sees, none over another, the largest first: each is a largest one of what those before
 * it leave. Its cost grows with studs × rectangles.
 * @param hidden studs that nobody sees: 1, row by row over `size`
 */
export function hiddenAreas(hidden: Uint8Array, size: Rect): Rect[] {
  const { w, d } = size;
  const isFree = hidden.slice();
  const areas: Rect[] = [];
  while (areas.length < MAX_AREAS) {
    const { x, y, w: wide, d: deep } = largestIn(isFree, w, d);
    if (wide * deep < LEAST.studs) break;
    for (let row = y; row < y + deep; row++) isFree.fill(0, row * w + x, row * w + x + wide);
    areas.push({ x: size.x + x, y: size.y + y, w: wide, d: deep });
  }
  return areas;
}

/** A largest rectangle of ones with no side below the least, by the heights of columns over each row; 0 wide where there is none. */
function largestIn(ones: Uint8Array, w: number, d: number): Rect {
  const high = new Int32Array(w + 1);
  let best: Rect = { x: 0, y: 0, w: 0, d: 0 };
  for (let y = 0; y < d; y++) {
    for (let x = 0; x < w; x++) high[x] = ones[y * w + x] ? high[x] + 1 : 0;
    // Beginnings of stretches that are at least so high, the lowest first; a column of no height ends them all.
    const starts: { x: number; high: number }[] = [];
    for (let x = 0; x <= w; x++) {
      let from = x;
      for (let last = starts.at(-1); last && last.high >= high[x]; last = starts.at(-1)) {
        const wide = x - last.x;
        if (wide >= LEAST.side && last.high >= LEAST.side && wide * last.high > best.w * best.d)
          best = { x: last.x, y: y - last.high + 1, w: wide, d: last.high };
        from = last.x;
        starts.pop();
      }
      if (high[x] > 0) starts.push({ x: from, high: high[x] });
    }
  }
  return best;
}
