import { PLATES_PER_BRICK } from '../lattice/index.ts';
import { OUTSIDE, type Relief } from './relief.ts';

/** Contour lines of one height: corner points in studs, x and y in turn; each line runs with the high side on its left. */
export interface Contour {
  /** Plates above datum; the ground on the high side reaches it. */
  height: number;
  /** True on every fifth brick: drawn heavier and labelled. */
  index: boolean;
  lines: Float64Array[];
}

/**
 * Contours at each whole brick between the lowest and the highest ground. The ground of version 1 is stepped, so a
 * contour runs along the stud edges where the ground passes its height; edges to outside the footprint are no step.
 */
export function contoursOf(relief: Relief): Contour[] {
  const { w, d, height, ground } = relief;
  let low = Infinity;
  let high = -Infinity;
  for (let i = 0; i < height.length; i++)
    if (ground[i] !== OUTSIDE) {
      low = Math.min(low, height[i]);
      high = Math.max(high, height[i]);
    }
  const contours: Contour[] = [];
  for (let brick = Math.floor(low / PLATES_PER_BRICK) + 1; brick * PLATES_PER_BRICK <= high; brick++) {
    const level = brick * PLATES_PER_BRICK;
    /** Whether the ground passes the level between two studs, and which of them is high: 1, −1 or 0. */
    const step = (a: number, b: number) =>
      ground[a] === OUTSIDE || ground[b] === OUTSIDE
        ? 0
        : Number(height[a] >= level) - Number(height[b] >= level);
    // Directed unit edges between corner points, high ground on the left, keyed by their start.
    const edges = new Map<number, number[]>();
    const corners = w + 1;
    const link = (from: number, to: number) => {
      const list = edges.get(from);
      if (list) list.push(to);
      else edges.set(from, [to]);
    };
    for (let y = 0; y < d; y++)
      for (let x = 0; x < w; x++) {
        const i = y * w + x;
        const corner = y * corners + x;
        const east = x + 1 < w ? step(i, i + 1) : 0;
        if (east > 0) link(corner + corners + 1, corner + 1);
        else if (east < 0) link(corner + 1, corner + corners + 1);
        const south = y + 1 < d ? step(i, i + w) : 0;
        if (south > 0) link(corner + corners, corner + corners + 1);
        else if (south < 0) link(corner + corners + 1, corner + corners);
      }
    if (edges.size > 0)
      contours.push({
        height: level,
        index: brick % 5 === 0,
        lines: chain(edges, corners).map((line) => place(line, relief)),
      });
  }
  return contours;
}

/** Joins directed edges to lines: first the ones with an open end, then the rings. */
function chain(edges: Map<number, number[]>, corners: number): number[][] {
  const incoming = new Map<number, number>();
  for (const list of edges.values()) for (const to of list) incoming.set(to, (incoming.get(to) ?? 0) + 1);
  const starts = [...edges.keys()].filter(
    (from) => (edges.get(from)?.length ?? 0) > (incoming.get(from) ?? 0),
  );
  const lines: number[][] = [];
  const follow = (start: number) => {
    const line = [start];
    let at = start;
    let before = -1;
    for (;;) {
      const list = edges.get(at);
      if (!list || list.length === 0) break;
      // Where two lines touch at a corner, turn rather than cross, so that rings stay simple.
      const turn = before < 0 || list.length === 1 ? 0 : list.findIndex((to) => to - at !== at - before);
      const [next] = list.splice(Math.max(turn, 0), 1);
      const [p, q] = [line[line.length - 2], line[line.length - 1]];
      if (line.length > 1 && collinear(p, q, next, corners)) line[line.length - 1] = next;
      else line.push(next);
      before = at;
      at = next;
      if (at === start) break;
    }
    if (line.length > 1) lines.push(line);
  };
  for (const start of [...starts, ...edges.keys()]) while ((edges.get(start)?.length ?? 0) > 0) follow(start);
  return lines;
}

/** Whether three corner points lie on one stud line. */
function collinear(p: number, q: number, r: number, corners: number): boolean {
  const column = (corner: number) => corner % corners;
  const row = (corner: number) => Math.trunc(corner / corners);
  return (column(p) === column(q) && column(q) === column(r)) || (row(p) === row(q) && row(q) === row(r));
}

function place(line: number[], { x, y, w }: Relief): Float64Array {
  const points = new Float64Array(line.length * 2);
  line.forEach((corner, i) => {
    points[2 * i] = x + (corner % (w + 1));
    points[2 * i + 1] = y + Math.trunc(corner / (w + 1));
  });
  return points;
}
