import { MM_PER_STUD, type Rect } from '../grid/index.ts';

// The way of a cable: a tree of straight wires along the stud grid that is parted where modules are.

export interface WirePoint {
  /** Studs. */
  x: number;
  y: number;
}

/** What is carried by itself, with the rectangles that it covers, studs. */
export interface WireGround {
  id: string;
  rects: readonly Rect[];
}

/** A point of a cable: where it begins, what it feeds, or where it can be parted. */
export interface WireNode extends WirePoint {
  /** It lies on the side of modules and belongs to both. */
  isConnector: boolean;
}

/** A wire that goes from one piece to another where no connector is. */
export interface Parting extends WirePoint {
  /** Ids of the pieces; null: beside them all. */
  from: string | null;
  to: string | null;
}

/** A wire between two nodes, by index. */
export interface Wire {
  from: number;
  to: number;
  /** Both ends, and the corner between them where it turns. */
  points: WirePoint[];
  studs: number;
  partings: Parting[];
}

/** What a place where a wire goes over a side without a connector is worth, studs of cable: it is the last resort. */
const PARTING_STUDS = 2000;

/**
 * Whose each point is. The sides of all pieces part the plan into cells; a piece owns its west and north sides, not its
 * east and south ones. How often the owner changes along a row or column of cells is summed up beforehand, so that a wire
 * costs two searches, however many pieces there are.
 */
class WireMap {
  private readonly xs: number[];
  private readonly ys: number[];
  /** Number of the owner of each cell, row by row; 0: nobody's. */
  private readonly owners: Int32Array;
  /** Changes of owner from the first cell of its row, or column, to each cell. */
  private readonly alongRow: Int32Array;
  private readonly alongColumn: Int32Array;
  private readonly columns: number;

  constructor(private readonly ground: readonly WireGround[]) {
    const rects = ground.flatMap((piece) => piece.rects);
    const stops = (sides: readonly number[]) => [...new Set(sides)].sort((a, b) => a - b);
    this.xs = stops(rects.flatMap(({ x, w }) => [x, x + w]));
    this.ys = stops(rects.flatMap(({ y, d }) => [y, y + d]));
    this.columns = this.xs.length + 1;
    const cells = this.columns * (this.ys.length + 1);
    this.owners = new Int32Array(cells);
    this.alongRow = new Int32Array(cells);
    this.alongColumn = new Int32Array(cells);
    ground.toReversed().forEach((piece, i) => {
      for (const { x, y, w, d } of piece.rects)
        for (let row = upTo(this.ys, y); row < upTo(this.ys, y + d); row++)
          for (let column = upTo(this.xs, x); column < upTo(this.xs, x + w); column++)
            this.owners[row * this.columns + column] = ground.length - i;
    });
    for (let cell = 0; cell < cells; cell++) {
      const owner = this.owners[cell];
      if (cell % this.columns > 0)
        this.alongRow[cell] = this.alongRow[cell - 1] + Number(owner !== this.owners[cell - 1]);
      const above = cell - this.columns;
      if (above >= 0) this.alongColumn[cell] = this.alongColumn[above] + Number(owner !== this.owners[above]);
    }
  }

  spotAt({ x, y }: WirePoint): Spot {
    const [column, row] = [upTo(this.xs, x), upTo(this.ys, y)];
    return { x, y, column, row, columnBefore: below(this.xs, x), rowBefore: below(this.ys, y) };
  }

  ownerAt({ row, column }: Spot): number {
    return this.owners[row * this.columns + column];
  }

  idOf(owner: number): string | null {
    return owner === 0 ? null : this.ground[owner - 1].id;
  }

  /**
   * The cells through which a straight wire goes from one end to the other. Only what lies between its ends counts: from
   * an end on a side it goes through the cell before it.
   */
  cellsAlong(a: Spot, b: Spot): { first: number; last: number } {
    const { columns } = this;
    if (a.y === b.y) {
      const row = a.row * columns;
      return a.x < b.x
        ? { first: row + a.column, last: row + b.columnBefore }
        : { first: row + a.columnBefore, last: row + b.column };
    }
    return a.y < b.y
      ? { first: a.row * columns + a.column, last: b.rowBefore * columns + a.column }
      : { first: a.rowBefore * columns + a.column, last: b.row * columns + a.column };
  }

  ownerOf(cell: number): number {
    return this.owners[cell];
  }

  /** How often the owner changes from one cell to another of its row or column. */
  countChanges(first: number, last: number, isLevel: boolean): number {
    const sums = isLevel ? this.alongRow : this.alongColumn;
    return Math.abs(sums[last] - sums[first]);
  }

