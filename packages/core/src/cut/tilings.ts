import { CELL, type CutProblem } from './problem.ts';

interface Piece {
  x: number;
  y: number;
  w: number;
  d: number;
}

/** One way to cover a module with bases: how many of each; their positions are computed on demand. */
export interface Tiling {
  counts: readonly number[];
  /** In cells of a module that lies w ≤ d; `placed` turns them. */
  readonly pieces: readonly Piece[];
}

/** The tilings of one module size. `complete`: no other vector of counts exists. */
export interface Tilings {
  /** Canonical size in cells, w ≤ d. */
  w: number;
  d: number;
  list: Tiling[];
  complete: boolean;
}

/** Work the exact search may spend on one size, and on all sizes together, in vectors looked at. */
const MAX_WORK_A_SIZE = 250_000;
const MAX_WORK = 2_500_000;
/** Vectors of one size that are worth listing; past it the cheapest stand for all. */
const MAX_VECTORS = 400;
const MAX_GUILLOTINE = 32;

/** A vector of counts as one number, and how it came about: a piece before another vector, or two joined. */
interface Step {
  code: number;
  piece: Piece | null;
  next: Step | null;
}
interface Join {
  code: number;
  price: number;
  parts: { join: Join; dx: number; dy: number }[];
  piece: Piece | null;
}

/**
 * Which vectors of base counts cover a w × d module exactly. The search fills the lowest, leftmost notch of a
 * skyline, which reaches every tiling by rectangles, and remembers the vectors from each skyline on.
 * One tiling is kept for each vector: cost looks only at the counts. Past its limits of work the tilings by straight
 * cuts stand in, and the size is marked incomplete.
 */
export class TilingBook {
  private readonly known = new Map<number, Tilings>();
  private readonly joins = new Map<number, Join[]>();
  private readonly shapes: { w: number; d: number; base: number }[];
  private workLeft = MAX_WORK;

  /** @param cell cell side in which sizes are given, studs */
  constructor(
    private readonly problem: CutProblem,
    private readonly cell: number = CELL,
  ) {
    this.shapes = problem.bases.flatMap(({ w, d }, base) => {
      const [cw, cd] = [w / cell, d / cell];
      return cw === cd
        ? [{ w: cw, d: cd, base }]
        : [
            { w: cw, d: cd, base },
            { w: cd, d: cw, base },
          ];
    });
  }

  /** Tilings of a module of either orientation. */
  of(w: number, d: number): Tilings {
    const [short, long] = w <= d ? [w, d] : [d, w];
    const key = short * 4096 + long;
    let tilings = this.known.get(key);
    if (!tilings) {
      const exact = this.exact(short, long);
      tilings = { w: short, d: long, list: exact ?? this.straight(short, long), complete: exact !== null };
      this.known.set(key, tilings);
    }
    return tilings;
  }

  /**
   * The least price of covering each size by straight cuts at given base prices: quick, without listing any vector.
   * @returns a function of w and d; Infinity for what straight cuts cannot cover
   */
  cheapest(prices: readonly number[]): (w: number, d: number) => number {
    const least = new Map<number, number>();
    const price = (w: number, d: number): number => {
      if (w > d) return price(d, w);
      const key = w * 4096 + d;
      const known = least.get(key);
      if (known !== undefined) return known;
      let best = Infinity;
      for (const shape of this.shapes)
        if (shape.w === w && shape.d === d) best = Math.min(best, prices[shape.base]);
      for (let cut = 1; cut * 2 <= w; cut++) best = Math.min(best, price(cut, d) + price(w - cut, d));
      for (let cut = 1; cut * 2 <= d; cut++) best = Math.min(best, price(w, cut) + price(w, d - cut));
      least.set(key, best);
      return best;
    };
    return price;
  }

  /** Place values of a mixed-radix number that holds any vector of counts of an area of cells. */
  private radices(cells: number): { place: number[]; top: number } {
    let top = 1;
    const place = this.problem.bases.map(({ w, d }) => {
      const here = top;
      top *= Math.floor((cells * this.cell ** 2) / (w * d)) + 1;
      return here;
    });
    return { place, top };
  }

