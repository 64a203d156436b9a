import { PLATE_SIZES, partId } from '../catalogue/index.ts';
import { PLATES_PER_BRICK, studsOfRect, type StudArea } from '../grid/index.ts';
import { builtSides, roomArea, studsBuilt } from '../document/index.ts';
import { BRICKS, BondWatch, PLATES, UNSEARCHED, tileLayer, type BuildingUse } from '../masonry/index.ts';
import type { RingRoof } from '../terrain/index.ts';
import type { Fronted } from './fronts.ts';
import type { LaidPiece } from './piece.ts';
import { longestFirst } from './row.ts';

// What lies over the walls of a building that fills no rectangle: floors of plates, and roofs of rings of bricks that draw
// in.

/** Pieces that cover a mask, each stud once. */
function covered(
  { mask, w, d }: StudArea,
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

/** One layer of plates over an area; each stud once. */
export const layMask = (field: StudArea, z: number, use: BuildingUse): LaidPiece[] =>
  covered(field, 'plate', z, use).pieces;

/**
 * The pieces of a roof of rings from the eaves up. Bricks that reach in over the ring below lie on it with their other stud;
 * what finds no place so is left open under the next.
 */
export function layRingRoof(plot: Fronted, { hasFloor, rings, top }: RingRoof): LaidPiece[] {
  const { w, d } = builtSides(plot);
  const pieces: LaidPiece[] = [];
  const area = studsBuilt(plot);
  const room = roomArea(plot);
  let under = hasFloor ? area.mask : area.mask.map((on, i) => (room?.mask[i] ? 0 : on));
  if (hasFloor) pieces.push(...layMask(area, rings[0].z - 1, 'floor'));
  const watch = new BondWatch(w, d);
  for (const { z, outer, hole } of rings) {
    const mask = outer.mask.map((on, i) => (hole.mask[i] ? 0 : on));
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
  return [...pieces, ...layCap(rings[rings.length - 1].outer.mask, under, w, top - 1)];
}

/** Lengths of plates a stud wide, the longest first. */
const STRIPS = PLATE_SIZES.flatMap(([w, d]) => (w === 1 ? [d] : [])).toSorted((a, b) => b - a);
/** Plates both ways round, the smallest first. */
const BOTH_WAYS = PLATE_SIZES.flatMap(([w, d]) =>
  w === d
    ? [[w, d]]
    : [
        [w, d],
        [d, w],
      ],
).toSorted((a, b) => a[0] * a[1] - b[0] * b[1]);
/** What is open over more studs than this is crossed by strips the other way. */
const CROSSED = 4;

/**
 * The plates that close a roof: over what is open strips from one side to the other, each of which lies on the last ring
 * with an end, the rest as it comes. Of an opening that is long they go across; where two such meet, a plate that reaches
 * to a corner between them.
 * @param under studs of the last ring
 */
export function layCap(mask: Uint8Array, under: Uint8Array, w: number, z: number): LaidPiece[] {
  const cap: Cap = { w, d: mask.length / w, under, left: mask.slice(), laid: [] };
  const [alongX, alongY] = [runsOf(cap, 1), runsOf(cap, w)];
  for (let i = 0; i < mask.length; i++)
    if (isOpenAt(cap, i) && alongX[i] > CROSSED && alongY[i] > CROSSED)
      coverMeeting(cap, i, (k) => alongX[k] > CROSSED && alongY[k] > CROSSED);
  layStrips(cap, w, (i) => alongX[i] > CROSSED);
  layStrips(cap, 1, () => true);
  cap.laid.push(...tileLayer(cap.left, w, cap.d, PLATES, null, UNSEARCHED));
  return piecesOf(borne(cap, mask), 'plate', z, 'roof');
}

/** A plate as it is laid: x, y, w, d. */
type LaidPlate = readonly [number, number, number, number];
/**
 * The plates of a layer with each that lies on nothing covered by a larger one that does; what that cuts off of others is
 * laid again, and must not hang in its turn. Those for which there is no such plate stay.
 */
function borne({ w, d, under, laid }: Cap, mask: Uint8Array): Int16Array {
  const plates = new Set(platesOf(Int16Array.from(laid)));
  const hangs = (plate: LaidPlate) => !studsAt(plate, w).some((i) => under[i]);
  const isIn = (i: number) => mask[i] === 1;
  for (const hanging of [...plates].filter(hangs))
    for (const larger of largerOver(hanging, { w, d }, isIn, (i) => under[i] === 1)) {
      if (!plates.has(hanging)) break;
      const taken = new Set(studsAt(larger, w));
      const met = [...plates].filter((plate) => studsAt(plate, w).some((i) => taken.has(i)));
      const left = new Uint8Array(mask.length);
      for (const plate of met) for (const i of studsAt(plate, w)) if (!taken.has(i)) left[i] = 1;
      const rest = platesOf(tileLayer(left, w, d, PLATES, null, UNSEARCHED));
      if (rest.filter(hangs).length >= met.filter(hangs).length) continue;
      for (const plate of met) plates.delete(plate);
      for (const plate of [larger, ...rest]) plates.add(plate);
    }
  return Int16Array.from([...plates].flat());
}

const platesOf = (laid: Int16Array): LaidPlate[] =>
  Array.from({ length: laid.length / 4 }, (_, p) => [
    laid[4 * p],
    laid[4 * p + 1],
    laid[4 * p + 2],
    laid[4 * p + 3],
  ]);

/** The plates over another that lie in a mask and on a stud, the smallest first. */
function* largerOver(
  [x0, y0, wide, deep]: LaidPlate,
  { w, d }: Pick<StudArea, 'w' | 'd'>,
  isIn: (i: number) => boolean,
  isUnder: (i: number) => boolean,
): Generator<LaidPlate> {
  for (const [pw, pd] of BOTH_WAYS)
    for (let y = Math.max(0, y0 + deep - pd); pw >= wide && pd >= deep && y <= Math.min(y0, d - pd); y++)
      for (let x = Math.max(0, x0 + wide - pw); x <= Math.min(x0, w - pw); x++) {
        const studs = studsAt([x, y, pw, pd], w);
        if (studs.every(isIn) && studs.some(isUnder)) yield [x, y, pw, pd];
      }
}

/** A layer of plates as it is being laid. */
interface Cap {
  w: number;
  d: number;
  /** Studs that plates lie on. */
  under: Uint8Array;
  /** Studs that no plate covers yet: 1. */
  left: Uint8Array;
  /** Four numbers a plate, as `PlacedPieces`. */
  laid: number[];
}

const isOpenAt = ({ left, under }: Cap, i: number): boolean => left[i] === 1 && under[i] === 0;

/** How many open studs lie in one line with each, along x (step 1) or along y (step w); 0 for what is not open. */
function runsOf(cap: Cap, step: number): Uint16Array {
  const { w, left } = cap;
  const runs = new Uint16Array(left.length);
  const goesOn = (i: number) => (step > 1 || i % w > 0) && i - step >= 0 && isOpenAt(cap, i - step);
  for (let i = 0; i < left.length; i++) {
    if (!isOpenAt(cap, i)) continue;
    let from = i;
    while (goesOn(from)) from -= step;
    runs[i] = (i - from) / step + 1;
  }
  // Each has the length of its whole run: that of the stud after it, where that is open.
  for (let i = left.length - 1; i >= 0; i--) {
    const next = i + step;
    const isSame = runs[i] > 0 && next < left.length && (step > 1 || next % w > 0) && runs[next] > 0;
    if (isSame) runs[i] = runs[next];
  }
  return runs;
}

/** Strips over the open studs of one line each, with what they lie on at either end. */
function layStrips(cap: Cap, step: number, wanted: (i: number) => boolean): void {
  const { w, d, left, under, laid } = cap;
  const isX = step === 1;
  const [lines, length] = isX ? [d, w] : [w, d];
  for (let line = 0; line < lines; line++) {
    const at = (k: number) => (isX ? line * w + k : k * w + line);
    const isFree = (k: number) => k >= 0 && k < length && left[at(k)] === 1;
    for (let k = 0; k < length; k++) {
      if (!isOpenAt(cap, at(k)) || !wanted(at(k))) continue;
      let end = k;
      while (end < length && isOpenAt(cap, at(end)) && wanted(at(end))) end++;
      const from = isFree(k - 1) && under[at(k - 1)] ? k - 1 : k;
      const to = isFree(end) && under[at(end)] ? end + 1 : end;
      // One that is made in no such length ends with the stud that is borne at its far side.
      for (const { at: off, long } of longestFirst(to - from, STRIPS))
        laid.push(...(isX ? [from + off, line, long, 1] : [line, from + off, 1, long]));
      for (let one = from; one < to; one++) left[at(one)] = 0;
      k = to - 1;
    }
  }
}

/** Covers all open studs about one that are meant with the smallest plate that lies on a stud, if there is any. */
function coverMeeting(cap: Cap, first: number, isMeant: (i: number) => boolean): void {
  const { w, d, left, under, laid } = cap;
  const [x0, y0] = [first % w, Math.trunc(first / w)];
  let [wide, deep] = [1, 1];
  while (x0 + wide < w && isOpenAt(cap, first + wide) && isMeant(first + wide)) wide++;
  while (y0 + deep < d && isOpenAt(cap, first + deep * w) && isMeant(first + deep * w)) deep++;
  const [plate] = largerOver(
    [x0, y0, wide, deep],
    cap,
    (i) => left[i] === 1,
    (i) => under[i] === 1,
  );
  if (plate === undefined) return;
  laid.push(...plate);
  for (const i of studsAt(plate, w)) left[i] = 0;
}

function studsAt([x, y, wide, deep]: ArrayLike<number> & Iterable<number>, w: number): number[] {
  return studsOfRect({ x, y, w: wide, d: deep }, w);
}

/**
 * Bricks of two studs that hold studs over air by a stud beside them that is borne: as many as can be
 * (augmenting paths; Kuhn 1955).
 */
function pairsOver({ mask, w, d }: StudArea, under: Uint8Array): Int16Array {
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
