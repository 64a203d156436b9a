import type { Rect } from './rect.ts';
import { rememberFor } from './remember.ts';

// Areas of whole studs as rasters: discs, ovals, boxes with parts left out, what is left inside their walls.

/** A raster of studs, row by row from its north-west corner: 1 in the area, else 0. */
export interface StudArea {
  w: number;
  d: number;
  mask: Uint8Array;
}

/** A stretch of studs in a row: from and to, the end not in it. */
interface Stretch {
  from: number;
  to: number;
}

/** All studs of a rectangle. @param w @param d whole studs */
export const boxArea = (w: number, d: number): StudArea => ({ w, d, mask: new Uint8Array(w * d).fill(1) });

/** The studs of some rectangles; whole studs within the raster. */
export function areaOfRects(w: number, d: number, rects: readonly Rect[]): StudArea {
  const mask = new Uint8Array(w * d);
  for (const rect of rects)
    for (let y = rect.y; y < rect.y + rect.d; y++) mask.fill(1, y * w + rect.x, y * w + rect.x + rect.w);
  return { w, d, mask };
}

/** An area without the studs of some rectangles; whole studs, which may reach beyond it. */
export function areaWithout({ w, d, mask }: StudArea, holes: readonly Rect[]): StudArea {
  const left = mask.slice();
  for (const hole of holes)
    for (let y = Math.max(0, hole.y); y < Math.min(d, hole.y + hole.d); y++)
      for (let x = Math.max(0, hole.x); x < Math.min(w, hole.x + hole.w); x++) left[y * w + x] = 0;
  return { w, d, mask: left };
}

/**
 * The studs of the oval in a rectangle: those whose middle lies in it. The rows of 8 × 8 have 4, 6, 8, 8, 8, 8, 6 and 4.
 * @param w @param d whole studs from 1
 */
export const discArea = (w: number, d: number): StudArea => discWithin(w, d, { x: 0, y: 0 });

/** Studs of a row that lie west of such an oval, and as many east of it. */
function discFrom(w: number, d: number, row: number): number {
  const off = (row + 0.5 - d / 2) / (d / 2);
  const half = (w / 2) * Math.sqrt(Math.max(0, 1 - off * off));
  // A middle on the border lies in the oval; square roots are not exact.
  return Math.max(0, Math.ceil(w / 2 - half - 0.5 - TIE));
}
const TIE = 1e-9;

/** A row of studs: its number, and the lines it lies between. */
interface StudRow {
  y: number;
  from: number;
  to: number;
}

/** The rows of such an oval that hold studs. */
const discRows = (w: number, d: number): StudRow[] =>
  Array.from({ length: d }, (_, y) => ({ y, from: discFrom(w, d, y) }))
    .filter(({ from }) => from < w - from)
    .map(({ y, from }) => ({ y, from, to: w - from }));

/** The outline of such an oval, as `outlineOfArea` has it, without its raster. */
export const discOutline = ({ w, d }: { w: number; d: number }): { x: number; y: number }[] =>
  outlineOfRows(discRows(w, d));

/**
 * The outline of such an oval with all studs that lie so many whole studs off one of its own: beyond it on each side alike an
 * oval again.
 * @param by studs on each side of the rectangle
 */
export function grownDiscOutline(
  { w, d }: { w: number; d: number },
  by: Readonly<Record<'n' | 'e' | 's' | 'w', number>>,
): { x: number; y: number }[] {
  const { n } = by;
  if ([by.e, by.s, by.w].every((side) => side === n))
    return discOutline({ w: w + 2 * n, d: d + 2 * n }).map(({ x, y }) => ({ x: x - n, y: y - n }));
  const rows = discRows(w, d);
  const [first, last] = [rows[0], rows[rows.length - 1]];
  const middle = (first.y + last.y) / 2;
  const grown = Array.from({ length: rows.length + n + by.s }, (_, k): StudRow => {
    const y = first.y - n + k;
    // Rows are the wider the nearer to the middle: the nearest of those that reach to this one counts.
    const nearest = Math.min(Math.max(Math.round(middle), y - by.s, first.y), y + n, last.y);
    const { from, to } = rows[nearest - first.y];
    return { y, from: from - by.w, to: to + by.e };
  });
  return outlineOfRows(grown);
}

/** The outline of rows below each other, each of which meets the next. */
function outlineOfRows(rows: readonly StudRow[]): { x: number; y: number }[] {
  const down = rows.flatMap(({ to, y }) => [
    { x: to, y },
    { x: to, y: y + 1 },
  ]);
  const up = rows.toReversed().flatMap(({ from, y }) => [
    { x: from, y: y + 1 },
    { x: from, y },
  ]);
  const corners = [...up.slice(-1), ...down, ...up.slice(0, -1)];
  // Rows that end alike make one side.
  return corners.filter((corner, i) => {
    const [before, after] = [corners.at(i - 1), corners[(i + 1) % corners.length]];
    return !(before?.x === corner.x && after.x === corner.x);
  });
}

