import { containsPoint, roundOut, intersection, studsIn, type Rect, quadOf } from '../grid/index.ts';
import type { Area, Side } from '../document/index.ts';

/** Lengths that differ by less are the same: numbers carry noise in their last digits. Studs. */
export const TIE = 1e-7;

// Areas of the plan on the stud grid: which studs belong, and how far within a stud lies.

export interface Point {
  x: number;
  y: number;
}

/** One stud towards each side. */
export const NEIGHBOUR_STEPS: Readonly<Record<Side, Point>> = {
  n: { x: 0, y: -1 },
  e: { x: 1, y: 0 },
  s: { x: 0, y: 1 },
  w: { x: -1, y: 0 },
};

/** The first stud whose centre does not lie before an edge: a stud belongs by its centre. */
const firstStud = (edge: number) => Math.ceil(edge - 0.5 - TIE) + 0;

/** Corners of an outline in studs. */
export const cornersOfOutline = ({ x, y, w, d, outline }: Area): Point[] =>
  outline.map((share) => ({ x: x + share.x * w, y: y + share.y * d }));

/**
 * Calls `visit` with the studs of each row of an area that lie in a window: from the first column to before the
 * last. A stud belongs when its centre lies in the area (on a west or north edge it does, on the others it does not).
 * Outlines are filled by the even-odd rule.
 */
export function eachSpan(
  area: Area,
  window: Rect,
  visit: (row: number, from: number, to: number) => void,
): void {
  const studs = studsIn(area);
  const last = Math.min(studs.y + studs.d, window.y + window.d);
  const corners = area.shape === 'outline' ? cornersOfOutline(area) : [];
  const take = (row: number, from: number, to: number) => {
    const a = Math.max(firstStud(from), window.x);
    const b = Math.min(firstStud(to), window.x + window.w);
    if (a < b) visit(row, a, b);
  };
  for (let row = Math.max(studs.y, window.y); row < last; row++) {
    if (area.shape === 'rect') take(row, area.x, area.x + area.w);
    else if (area.shape === 'oval') {
      // Half chord of the ellipse at the row's centre: (u/a)² + (v/b)² ≤ 1.
      const v = (row + 0.5 - area.y - area.d / 2) / (area.d / 2);
      const chord = v * v <= 1 ? (Math.sqrt(1 - v * v) * area.w) / 2 : 0;
      const middle = area.x + area.w / 2;
      if (chord > 0) take(row, middle - chord, middle + chord);
    } else {
      const cuts = crossings(corners, row + 0.5);
      for (let i = 0; i + 1 < cuts.length; i += 2) take(row, cuts[i], cuts[i + 1]);
    }
  }
}

/** Where a horizontal line crosses a closed outline, from west to east. */
export function crossings(corners: readonly Point[], y: number): number[] {
  const cuts: number[] = [];
  corners.forEach((a, i) => {
    const b = corners[(i + 1) % corners.length];
    if (a.y <= y !== b.y <= y) cuts.push(a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x));
  });
  return cuts.sort((a, b) => a - b);
}

/** Whether a point lies in an area. */
export function isIn(area: Area, x: number, y: number): boolean {
  if (area.shape === 'oval')
    return (
      ((x - area.x - area.w / 2) / (area.w / 2)) ** 2 + ((y - area.y - area.d / 2) / (area.d / 2)) ** 2 <= 1
    );
  if (area.shape === 'rect') return containsPoint(area, x, y);
  return isInOutline(cornersOfOutline(area), { x, y });
}

/** Whether a point lies in a closed outline, by the even-odd rule. */
export const isInOutline = (corners: readonly Point[], { x, y }: Point): boolean =>
  crossings(corners, y).filter((cut) => cut <= x).length % 2 === 1;

/**
 * How far a point lies on its way from an inner point `q` to the border, along the straight line through both:
 * 0 at `q`, 1 on the border, more beyond. Where the line leaves an outline more than once, the first border
 * beyond the point counts (of a point outside: the last border before it).
 */
export function rayExitFraction(area: Area, q: Point, p: Point): number {
  const [dx, dy] = [p.x - q.x, p.y - q.y];
  if (dx === 0 && dy === 0) return 0;
  if (area.shape === 'oval') {
    const [a, b] = [area.w / 2, area.d / 2];
    const [u, v] = [(q.x - area.x - a) / a, (q.y - area.y - b) / b];
    const [du, dv] = [dx / a, dy / b];
    const length = du * du + dv * dv;
    const along = u * du + v * dv;
    const root = along * along - length * (u * u + v * v - 1);
    return root < 0 ? 1 : length / (Math.sqrt(root) - along);
  }
  if (area.shape === 'rect') {
    const kx = dx > 0 ? (area.x + area.w - q.x) / dx : dx < 0 ? (area.x - q.x) / dx : Infinity;
    const ky = dy > 0 ? (area.y + area.d - q.y) / dy : dy < 0 ? (area.y - q.y) / dy : Infinity;
    return 1 / Math.min(kx, ky);
  }
  let beyond = Infinity;
  let before = 0;
  const corners = cornersOfOutline(area);
  for (let i = 0; i < corners.length; i++) {
    const a = corners[i];
    const b = corners[(i + 1) % corners.length];
    const [ex, ey] = [b.x - a.x, b.y - a.y];
    const cross = dx * ey - dy * ex;
    if (cross === 0) continue;
    const k = ((a.x - q.x) * ey - (a.y - q.y) * ex) / cross;
    const along = ((a.x - q.x) * dy - (a.y - q.y) * dx) / cross;
    if (along < 0 || along > 1 || k <= 0) continue;
    if (k >= 1) beyond = Math.min(beyond, k);
    else before = Math.max(before, k);
  }
  return Number.isFinite(beyond) ? 1 / beyond : before > 0 ? 1 / before : 1;
}

