import { PLATES_PER_BRICK, type Rect } from '../grid/index.ts';
import { OUTSIDE, type Relief } from './relief.ts';

/** Contour lines of one height: corner points in studs, x and y in turn; each line runs with the high side on its left. */
export interface Contour {
  /** Plates above datum; the ground on the high side reaches it. */
  height: number;
  /** True on every fifth brick: drawn heavier and labelled. */
  index: boolean;
  lines: Float64Array[];
}

/** The most edges that can begin in one corner of the grid. */
const FORKS = 2;

/**
 * Contours at each whole brick between the lowest and the highest ground of a window. The ground is stepped, so a
 * contour runs along the stud edges where the ground passes its height; edges to outside the footprint are no step.
 * A window takes the edges on the east and south sides of its studs: windows side by side make the whole, their
 * lines ending where they meet.
 * @param window whole studs; left out: all of the relief
 */
export function contoursOf(relief: Relief, window: Rect = relief): Contour[] {
  const { w, d, height, ground } = relief;
  const x0 = Math.max(0, window.x - relief.x);
  const y0 = Math.max(0, window.y - relief.y);
  const x1 = Math.min(w, window.x + window.w - relief.x);
  const y1 = Math.min(d, window.y + window.d - relief.y);
  if (x0 >= x1 || y0 >= y1) return [];
  // Corners of the window's studs, one more on each side; each edge starts and ends in one of them.
  const corners = x1 - x0 + 1;
  const levels = new Map<number, number[]>();
  /** Notes the unit edge between two studs at each height the ground passes there, high ground on its left. */
  const step = (a: number, b: number, from: number, to: number) => {
    if (ground[a] === OUTSIDE || ground[b] === OUTSIDE) return;
    const [low, high] = height[a] < height[b] ? [height[a], height[b]] : [height[b], height[a]];
    const last = Math.floor(high / PLATES_PER_BRICK);
    for (let brick = Math.floor(low / PLATES_PER_BRICK) + 1; brick <= last; brick++) {
      let edges = levels.get(brick);
      if (!edges) levels.set(brick, (edges = []));
      if (height[a] > height[b]) edges.push(from, to);
      else edges.push(to, from);
    }
  };
  for (let y = y0; y < y1; y++)
    for (let x = x0; x < x1; x++) {
      const i = y * w + x;
      const corner = (y - y0) * corners + x - x0;
      if (x + 1 < w && height[i] !== height[i + 1]) step(i, i + 1, corner + corners + 1, corner + 1);
      if (y + 1 < d && height[i] !== height[i + w]) step(i, i + w, corner + corners, corner + corners + 1);
    }
  const origin = { x: relief.x + x0, y: relief.y + y0 };
  const chained = new Chains(corners * (y1 - y0 + 1), corners);
  return [...levels.keys()]
    .sort((a, b) => a - b)
    .map((brick) => ({
      height: brick * PLATES_PER_BRICK,
      index: brick % 5 === 0,
      lines: chained.of(levels.get(brick) ?? []).map((line) => place(line, corners, origin)),
    }));
}

/** Joins directed edges to lines, in arrays that serve for one level after the other. */
class Chains {
  /** Where the edges that begin in a corner end, −1 when there is none (any more). */
  private readonly next: Int32Array;
  /** Edges that begin in a corner less those that end there. */
  private readonly surplus: Int8Array;

  constructor(
    size: number,
    private readonly corners: number,
  ) {
    this.next = new Int32Array(size * FORKS).fill(-1);
    this.surplus = new Int8Array(size);
  }

  /** @param edges corners in pairs: from, to. @returns lines as corners; first those with an open end, then the rings */
  of(edges: readonly number[]): number[][] {
    for (let k = 0; k < edges.length; k += 2) {
      const [from, to] = [edges[k], edges[k + 1]];
      this.next[this.next[from * FORKS] < 0 ? from * FORKS : from * FORKS + 1] = to;
      this.surplus[from]++;
      this.surplus[to]--;
    }
    const lines: number[][] = [];
    for (const open of [true, false])
      for (let k = 0; k < edges.length; k += 2) {
        const from = edges[k];
        while ((open ? this.surplus[from] > 0 : true) && this.next[from * FORKS] >= 0) {
          if (open) this.surplus[from]--;
          lines.push(this.follow(from));
        }
      }
    for (let k = 0; k < edges.length; k += 2) this.surplus[edges[k]] = this.surplus[edges[k + 1]] = 0;
    return lines;
  }

  private follow(start: number): number[] {
    const { next, corners } = this;
    const line = [start];
    let at = start;
    let before = -1;
    do {
      const first = at * FORKS;
      if (next[first] < 0) break;
      // Where two lines touch at a corner, turn rather than cross, so that rings stay simple.
      const turn = next[first + 1] >= 0 && before >= 0 && next[first] - at === at - before ? 1 : 0;
      const to = next[first + turn];
      if (turn === 0) next[first] = next[first + 1];
      next[first + 1] = -1;
      const [p, q] = [line[line.length - 2], line[line.length - 1]];
      if (line.length > 1 && collinear(p, q, to, corners)) line[line.length - 1] = to;
      else line.push(to);
      before = at;
      at = to;
    } while (at !== start);
    return line;
  }
}

/** Whether three corner points, two stud edges apart or more, lie on one stud line. */
function collinear(p: number, q: number, r: number, corners: number): boolean {
  const column = q % corners;
  if (p % corners === column) return r % corners === column;
  const row = q - column;
  return p - (p % corners) === row && r - (r % corners) === row;
}

function place(line: number[], corners: number, { x, y }: { x: number; y: number }): Float64Array {
  const points = new Float64Array(line.length * 2);
  line.forEach((corner, i) => {
    points[2 * i] = x + (corner % corners);
    points[2 * i + 1] = y + Math.trunc(corner / corners);
  });
  return points;
}