/** The oval that lies so far inside a rectangle on its west and north and as far on the other sides, in the whole raster. */
export function discWithin(w: number, d: number, off: { x: number; y: number }): StudArea {
  const [wide, deep] = [w - 2 * off.x, d - 2 * off.y];
  const mask = new Uint8Array(w * d);
  for (let row = 0; row < deep; row++) {
    const from = discFrom(wide, deep, row);
    const at = (row + off.y) * w + off.x;
    if (from < wide - from) mask.fill(1, at + from, at + wide - from);
  }
  return { w, d, mask };
}

/**
 * What is left of an area when so many studs all round are taken off, by sides and corners; what is outside the raster is
 * outside the area.
 */
export function insideArea({ w, d, mask }: StudArea, by: number): StudArea {
  // How many studs in a row end with each, then how many such rows one below the other.
  const side = 2 * by + 1;
  const runs = new Uint16Array(w);
  const left = new Uint8Array(w * d);
  for (let y = 0; y < d; y++) {
    let run = 0;
    for (let x = 0; x < w; x++) {
      run = mask[y * w + x] ? run + 1 : 0;
      runs[x] = run >= side ? runs[x] + 1 : 0;
      if (runs[x] >= side) left[(y - by) * w + x - by] = 1;
    }
  }
  return { w, d, mask: left };
}

/** An area grown by so many studs all round, by sides and corners, within its raster. */
export function grownArea({ w, d, mask }: StudArea, by: number): StudArea {
  const grown = new Uint8Array(w * d);
  mask.forEach((on, i) => {
    if (!on) return;
    const [x, y] = [i % w, Math.trunc(i / w)];
    for (let near = Math.max(0, y - by); near <= Math.min(d - 1, y + by); near++)
      grown.fill(1, near * w + Math.max(0, x - by), near * w + Math.min(w, x + by + 1));
  });
  return { w, d, mask: grown };
}

/** What two areas of one raster share. */
export const commonArea = ({ w, d, mask }: StudArea, other: StudArea): StudArea => ({
  ...{ w, d },
  mask: mask.map((on, i) => on & other.mask[i]),
});

/** Middle of an area, studs from its west and north ends; 0, 0 for no studs. */
export function middleOfArea({ w, mask }: StudArea): { x: number; y: number } {
  let [studs, x, y] = [0, 0, 0];
  mask.forEach((on, i) => {
    studs += on;
    x += on * ((i % w) + 0.5);
    y += on * (Math.trunc(i / w) + 0.5);
  });
  return studs > 0 ? { x: x / studs, y: y / studs } : { x: 0, y: 0 };
}

/** How many studs an area has. */
export const studsOfArea = ({ mask }: StudArea): number => mask.reduce((sum, on) => sum + on, 0);

/** The places of a rectangle’s studs in a raster of so many studs a row. */
export const studsOfRect = ({ x, y, w: wide, d: deep }: Rect, w: number): number[] =>
  Array.from({ length: wide * deep }, (_, k) => (y + Math.trunc(k / wide)) * w + x + (k % wide));

/** Whether all studs of a rectangle lie in an area; whole studs. */
export function isInArea({ w, d, mask }: StudArea, { x, y, w: wide, d: deep }: Rect): boolean {
  if (x < 0 || y < 0 || x + wide > w || y + deep > d) return false;
  return studsOfRect({ x, y, w: wide, d: deep }, w).every((i) => mask[i]);
}

/** The stretches of a row of a mask. @param on 1: of the area, 0: of what is left out of it */
function stretchesIn(row: Uint8Array, on: 0 | 1): Stretch[] {
  const found: Stretch[] = [];
  row.forEach((one, at) => {
    if (one !== on) return;
    const last = found.at(-1);
    if (last?.to === at) last.to++;
    else found.push({ from: at, to: at + 1 });
  });
  return found;
}

const rowOf = ({ w, mask }: StudArea, y: number): Uint8Array => mask.subarray(y * w, (y + 1) * w);