  private exact(w: number, d: number): Tiling[] | null {
    const { place, top } = this.radices(w * d);
    const skylines = (d + 1) ** w;
    if (top > Number.MAX_SAFE_INTEGER || skylines > Number.MAX_SAFE_INTEGER || this.workLeft <= 0)
      return null;
    const budget = Math.min(MAX_WORK_A_SIZE, this.workLeft);
    const memo = new Map<number, Map<number, Step>>();
    let work = 0;
    const fill = (skyline: number[]): Map<number, Step> => {
      const key = skyline.reduce((sum, height) => sum * (d + 1) + height, 0);
      const found = memo.get(key);
      if (found) return found;
      const steps = new Map<number, Step>();
      memo.set(key, steps);
      const low = Math.min(...skyline);
      if (low === d) {
        steps.set(0, { code: 0, piece: null, next: null });
        return steps;
      }
      const left = skyline.indexOf(low);
      let gap = 1;
      while (left + gap < w && skyline[left + gap] === low) gap++;
      for (const shape of this.shapes) {
        if (shape.w > gap || low + shape.d > d || work > budget) continue;
        const raised = skyline.slice();
        raised.fill(low + shape.d, left, left + shape.w);
        const piece = { x: left, y: low, w: shape.w, d: shape.d };
        const rest = fill(raised);
        work += rest.size + 1;
        for (const next of rest.values()) {
          const code = next.code + place[shape.base];
          if (!steps.has(code)) steps.set(code, { code, piece, next });
        }
      }
      return steps;
    };
    const steps = fill(new Array<number>(w).fill(0));
    this.workLeft -= work;
    if (work > budget || steps.size > MAX_VECTORS) return null;
    return [...steps.values()].map((step) =>
      tiling(countsOf(step.code, place, top), () => {
        const pieces: Piece[] = [];
        for (let at: Step | null = step; at; at = at.next) if (at.piece) pieces.push(at.piece);
        return pieces;
      }),
    );
  }

  /** Tilings by straight cuts from side to side: the cheapest few vectors of each size and those with most stock. */
  private straight(w: number, d: number): Tiling[] {
    // Codes of every size share the places of the largest one asked for, so that parts add up.
    const { place, top } = this.radices(w * d);
    if (top > Number.MAX_SAFE_INTEGER) return [];
    this.joins.clear();
    return this.joinsOf(w, d, place).map((join) =>
      tiling(countsOf(join.code, place, top), () => piecesOf(join, 0, 0)),
    );
  }

  private joinsOf(w: number, d: number, place: readonly number[]): Join[] {
    const key = w * 4096 + d;
    const known = this.joins.get(key);
    if (known) return known;
    const found = new Map<number, Join>();
    for (const shape of this.shapes)
      if (shape.w === w && shape.d === d)
        found.set(place[shape.base], {
          code: place[shape.base],
          price: this.problem.bases[shape.base].price,
          parts: [],
          piece: { x: 0, y: 0, w, d },
        });
    const join = (first: Join[], second: Join[], dx: number, dy: number) => {
      for (const a of first)
        for (const b of second) {
          const code = a.code + b.code;
          if (found.has(code)) continue;
          const parts = [
            { join: a, dx: 0, dy: 0 },
            { join: b, dx, dy },
          ];
          found.set(code, { code, price: a.price + b.price, parts, piece: null });
        }
    };
    for (let cut = 1; cut * 2 <= w; cut++)
      join(this.joinsOf(cut, d, place), this.joinsOf(w - cut, d, place), cut, 0);
    for (let cut = 1; cut * 2 <= d; cut++)
      join(this.joinsOf(w, cut, place), this.joinsOf(w, d - cut, place), 0, cut);
    const list = this.thin([...found.values()], place);
    this.joins.set(key, list);
    return list;
  }

  /** Keeps the cheapest vectors at full price and, for each stocked base, the ones that use most of it. */
  private thin(list: Join[], place: readonly number[]): Join[] {
    if (list.length <= MAX_GUILLOTINE) return list;
    list.sort((a, b) => a.price - b.price || a.code - b.code);
    const { bases } = this.problem;
    const kept = new Set(list.slice(0, Math.max(8, MAX_GUILLOTINE - 2 * bases.length)));
    const countOf = ({ code }: Join, base: number) =>
      Math.trunc(code / place[base]) % ((place[base + 1] ?? Infinity) / place[base]);
    for (const [base, { stock }] of bases.entries()) {
      if (stock === 0) continue;
      const most = [...list].sort((a, b) => countOf(b, base) - countOf(a, base));
      for (const join of most.slice(0, 2)) kept.add(join);
    }
    return [...kept];
  }
}

function tiling(counts: number[], pieces: () => Piece[]): Tiling {
  let made: Piece[] | null = null;
  return {
    counts,
    get pieces() {
      return (made ??= pieces());
    },
  };
}

/** The counts a mixed-radix code stands for. */
function countsOf(code: number, place: readonly number[], top: number): number[] {
  return place.map((value, base) => Math.trunc((code % (place[base + 1] ?? top)) / value));
}

function piecesOf({ piece, parts }: Join, dx: number, dy: number): Piece[] {
  const own = piece ? [{ ...piece, x: piece.x + dx, y: piece.y + dy }] : [];
  return own.concat(...parts.map((part) => piecesOf(part.join, dx + part.dx, dy + part.dy)));
}

/** A tiling's pieces in a module of w × d cells: turned when the module lies the long way round. */
export function placed(tiling: Tiling, w: number, d: number): readonly Piece[] {
  return w <= d
    ? tiling.pieces
    : tiling.pieces.map((piece) => ({ x: piece.y, y: piece.x, w: piece.d, d: piece.w }));
}