  /** Where the owner changes along a straight wire. */
  changesAlong(a: Spot, b: Spot): Parting[] {
    const { first, last } = this.cellsAlong(a, b);
    const isLevel = a.y === b.y;
    const step = Math.sign(last - first) * (isLevel ? 1 : this.columns);
    const found: Parting[] = [];
    for (let cell = first; cell !== last; cell += step) {
      const [from, to] = [this.owners[cell], this.owners[cell + step]];
      if (from === to) continue;
      const before = Math.min(cell, cell + step);
      const at = isLevel
        ? { x: this.xs[before % this.columns], y: a.y }
        : { x: a.x, y: this.ys[Math.trunc(before / this.columns)] };
      found.push({ ...at, from: this.idOf(from), to: this.idOf(to) });
    }
    return found;
  }
}

/** A point of the plan with its cell, and the cells west and north of it where it lies on a side. */
interface Spot extends WirePoint {
  column: number;
  row: number;
  columnBefore: number;
  rowBefore: number;
}

/** A node with its cells. */
interface Place extends Spot {
  /** Number of the piece it lies on; −1: a connector, which belongs to all about it. */
  owner: number;
}

/** How many stops lie at or before a place. */
function upTo(stops: readonly number[], at: number): number {
  let [low, high] = [0, stops.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (stops[middle] <= at) low = middle + 1;
    else high = middle;
  }
  return low;
}
/** How many stops lie before a place. */
const below = (stops: readonly number[], at: number): number => {
  const count = upTo(stops, at);
  return count > 0 && stops[count - 1] === at ? count - 1 : count;
};

/** The corner of a wire that goes east or west first, or north or south. */
function cornerOf(a: Spot, b: Spot, isLevelFirst: boolean): Spot {
  const across = isLevelFirst ? b : a;
  const along = isLevelFirst ? a : b;
  // Written out: this is made for each pair of nodes.
  return {
    x: across.x,
    y: along.y,
    column: across.column,
    row: along.row,
    columnBefore: across.columnBefore,
    rowBefore: along.rowBefore,
  };
}

const isSame = (a: WirePoint, b: WirePoint) => a.x === b.x && a.y === b.y;

/** How often a wire by a corner goes from piece to piece; its ends are those pieces’ on which they lie, but for connectors. */
function countPartings(map: WireMap, a: Place, corner: Spot, b: Place): number {
  let on = a.owner;
  let count = 0;
  for (let leg = 0; leg < 2; leg++) {
    const from = leg === 0 ? a : corner;
    const to = leg === 0 ? corner : b;
    if (isSame(from, to)) continue;
    const { first, last } = map.cellsAlong(from, to);
    if (on >= 0 && on !== map.ownerOf(first)) count++;
    count += map.countChanges(first, last, from.y === to.y);
    on = map.ownerOf(last);
  }
  return count + (on >= 0 && b.owner >= 0 && on !== b.owner ? 1 : 0);
}

/** Where it does. */
function partingsOf(map: WireMap, a: Place, corner: Spot, b: Place): Parting[] {
  let on = a.owner;
  const found: Parting[] = [];
  const meet = (owner: number, { x, y }: WirePoint) => {
    if (on >= 0 && owner >= 0 && on !== owner) found.push({ x, y, from: map.idOf(on), to: map.idOf(owner) });
  };
  for (const [from, to] of [
    [a, corner],
    [corner, b],
  ]) {
    if (isSame(from, to)) continue;
    const { first, last } = map.cellsAlong(from, to);
    meet(map.ownerOf(first), from);
    found.push(...map.changesAlong(from, to));
    on = map.ownerOf(last);
  }
  meet(b.owner, b);
  return found;
}

const studsBetween = (a: WirePoint, b: WirePoint) => Math.abs(a.x - b.x) + Math.abs(a.y - b.y);

/** Whether the wire between two nodes goes east or west first: unless it then goes over more sides. @returns and over how many it goes */
function wayBetween(map: WireMap, a: Place, b: Place): { isLevelFirst: boolean; partings: number } {
  const level = countPartings(map, a, cornerOf(a, b, true), b);
  if (level === 0 || a.x === b.x || a.y === b.y) return { isLevelFirst: true, partings: level };
  const upright = countPartings(map, a, cornerOf(a, b, false), b);
  return { isLevelFirst: level <= upright, partings: Math.min(level, upright) };
}