/** Rectangles of which each stretch of a row is in one: rows that are alike are in one together. */
function stripsIn(area: StudArea, on: 0 | 1): Rect[] {
  const strips: Rect[] = [];
  let open: Rect[] = [];
  for (let y = 0; y < area.d; y++) {
    open = stretchesIn(rowOf(area, y), on).map(({ from, to }) => {
      const above = open.find(({ x, w }) => x === from && x + w === to);
      if (above) {
        above.d++;
        return above;
      }
      const strip = { x: from, y, w: to - from, d: 1 };
      strips.push(strip);
      return strip;
    });
  }
  return strips;
}

/** An area in rectangles, each stud in one. */
export const stripsOfArea = (area: StudArea): Rect[] => stripsIn(area, 1);

/** What an area leaves of its raster, in rectangles. */
export const stripsBesideArea = (area: StudArea): Rect[] => stripsIn(area, 0);

/**
 * How far a rectangle is from what is outside an area, along x or y, whichever is more: so many studs could be taken off
 * all round before it is met. 0: it touches what is outside, or stands in it.
 */
export function offArea(area: StudArea, { x, y, w, d }: Rect): number {
  const toBorder = Math.min(x, y, area.w - x - w, area.d - y - d);
  const off = outsideOf(area).reduce((least, strip) => {
    const along = Math.max(x - strip.x - strip.w, strip.x - x - w);
    const across = Math.max(y - strip.y - strip.d, strip.y - y - d);
    return Math.min(least, Math.max(along, across));
  }, toBorder);
  return Math.max(0, off);
}
/** Each place of a figure and each stud under a roof asks. */
const outsideOf = rememberFor(stripsBesideArea);

/** The widest rectangles of each run of rows: those that a rectangle in an area lies in. Its cost grows with d² · w. */
export function rectsInArea(area: StudArea): Rect[] {
  const rects: Rect[] = [];
  for (let y = 0; y < area.d; y++) {
    const common = rowOf(area, y).slice();
    for (let end = y; end < area.d; end++) {
      rowOf(area, end).forEach((on, x) => (common[x] &= on));
      const stretches = stretchesIn(common, 1);
      if (stretches.length === 0) break;
      for (const { from, to } of stretches) rects.push({ x: from, y, w: to - from, d: end - y + 1 });
    }
  }
  return rects;
}

/**
 * The largest part of an area that hangs together by the sides of its studs; of parts as large the first.
 * @param sizeOf how much each stud counts
 */
export function largestPart({ w, d, mask }: StudArea, sizeOf: (i: number) => number = () => 1): StudArea {
  const left = mask.slice();
  let [largest, size]: [number[], number] = [[], 0];
  for (let start = left.indexOf(1); start >= 0; start = left.indexOf(1, start)) {
    const part = [start];
    left[start] = 0;
    // The list grows while it is walked through.
    for (const i of part) {
      const x = i % w;
      for (const near of [x > 0 ? i - 1 : -1, x < w - 1 ? i + 1 : -1, i - w, i + w])
        if (left[near]) {
          left[near] = 0;
          part.push(near);
        }
    }
    const sum = part.reduce((all, i) => all + sizeOf(i), 0);
    if (sum > size) [largest, size] = [part, sum];
  }
  const kept = new Uint8Array(w * d);
  for (const i of largest) kept[i] = 1;
  return { w, d, mask: kept };
}

/** Steps east, south, west and north. */
const STEPS = [
  { x: 1, y: 0 },
  { x: 0, y: 1 },
  { x: -1, y: 0 },
  { x: 0, y: -1 },
] as const;

/**
 * The outline of an area by its sides and steps, clockwise from the west end of its first row.
 * @param area whose studs hang together by their sides and leave no hole
 * @returns empty for no studs
 */
export function outlineOfArea({ w, d, mask }: StudArea): { x: number; y: number }[] {
  const first = mask.indexOf(1);
  if (first < 0) return [];
  const start = { x: first % w, y: Math.trunc(first / w) };
  const isIn = (x: number, y: number) => x >= 0 && y >= 0 && x < w && y < d && mask[y * w + x] === 1;
  const corners = [start];
  let [{ x, y }, way] = [start, 0];
  for (;;) {
    const ahead = STEPS[way];
    [x, y] = [x + ahead.x, y + ahead.y];
    if (x === start.x && y === start.y) return corners;
    // Studs ahead, right and left of the line: the area lies on its right.
    const right = STEPS[(way + 1) % 4];
    const stud = (side: 1 | -1) => ({
      x: x + (ahead.x + side * right.x - 1) / 2,
      y: y + (ahead.y + side * right.y - 1) / 2,
    });
    const [a, b] = [stud(1), stud(-1)];
    const turn = !isIn(a.x, a.y) ? 1 : isIn(b.x, b.y) ? 3 : 0;
    if (turn === 0) continue;
    corners.push({ x, y });
    way = (way + turn) % 4;
  }
}
