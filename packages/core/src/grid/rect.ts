/** What lengths count: studs of the display, millimetres of a room, pixels of a screen. */
export type CoordinateFrame = 'studs' | 'mm' | 'px';

/**
 * A rectangle: x east, y south of its frame's north-west corner, w × d its size. The frame is of the type alone, so that
 * millimetres are never taken for studs: what turns one into the other says so by its types.
 */
export interface Rect<F extends CoordinateFrame = 'studs'> {
  x: number;
  y: number;
  w: number;
  d: number;
  readonly frame?: F;
}

/** The part two rectangles share, or null when it has no area. */
export function intersection<F extends CoordinateFrame = 'studs'>(a: Rect<F>, b: Rect<F>): Rect<F> | null {
  const x = Math.max(a.x, b.x);
  const y = Math.max(a.y, b.y);
  const w = Math.min(a.x + a.w, b.x + b.w) - x;
  const d = Math.min(a.y + a.d, b.y + b.d) - y;
  return w > 0 && d > 0 ? { x, y, w, d } : null;
}

/** Whether `inner` lies wholly in `outer` (edges may touch). */
export function contains<F extends CoordinateFrame = 'studs'>(outer: Rect<F>, inner: Rect<F>): boolean {
  return (
    inner.x >= outer.x &&
    inner.y >= outer.y &&
    inner.x + inner.w <= outer.x + outer.w &&
    inner.y + inner.d <= outer.y + outer.d
  );
}

/** Whether a point lies in a rectangle; its west and north edges belong to it, its east and south edges do not. */
export const containsPoint = (rect: Rect<CoordinateFrame>, x: number, y: number): boolean =>
  x >= rect.x && y >= rect.y && x < rect.x + rect.w && y < rect.y + rect.d;

/** The least rectangle of whole numbers that holds one. */
export function roundOut<F extends CoordinateFrame = 'studs'>({ x, y, w, d }: Rect<F>): Rect<F> {
  const [west, north] = [Math.floor(x), Math.floor(y)];
  return { x: west, y: north, w: Math.ceil(x + w) - west, d: Math.ceil(y + d) - north };
}

/** A rectangle that reaches further on each side. @param by how far, in the rectangle's own unit */
export const grown = <F extends CoordinateFrame = 'studs'>({ x, y, w, d }: Rect<F>, by: number): Rect<F> => ({
  x: x - by,
  y: y - by,
  w: w + 2 * by,
  d: d + 2 * by,
});

/** The corners of a rectangle, clockwise from its north-west one. */
export const quadOf = ({ x, y, w, d }: Rect<CoordinateFrame>): { x: number; y: number }[] => [
  { x, y },
  { x: x + w, y },
  { x: x + w, y: y + d },
  { x, y: y + d },
];

/** Centre of a rectangle, in the rectangle's own unit. */
export function centreOf({ x, y, w, d }: Rect<CoordinateFrame>): { x: number; y: number } {
  return { x: x + w / 2, y: y + d / 2 };
}

/**
 * The whole studs whose centres lie in a rectangle, as a rectangle of stud indices (a stud belongs by its centre).
 * A centre exactly on the west or north edge belongs, on the east or south edge it does not, so that two
 * rectangles that touch never claim the same stud.
 */
export function studsIn({ x, y, w, d }: Rect): Rect {
  const first = (edge: number) => Math.ceil(edge - 0.5) + 0;
  return { x: first(x), y: first(y), w: first(x + w) - first(x), d: first(y + d) - first(y) };
}

/** Area of the union of rectangles, by coordinate compression. O(n³) for n rectangles: meant for tens, not thousands. */
export function unionArea<F extends CoordinateFrame = 'studs'>(rects: readonly Rect<F>[]): number {
  const xs = [...new Set(rects.flatMap((r) => [r.x, r.x + r.w]))].sort((a, b) => a - b);
  const ys = [...new Set(rects.flatMap((r) => [r.y, r.y + r.d]))].sort((a, b) => a - b);
  let area = 0;
  for (let i = 0; i + 1 < xs.length; i++)
    for (let j = 0; j + 1 < ys.length; j++) {
      const cell = { x: xs[i], y: ys[j], w: xs[i + 1] - xs[i], d: ys[j + 1] - ys[j] };
      if (rects.some((r) => contains(r, cell))) area += cell.w * cell.d;
    }
  return area;
}

/** The least rectangle that holds all of some; there must be at least one. */
export function boundsOf<F extends CoordinateFrame = 'studs'>(rects: readonly Rect<F>[]): Rect<F> {
  const x = Math.min(...rects.map((rect) => rect.x));
  const y = Math.min(...rects.map((rect) => rect.y));
  return {
    x,
    y,
    w: Math.max(...rects.map((rect) => rect.x + rect.w)) - x,
    d: Math.max(...rects.map((rect) => rect.y + rect.d)) - y,
  };
}

/** The least rectangle that holds points; there must be at least one. */
export const boundsOfPoints = <F extends CoordinateFrame = 'studs'>(
  points: readonly { x: number; y: number }[],
): Rect<F> => boundsOf(points.map(({ x, y }) => ({ x, y, w: 0, d: 0 })));

/**
 * The area of a closed outline and its middle, by the shoelace formula.
 * @returns the area above 0 when the corners run clockwise (y south), below 0 when they run the other way
 */
export function areaOfOutline(corners: readonly { x: number; y: number }[]): {
  area: number;
  x: number;
  y: number;
} {
  let [twice, x, y] = [0, 0, 0];
  corners.forEach((a, i) => {
    const b = corners[(i + 1) % corners.length];
    const cross = a.x * b.y - b.x * a.y;
    twice += cross;
    x += (a.x + b.x) * cross;
    y += (a.y + b.y) * cross;
  });
  if (twice === 0) return { area: 0, x: 0, y: 0 };
  return { area: twice / 2, x: x / (3 * twice), y: y / (3 * twice) };
}
