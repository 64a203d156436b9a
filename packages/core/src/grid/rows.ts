import type { Rect } from './rect.ts';

// Areas of whole studs that have one stretch of studs in each row: discs, ovals, boxes without some corners, what is left
// inside their walls.

/** The studs of one row: from and to, the end not in it; none where from ≥ to. */
export interface StudRow {
  from: number;
  to: number;
}

const isFilled = ({ from, to }: StudRow): boolean => from < to;

/**
 * The studs of the oval in a rectangle, row by row: those whose middle lies in it. 8 × 8 is 4, 6, 8, 8, 8, 8, 6, 4.
 * @param w @param d whole studs from 1
 */
export function discRows(w: number, d: number): StudRow[] {
  return Array.from({ length: d }, (_, row) => {
    const off = (row + 0.5 - d / 2) / (d / 2);
    const half = (w / 2) * Math.sqrt(Math.max(0, 1 - off * off));
    // A middle on the border lies in the oval; square roots are not exact.
    const from = Math.ceil(w / 2 - half - 0.5 - TIE);
    return { from, to: w - from };
  });
}
const TIE = 1e-9;

/** What is left of an area when so many studs all round are taken off, by sides and corners: what they leave has no gap. */
export function insideRows(rows: readonly StudRow[], by: number): StudRow[] {
  return rows.map((_, row) => {
    let [from, to] = [-Infinity, Infinity];
    for (let near = row - by; near <= row + by; near++) {
      const one = rows.at(near);
      if (near < 0 || near >= rows.length || !one || !isFilled(one)) return { from: 0, to: 0 };
      [from, to] = [Math.max(from, one.from + by), Math.min(to, one.to - by)];
    }
    return { from, to };
  });
}

/** An area grown by so many studs all round, by sides and corners, within as many rows as it has. */
export function grownRows(rows: readonly StudRow[], by: number): StudRow[] {
  return rows.map((_, row) => {
    const near = rows.slice(Math.max(0, row - by), row + by + 1).filter(isFilled);
    if (near.length === 0) return { from: 0, to: 0 };
    const [west, east] = [near.map(({ from }) => from), near.map(({ to }) => to)];
    return { from: Math.min(...west) - by, to: Math.max(...east) + by };
  });
}

/** What two areas of as many rows share. */
export const commonRows = (a: readonly StudRow[], b: readonly StudRow[]): StudRow[] =>
  a.map(({ from, to }, row) => ({ from: Math.max(from, b[row].from), to: Math.min(to, b[row].to) }));

/** The oval that lies so far inside a rectangle on its west and north and as far on the other sides, in all its rows. */
export function discWithin(w: number, d: number, off: { x: number; y: number }): StudRow[] {
  const rows = discRows(w - 2 * off.x, d - 2 * off.y);
  return Array.from({ length: d }, (_, row) => {
    const one = row < off.y ? undefined : rows.at(row - off.y);
    return row < d - off.y && one ? { from: one.from + off.x, to: one.to + off.x } : { from: 0, to: 0 };
  });
}

/** Middle of an area, studs from its west and north ends; 0, 0 for no studs. */
export function middleOfRows(rows: readonly StudRow[]): { x: number; y: number } {
  let [studs, x, y] = [0, 0, 0];
  rows.forEach(({ from, to }, row) => {
    const wide = Math.max(0, to - from);
    studs += wide;
    x += wide * ((from + to) / 2);
    y += wide * (row + 0.5);
  });
  return studs > 0 ? { x: x / studs, y: y / studs } : { x: 0, y: 0 };
}

/**
 * How far a rectangle is from what is outside an area, along x or y, whichever is more: so many studs could be taken off
 * all round before it is met. 0: it touches what is outside, or stands in it.
 */
export function offRows(rows: readonly StudRow[], { x, y, w, d }: Rect): number {
  let off = Math.min(y, rows.length - y - d);
  rows.forEach((row, at) => {
    const far = Math.max(0, y - at - 1, at - y - d);
    const beside = isFilled(row) ? Math.min(x - row.from, row.to - x - w) : 0;
    off = Math.min(off, Math.max(far, beside));
  });
  return Math.max(0, off);
}

/** The widest rectangle of each run of rows: those that a rectangle in an area lies in. Its cost grows with rows². */
export function rectsInRows(rows: readonly StudRow[]): Rect[] {
  const rects: Rect[] = [];
  for (let y = 0; y < rows.length; y++) {
    let [from, to] = [-Infinity, Infinity];
    for (let end = y; end < rows.length; end++) {
      [from, to] = [Math.max(from, rows[end].from), Math.min(to, rows[end].to)];
      if (from >= to) break;
      rects.push({ x: from, y, w: to - from, d: end - y + 1 });
    }
  }
  return rects;
}

/** How many studs an area has. */
export const studsOfRows = (rows: readonly StudRow[]): number =>
  rows.reduce((sum, { from, to }) => sum + Math.max(0, to - from), 0);

/** An area as a raster as wide as is said and as deep as it has rows: 1 in it, else 0. */
export function maskOfRows(rows: readonly StudRow[], w: number): Uint8Array {
  const mask = new Uint8Array(w * rows.length);
  rows.forEach(({ from, to }, row) => {
    if (from < to) mask.fill(1, row * w + from, row * w + to);
  });
  return mask;
}

/** The outline of an area by its sides and steps, clockwise from the west end of its first row; empty for no studs. */
export function outlineOfRows(rows: readonly StudRow[]): { x: number; y: number }[] {
  const filled = rows.flatMap((row, y) => (isFilled(row) ? [{ ...row, y }] : []));
  const down = filled.flatMap(({ to, y }) => [
    { x: to, y },
    { x: to, y: y + 1 },
  ]);
  const up = filled.toReversed().flatMap(({ from, y }) => [
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