/** The point of a segment that is nearest to another, and how far along it lies, 0 to 1. */
export function nearestOn(a: Point, b: Point, p: Point): Point & { along: number } {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const length = dx * dx + dy * dy;
  const along = length === 0 ? 0 : Math.min(1, Math.max(0, ((p.x - a.x) * dx + (p.y - a.y) * dy) / length));
  return { x: a.x + along * dx, y: a.y + along * dy, along };
}

/** Corners of an area's border, studs; of an oval as many as keep within a hundredth of a stud of it. */
export function borderOf(area: Area): Point[] {
  const { x, y, w, d } = area;
  if (area.shape === 'outline') return cornersOfOutline(area);
  if (area.shape === 'rect') return quadOf(area);
  // A chord of an arc of radius r lies r (1 − cos(half its angle)) inside it.
  const corners = Math.ceil(Math.PI / Math.acos(1 - 0.01 / Math.max(w, d, 1)));
  return Array.from({ length: corners }, (_, i) => {
    const angle = (2 * Math.PI * i) / corners;
    return { x: x + (w / 2) * (1 + Math.cos(angle)), y: y + (d / 2) * (1 + Math.sin(angle)) };
  });
}

/**
 * Calls `visit` once for each stud of a window whose centre lies no further than `most` from the border of an area,
 * inside or outside of it, with how far, studs.
 */
export function eachNearBorder(
  area: Area,
  most: number,
  window: Rect,
  visit: (x: number, y: number, off: number) => void,
): void {
  const corners = borderOf(area);
  const whole = intersection(
    roundOut({ x: area.x - most, y: area.y - most, w: area.w + 2 * most, d: area.d + 2 * most }),
    window,
  );
  if (!whole) return;
  const off = new Float64Array(whole.w * whole.d).fill(Infinity);
  corners.forEach((a, i) => {
    const b = corners[(i + 1) % corners.length];
    const about = intersection(
      whole,
      roundOut({
        x: Math.min(a.x, b.x) - most,
        y: Math.min(a.y, b.y) - most,
        w: Math.abs(a.x - b.x) + 2 * most,
        d: Math.abs(a.y - b.y) + 2 * most,
      }),
    );
    if (!about) return;
    for (let row = about.y; row < about.y + about.d; row++)
      for (let column = about.x; column < about.x + about.w; column++) {
        const p = { x: column + 0.5, y: row + 0.5 };
        const q = nearestOn(a, b, p);
        const at = (row - whole.y) * whole.w + column - whole.x;
        off[at] = Math.min(off[at], Math.hypot(p.x - q.x, p.y - q.y));
      }
  });
  off.forEach((far, at) => {
    if (far <= most + TIE) visit(whole.x + (at % whole.w), whole.y + Math.trunc(at / whole.w), far);
  });
}

/**
 * Calls `visit` with the studs of each row that an outline touches with any of its area: the footprint of what is turned
 * off the grid. A row is visited once for each of its stretches, from the west; of a convex outline it has one.
 */
export function eachTouched(
  corners: readonly Point[],
  window: Rect,
  visit: (row: number, from: number, to: number) => void,
): void {
  const low = Math.min(...corners.map(({ y }) => y));
  const high = Math.max(...corners.map(({ y }) => y));
  const last = Math.min(Math.ceil(high - TOUCH), window.y + window.d);
  for (let row = Math.max(Math.floor(low + TOUCH), window.y); row < last; row++) {
    let [west, east] = [Infinity, -Infinity];
    for (const span of touchedSpans(corners, row)) {
      const from = Math.max(Math.floor(span.from + TOUCH), window.x);
      const to = Math.min(Math.ceil(span.to - TOUCH), window.x + window.w);
      if (from >= to) continue;
      if (from > east && west < east) {
        visit(row, west, east);
        [west, east] = [Infinity, -Infinity];
      }
      [west, east] = [Math.min(west, from), Math.max(east, to)];
    }
    if (west < east) visit(row, west, east);
  }
}

/** From where to where an outline has area in a row of studs, from the west; stretches may overlap. */
function touchedSpans(corners: readonly Point[], row: number): { from: number; to: number }[] {
  // Between two heights with no corner between them what lies inside is between the first side and the second, and so on.
  const heights = corners.map(({ y }) => y).filter((y) => y > row && y < row + 1);
  const cuts = [row, ...heights.sort((a, b) => a - b), row + 1];
  const spans: { from: number; to: number }[] = [];
  for (let k = 1; k < cuts.length; k++) {
    const [from, to] = [cuts[k - 1], cuts[k]];
    if (to - from <= TOUCH) continue;
    const sides: { low: number; high: number }[] = [];
    corners.forEach((a, i) => {
      const b = corners[(i + 1) % corners.length];
      if (Math.min(a.y, b.y) > (from + to) / 2 || Math.max(a.y, b.y) <= (from + to) / 2) return;
      const at = (y: number) => a.x + Math.min(1, Math.max(0, (y - a.y) / (b.y - a.y))) * (b.x - a.x);
      sides.push({ low: Math.min(at(from), at(to)), high: Math.max(at(from), at(to)) });
    });
    sides.sort((a, b) => a.low + a.high - b.low - b.high);
    for (let i = 1; i < sides.length; i += 2) spans.push({ from: sides[i - 1].low, to: sides[i].high });
  }
  return spans.sort((a, b) => a.from - b.from);
}
/** Less than this is no touch, studs: sines of right angles are not exact. */
const TOUCH = 1e-6;
