import { PLATE_SIZES, partId } from '../catalogue/index.ts';
import { PLATES_PER_BRICK, maskOfRows, type StudRow } from '../grid/index.ts';
import { roundRoom, roundRows } from '../document/index.ts';
import { BRICKS, BondWatch, PLATES, UNSEARCHED, tileLayer, type BuildingUse } from '../masonry/index.ts';
import type { RoundRoof } from '../terrain/index.ts';
import type { Fronted } from './fronts.ts';
import type { LaidPiece } from './piece.ts';
import { longestFirst } from './row.ts';

// What lies over the walls of a round building: floors of plates, and roofs of rings of bricks that draw in.

/** A raster of studs. */
interface Field {
  mask: Uint8Array;
  w: number;
  d: number;
}

/** Pieces that cover a mask, each stud once. */
function covered(
  { mask, w, d }: Field,
  family: 'brick' | 'plate',
  z: number,
  use: BuildingUse,
  watch: BondWatch | null = null,
): { laid: Int16Array; pieces: LaidPiece[] } {
  const laid = tileLayer(mask, w, d, family === 'brick' ? BRICKS : PLATES, watch?.open ?? null, UNSEARCHED);
  return { laid, pieces: piecesOf(laid, family, z, use) };
}

function piecesOf(laid: Int16Array, family: 'brick' | 'plate', z: number, use: BuildingUse): LaidPiece[] {
  return Array.from({ length: laid.length / 4 }, (_, p): LaidPiece => {
    const [x, y, wide, deep] = laid.subarray(4 * p, 4 * p + 4);
    const h = family === 'brick' ? PLATES_PER_BRICK : 1;
    return { part: partId(family, wide, deep), use, x, y, w: wide, d: deep, z, h, turn: 0 };
  });
}

/** One layer of plates over an area; each stud once. @param w studs from the west end of the rows to the east one */
export const layDisc = (rows: readonly StudRow[], w: number, z: number, use: BuildingUse): LaidPiece[] =>
  covered({ mask: maskOfRows(rows, w), w, d: rows.length }, 'plate', z, use).pieces;

/**
 * The pieces of a round roof from the eaves up. Bricks that reach in over the ring below lie on it with their other stud;
 * what finds no place so is left open under the next.
 */
export function layRoundRoof(plot: Fronted, { hasFloor, rings, top }: RoundRoof): LaidPiece[] {
  const rows = roundRows(plot);
  const [w, d] = [Math.max(1, Math.round(plot.w)), rows.length];
  const pieces: LaidPiece[] = [];
  const whole = maskOfRows(rows, w);
  const room = maskOfRows(roundRoom(plot), w);
  let under = hasFloor ? whole : whole.map((on, i) => (room[i] ? 0 : on));
  if (hasFloor) pieces.push(...layDisc(rows, w, rings[0].z - 1, 'floor'));
  const watch = new BondWatch(w, d);
  for (const { z, outer, hole } of rings) {
    const open = maskOfRows(hole, w);
    const mask = maskOfRows(outer, w).map((on, i) => (open[i] ? 0 : on));
    const reaching = pairsOver({ mask, w, d }, under);
    // Studs over air that no brick holds stay open.
    const left = mask.map((on, i) => (on && under[i] ? 1 : 0));
    for (let p = 0; p < reaching.length; p += 4)
      for (const i of studsAt(reaching.subarray(p, p + 4), w)) left[i] = 0;
    const rest = covered({ mask: left, w, d }, 'brick', z, 'roof', watch);
    const laid = Int16Array.from([...reaching, ...rest.laid]);
    watch.see({ family: 'brick', laid, z, h: PLATES_PER_BRICK, purpose: 'core' });
    pieces.push(...piecesOf(laid, 'brick', z, 'roof'));
    under = new Uint8Array(w * d);
    for (let p = 0; p < laid.length; p += 4)
      for (const i of studsAt(laid.subarray(p, p + 4), w)) under[i] = 1;
  }
  return [...pieces, ...layCap(maskOfRows(rings[rings.length - 1].outer, w), under, w, top - 1)];
}

