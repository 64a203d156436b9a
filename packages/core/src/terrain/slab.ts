import { boundsOf, type Rect } from '../grid/index.ts';

// One plate of ground or deck with air under it: its studs, how far it hangs, its boxes.

/** Height of a stud where a slab is not. */
export const NO_SLAB = -32_768;

/** No arch at a stud; one that carries; one that is too flat to. */
export const ARCH = { none: 0, carries: 1, flat: 2 } as const;

/** What a slab belongs to. */
export type SlabKind = 'deck' | 'way' | 'track' | 'cavity';

/** A plate of ground or deck with air under it, over a rectangle of studs, row by row. */
export interface Slab extends Rect {
  kind: SlabKind;
  id: string;
  /** Underside and top, plates above datum; NO_SLAB where it is not. Where it meets the ground, that is its underside. */
  under: Int16Array;
  top: Int16Array;
  /** What covers it: an index into GROUNDS, or BARE. */
  ground: Uint8Array;
  /** Where pillars, walls, piers or arches begin, plates: at what they stand on, arches over air; NO_SLAB where there is none. */
  foot: Int16Array;
  /** Where what carries it begins over air: an index of ARCH. */
  arch: Uint8Array;
  /** 1 where the ground beside it or under it carries it. */
  borne: Uint8Array;
  /** 1 where a way or track runs on it. */
  way: Uint8Array;
}

/** The top of a slab at a stud, plates; NO_SLAB where it is not. */
export const topAt = (slab: Slab, column: number, row: number): number => {
  const k = slabIndex(slab, column, row);
  return k < 0 ? NO_SLAB : slab.top[k];
};

/** The underside of a slab and its arch at a stud that it covers, plates: what stands under it is no higher. */
export const undersideAt = ({ under, foot, arch }: Slab, k: number): number =>
  arch[k] === ARCH.none ? under[k] : foot[k];

/** The index of a stud in a slab's arrays; −1 outside of its rectangle. */
export const slabIndex = ({ x, y, w, d }: Slab, column: number, row: number): number =>
  column < x || row < y || column >= x + w || row >= y + d ? -1 : (row - y) * w + column - x;

/** Calls `visit` with the index in the slab and the place of each stud that it covers. */
export function eachStudOf(slab: Slab, visit: (k: number, x: number, y: number) => void): void {
  for (let k = 0; k < slab.top.length; k++)
    if (slab.top[k] !== NO_SLAB) visit(k, slab.x + (k % slab.w), slab.y + Math.trunc(k / slab.w));
}

export const blankSlab = (kind: SlabKind, id: string, { x, y, w, d }: Rect): Slab => ({
  ...{ kind, id, x, y, w, d },
  under: new Int16Array(w * d).fill(NO_SLAB),
  top: new Int16Array(w * d).fill(NO_SLAB),
  ground: new Uint8Array(w * d),
  foot: new Int16Array(w * d).fill(NO_SLAB),
  arch: new Uint8Array(w * d),
  borne: new Uint8Array(w * d),
  way: new Uint8Array(w * d),
});

/** Stud of a slab that is farthest from what carries it. */
export interface Span {
  /** Studs to the nearest support, counted over the slab by sides and corners; null: nothing carries it. */
  far: number | null;
  at: { x: number; y: number };
}

/** How far a slab hangs free at most: steps over the slab from its supports to the farthest stud. */
export function spanOf(slab: Slab): Span {
  const { w, d, top, foot, arch, borne } = slab;
  const steps = new Int32Array(w * d).fill(-1);
  const queue: number[] = [];
  eachStudOf(slab, (k) => {
    if ((foot[k] === NO_SLAB || arch[k] === ARCH.flat) && !borne[k]) return;
    steps[k] = 0;
    queue.push(k);
  });
  for (let head = 0; head < queue.length; head++) {
    const k = queue[head];
    const [column, row] = [k % w, Math.trunc(k / w)];
    for (let y = Math.max(0, row - 1); y <= Math.min(d - 1, row + 1); y++)
      for (let x = Math.max(0, column - 1); x <= Math.min(w - 1, column + 1); x++) {
        const next = y * w + x;
        if (top[next] === NO_SLAB || steps[next] >= 0) continue;
        steps[next] = steps[k] + 1;
        queue.push(next);
      }
  }
  let [far, at] = [0, -1];
  let hangs = false;
  eachStudOf(slab, (k) => {
    if (hangs || top[k] === slab.under[k]) return;
    hangs = steps[k] < 0;
    if (at < 0 || hangs || steps[k] > far) [far, at] = [steps[k], k];
  });
  return {
    far: hangs ? null : far,
    at: { x: slab.x + (at % w) + 0.5, y: slab.y + Math.trunc(at / w) + 0.5 },
  };
}

/**
 * A slab, or what carries it, as rectangles of one foot and one top, studs and plates: for what works with bodies.
 * @param of the slab itself, or its pillars, walls, piers and arches
 */
export function slabBoxes(slab: Slab, of: 'slab' | 'supports'): (Rect & { under: number; top: number })[] {
  const { w, d, top: whole, foot } = slab;
  const [under, top] = of === 'slab' ? [slab.under, slab.top] : [foot, slab.under];
  const taken = new Uint8Array(w * d);
  const boxes: (Rect & { under: number; top: number })[] = [];
  const isOf = (k: number) =>
    whole[k] !== NO_SLAB && (of === 'slab' || (foot[k] !== NO_SLAB && foot[k] < top[k]));
  const isLike = (k: number, like: number) =>
    !taken[k] && isOf(k) && top[k] === top[like] && under[k] === under[like];
  eachStudOf(slab, (k) => {
    if (taken[k] || !isOf(k)) return;
    const [column, row] = [k % w, Math.trunc(k / w)];
    let [wide, deep] = [1, 1];
    while (column + wide < w && isLike(k + wide, k)) wide++;
    const rowIsLike = (y: number) => {
      for (let x = 0; x < wide; x++) if (!isLike(y * w + column + x, k)) return false;
      return true;
    };
    while (row + deep < d && rowIsLike(row + deep)) deep++;
    for (let y = row; y < row + deep; y++) taken.fill(1, y * w + column, y * w + column + wide);
    boxes.push({ x: slab.x + column, y: slab.y + row, w: wide, d: deep, under: under[k], top: top[k] });
  });
  return boxes;
}

/** The rectangle that holds all slabs of a thing; null when it has none. */
export function slabBounds(slabs: readonly Slab[], kind: SlabKind, id: string): Rect | null {
  const own = slabs.filter((slab) => slab.kind === kind && slab.id === id);
  return own.length > 0 ? boundsOf(own) : null;
}
