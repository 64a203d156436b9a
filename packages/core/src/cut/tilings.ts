import { CELL, type CutProblem } from './problem.ts';

/** One way to cover a module with bases: how many of each, and where they lie (in cells of the module). */
export interface Tiling {
  counts: number[];
  pieces: { x: number; y: number; w: number; d: number }[];
}

/** The tilings of one module size. `complete`: no other vector of counts exists. */
export interface Tilings {
  /** Canonical size in cells, w ≤ d. */
  w: number;
  d: number;
  list: Tiling[];
  complete: boolean;
}

/** Limits of the exact search of one size; past them the guillotine tilings stand in, and the size is not complete. */
const MAX_STATES = 4000;
const MAX_VECTORS = 400;
const MAX_GUILLOTINE = 40;

/**
 * Which vectors of base counts cover a w × d module exactly. The search fills the lowest, leftmost notch of a
 * skyline, which reaches every tiling by rectangles, and remembers the vectors from each skyline on.
 * One tiling is kept for each vector: cost looks only at the counts.
 */
export class TilingBook {
  private readonly known = new Map<number, Tilings>();
  private readonly guillotines = new Map<number, Tiling[]>();
  private readonly shapes: { w: number; d: number; base: number }[];

  constructor(private readonly problem: CutProblem) {
    this.shapes = problem.bases.flatMap(({ w, d }, base) => {
      const [cw, cd] = [w / CELL, d / CELL];
      return cw === cd
        ? [{ w: cw, d: cd, base }]
        : [
            { w: cw, d: cd, base },
            { w: cd, d: cw, base },
          ];
    });
  }

  /** Tilings of a module of either orientation; the pieces are for w ≤ d, `placed` turns them. */
  of(w: number, d: number): Tilings {
    const [short, long] = w <= d ? [w, d] : [d, w];
    const key = short * 4096 + long;
    let tilings = this.known.get(key);
    if (!tilings) {
      const exact = this.exact(short, long);
      tilings = { w: short, d: long, list: exact ?? this.guillotine(short, long), complete: exact !== null };
      this.known.set(key, tilings);
    }
    return tilings;
  }

  private exact(w: number, d: number): Tiling[] | null {
    interface Step {
      counts: number[];
      piece: { x: number; y: number; w: number; d: number } | null;
      next: Step | null;
    }
    const memo = new Map<string, Map<string, Step>>();
    let spent = false;
    const none: Step = { counts: this.problem.bases.map(() => 0), piece: null, next: null };
    const fill = (skyline: number[]): Map<string, Step> => {
      const key = skyline.join();
      const found = memo.get(key);
      if (found) return found;
      const steps = new Map<string, Step>();
      if (memo.size >= MAX_STATES) spent = true;
      if (spent) return steps;
      memo.set(key, steps);
      const low = Math.min(...skyline);
      if (low === d) {
        steps.set('', none);
        return steps;
      }
      const left = skyline.indexOf(low);
      let gap = 1;
      while (left + gap < w && skyline[left + gap] === low) gap++;
      for (const shape of this.shapes) {
        if (shape.w > gap || low + shape.d > d) continue;
        const raised = skyline.slice();
        raised.fill(low + shape.d, left, left + shape.w);
        for (const next of fill(raised).values()) {
          const counts = next.counts.slice();
          counts[shape.base]++;
          const name = counts.join();
          if (!steps.has(name))
            steps.set(name, { counts, piece: { x: left, y: low, w: shape.w, d: shape.d }, next });
        }
        if (steps.size > MAX_VECTORS) spent = true;
      }
      return steps;
    };
    const steps = fill(new Array<number>(w).fill(0));
    if (spent) return null;
    return [...steps.values()].map((step) => {
      const pieces: Tiling['pieces'] = [];
      for (let at: Step | null = step; at; at = at.next) if (at.piece) pieces.push(at.piece);
      return { counts: step.counts, pieces };
    });
  }

  /** Tilings by straight cuts from side to side, the cheapest few vectors of each size. */
  private guillotine(w: number, d: number): Tiling[] {
    const key = w * 4096 + d;
    const known = this.guillotines.get(key);
    if (known) return known;
    const found = new Map<string, Tiling>();
    const offer = (counts: number[], pieces: () => Tiling['pieces']) => {
      const name = counts.join();
      if (!found.has(name)) found.set(name, { counts, pieces: pieces() });
    };
    for (const shape of this.shapes)
      if (shape.w === w && shape.d === d)
        offer(
          this.problem.bases.map((_, base) => Number(base === shape.base)),
          () => [{ x: 0, y: 0, w, d }],
        );
    const join = (first: Tiling[], second: Tiling[], dx: number, dy: number) => {
      for (const a of first)
        for (const b of second)
          offer(
            a.counts.map((count, base) => count + b.counts[base]),
            () => [...a.pieces, ...b.pieces.map((piece) => ({ ...piece, x: piece.x + dx, y: piece.y + dy }))],
          );
    };
    for (let cut = 1; cut * 2 <= w; cut++) join(this.guillotine(cut, d), this.guillotine(w - cut, d), cut, 0);
    for (let cut = 1; cut * 2 <= d; cut++) join(this.guillotine(w, cut), this.guillotine(w, d - cut), 0, cut);
    const list = thin([...found.values()], this.problem);
    this.guillotines.set(key, list);
    return list;
  }
}

/** Keeps the cheapest vectors at full price and those that use most of each base in stock. */
function thin(list: Tiling[], { bases }: CutProblem): Tiling[] {
  if (list.length <= MAX_GUILLOTINE) return list;
  const price = ({ counts }: Tiling) =>
    counts.reduce((sum, count, base) => sum + count * bases[base].price, 0);
  const kept = new Set(list.sort((a, b) => price(a) - price(b)).slice(0, MAX_GUILLOTINE - 2 * bases.length));
  for (const [base, { stock }] of bases.entries()) {
    if (stock === 0) continue;
    const most = [...list].sort((a, b) => b.counts[base] - a.counts[base] || price(a) - price(b));
    for (const tiling of most.slice(0, 2)) kept.add(tiling);
  }
  return [...kept];
}

/** A tiling's pieces in a module of w × d cells: turned when the module lies the long way round. */
export function placed(tiling: Tiling, w: number, d: number): Tiling['pieces'] {
  return w <= d
    ? tiling.pieces
    : tiling.pieces.map((piece) => ({ x: piece.y, y: piece.x, w: piece.d, d: piece.w }));
}