/** The wire between two nodes. */
function wireBetween(map: WireMap, places: readonly Place[], from: number, to: number): Wire {
  const [a, b] = [places[from], places[to]];
  const corner = cornerOf(a, b, wayBetween(map, a, b).isLevelFirst);
  const points = [a, corner, b].map(({ x, y }) => ({ x, y }));
  return {
    ...{ from, to, studs: studsBetween(a, b) },
    points: points.filter((point, i) => i === 0 || !isSame(point, points[i - 1])),
    partings: partingsOf(map, a, corner, b),
  };
}

/** A wire of a tree, by its ends. */
type Edge = readonly [from: number, to: number];

/** What wires between nodes cost, and what is quick to tell that none is below. */
interface Costs {
  of(a: number, b: number): number;
  bound(a: number, b: number): number;
}

/**
 * The tree that joins nodes at the least cost: length, and each side that is crossed without a connector. Prim's
 * algorithm from node 0, O(n²). @param some nodes that it joins, 0 among them
 * @returns its edges in the order in which they are joined, each from the end nearer to node 0
 */
function treeOf(costs: Costs, some: readonly number[]): { edges: Edge[]; cost: number } {
  const open = some.filter((i) => i > 0);
  const near = Float64Array.from(open, (i) => costs.of(0, i));
  const by = open.map(() => 0);
  const edges: Edge[] = [];
  let total = 0;
  // What is joined goes to the end, beyond those that are open.
  for (let left = open.length; left > 0; left--) {
    let next = 0;
    for (let k = 1; k < left; k++) if (near[k] < near[next]) next = k;
    const to = open[next];
    edges.push([by[next], to]);
    total += near[next];
    open[next] = open[left - 1];
    near[next] = near[left - 1];
    by[next] = by[left - 1];
    for (let k = 0; k < left - 1; k++) {
      if (costs.bound(to, open[k]) >= near[k]) continue;
      const fresh = costs.of(to, open[k]);
      if (fresh >= near[k]) continue;
      near[k] = fresh;
      by[k] = to;
    }
  }
  return { edges, cost: total };
}

/** Connectors of which every choice is tried. */
const MAX_CHOICES = 5;

/**
 * The way of one cable from its beginning, node 0, to all that it feeds, at the least cost. Of up to five connectors those
 * lie on it by which it is cheapest; of more, each is left out that makes it no cheaper, from all of them and from none.
 * @param nodes the beginning first
 * @returns no wires where there is nothing to feed
 */
export function wiringOf(ground: readonly WireGround[], nodes: readonly WireNode[]): Wire[] {
  const map = new WireMap(ground);
  const count = nodes.length;
  const known = new Float64Array(count * count).fill(-1);
  const places = nodes.map((node): Place => {
    const spot = map.spotAt(node);
    return { ...spot, owner: node.isConnector ? -1 : map.ownerAt(spot) };
  });
  const costs: Costs = {
    of: (a, b) => {
      const key = Math.min(a, b) * count + Math.max(a, b);
      if (known[key] < 0)
        known[key] =
          studsBetween(places[a], places[b]) + PARTING_STUDS * wayBetween(map, places[a], places[b]).partings;
      return known[key];
    },
    bound: (a, b) => {
      const [p, q] = [places[a], places[b]];
      const isParted = p.owner !== q.owner && p.owner >= 0 && q.owner >= 0;
      return studsBetween(p, q) + (isParted ? PARTING_STUDS : 0);
    },
  };
  const all = nodes.map((_, i) => i);
  const connectors = all.filter((i) => nodes[i].isConnector);
  const ends = all.filter((i) => !nodes[i].isConnector);
  const treeWith = (chosen: readonly number[]) => treeOf(costs, [...ends, ...chosen]);
  let best = treeWith([]);
  const keepIfBetter = (tree: typeof best) => {
    if (tree.cost >= best.cost) return false;
    best = tree;
    return true;
  };
  if (connectors.length <= MAX_CHOICES)
    for (let mask = 1; mask < 1 << connectors.length; mask++)
      keepIfBetter(treeWith(connectors.filter((_, i) => mask & (1 << i))));
  else {
    const added: number[] = [];
    for (const one of connectors) if (keepIfBetter(treeWith([...added, one]))) added.push(one);
    let left = connectors;
    keepIfBetter(treeWith(left));
    for (const one of connectors) {
      const fewer = left.filter((other) => other !== one);
      if (treeWith(fewer).cost <= treeWith(left).cost) left = fewer;
    }
    keepIfBetter(treeWith(left));
  }
  return best.edges.map(([from, to]) => wireBetween(map, places, from, to));
}

/** Length of a wire on the plan, mm. */
export const wireMm = ({ studs }: Pick<Wire, 'studs'>): number => studs * MM_PER_STUD;