/** Lengths of plates a stud wide, the longest first. */
const STRIPS = PLATE_SIZES.flatMap(([w, d]) => (w === 1 ? [d] : [])).toSorted((a, b) => b - a);

/**
 * The plates that close a roof: over what is open strips from one side to the other, each of which lies on the last ring
 * with an end, the rest as it comes.
 * @param under studs of the last ring
 */
function layCap(mask: Uint8Array, under: Uint8Array, w: number, z: number): LaidPiece[] {
  const d = mask.length / w;
  const left = mask.slice();
  const strips: number[] = [];
  for (let y = 0; y < d; y++)
    for (let x = 0; x < w; x++) {
      if (!mask[y * w + x] || under[y * w + x]) continue;
      let end = x;
      while (end < w && mask[y * w + end] && !under[y * w + end]) end++;
      const from = x > 0 && left[y * w + x - 1] ? x - 1 : x;
      const to = end < w && mask[y * w + end] ? end + 1 : end;
      // One that is made in no such length ends with the stud that is borne at its far side.
      for (const { at, long } of longestFirst(to - from, STRIPS)) strips.push(from + at, y, long, 1);
      left.fill(0, y * w + from, y * w + to);
      x = to - 1;
    }
  return [
    ...piecesOf(Int16Array.from(strips), 'plate', z, 'roof'),
    ...covered({ mask: left, w, d }, 'plate', z, 'roof').pieces,
  ];
}

function studsAt([x, y, wide, deep]: Int16Array, w: number): number[] {
  return Array.from({ length: wide * deep }, (_, k) => (y + Math.trunc(k / wide)) * w + x + (k % wide));
}

/**
 * Bricks of two studs that hold studs over air by a stud beside them that is borne: as many as can be
 * (augmenting paths; Kuhn 1955).
 */
function pairsOver({ mask, w, d }: Field, under: Uint8Array): Int16Array {
  const beside = (i: number): number[] => {
    const [x, y] = [i % w, Math.trunc(i / w)];
    return [
      ...(x > 0 ? [i - 1] : []),
      ...(x < w - 1 ? [i + 1] : []),
      ...(y > 0 ? [i - w] : []),
      ...(y < d - 1 ? [i + w] : []),
    ].filter((near) => mask[near] && under[near] && !used.has(near));
  };
  // In a corner of the ring below a stud is borne over the corner alone: a brick of two by two reaches there.
  const used = new Set<number>();
  const squares: number[] = [];
  mask.forEach((on, i) => {
    if (!on || under[i] || used.has(i) || beside(i).length > 0) return;
    const [x, y] = [i % w, Math.trunc(i / w)];
    for (const [left, above] of [
      [x - 1, y - 1],
      [x, y - 1],
      [x - 1, y],
      [x, y],
    ]) {
      if (left < 0 || above < 0 || left + 1 >= w || above + 1 >= d) continue;
      const four = [0, 1, w, w + 1].map((by) => above * w + left + by);
      if (!four.every((at) => mask[at] && !used.has(at)) || !four.some((at) => under[at])) continue;
      for (const at of four) used.add(at);
      squares.push(left, above, 2, 2);
      return;
    }
  });
  const heldBy = new Map<number, number>();
  const hold = (i: number, tried: Set<number>): boolean => {
    for (const near of beside(i)) {
      if (tried.has(near)) continue;
      tried.add(near);
      const before = heldBy.get(near);
      if (before !== undefined && !hold(before, tried)) continue;
      heldBy.set(near, i);
      return true;
    }
    return false;
  };
  mask.forEach((on, i) => {
    if (on && !under[i] && !used.has(i)) hold(i, new Set());
  });
  return Int16Array.from([
    ...squares,
    ...[...heldBy].flatMap(([a, b]) => {
      const [i, isX] = [Math.min(a, b), Math.abs(a - b) === 1];
      return [i % w, Math.trunc(i / w), isX ? 2 : 1, isX ? 1 : 2];
    }),
  ]);
}
