import { MM_PER_PLATE, MM_PER_STUD, PLATES_PER_BRICK, roundOut } from '../grid/index.ts';
import type { Deck } from '../document/index.ts';
import type { Raster } from './rasterize.ts';
import { ARCH, NO_SLAB, eachStudOf, slabIndex, type Slab } from './slab.ts';

// What carries a deck: pillars, walls, arches, its ends, or the ground itself.

/**
 * Stands a deck's pillars, walls or the piers of its arches on what is under it, turns the arches between them, and
 * notes where the ground itself carries it.
 */
export function supportDeck(
  slab: Slab,
  deck: Deck,
  surface: Int16Array,
  ground: Raster,
  isWay: (i: number) => boolean,
): void {
  const whole = roundOut(deck);
  const pillar = Math.max(1, Math.round(deck.pillar));
  const columns = places(whole.w, pillar, deck.spacing);
  const rows = places(whole.d, pillar, deck.spacing);
  const byX = marks(whole.w, columns, pillar);
  const byY = marks(whole.d, rows, pillar);
  const ends = (starts: readonly number[], length: number) =>
    marks(length, [starts[0], starts[starts.length - 1]], pillar);
  const isWide = whole.w >= whole.d;
  const [edgeX, edgeY] = [ends(columns, whole.w), ends(rows, whole.d)];
  const isAt = (column: number, row: number): boolean => {
    if (deck.support === 'pillars') return byX[column] > 0 && byY[row] > 0;
    if (deck.support === 'ends') return (isWide ? edgeX[column] : edgeY[row]) > 0;
    const isAcross = (isWide ? byX[column] : byY[row]) > 0;
    if (deck.support === 'arches') return isAcross;
    return isAcross || edgeX[column] > 0 || edgeY[row] > 0;
  };
  // A pillar that would stand on a way is left away whole.
  const blocked = new Set<number>();
  const pillarOf = (column: number, row: number) => byX[column] * (rows.length + 1) + byY[row];
  const indexOf = (x: number, y: number) => (y - ground.y) * ground.w + x - ground.x;
  const areCut = deck.support === 'pillars';
  if (areCut)
    eachStudOf(slab, (_, x, y) => {
      const [column, row] = [x - whole.x, y - whole.y];
      if (isAt(column, row) && isWay(indexOf(x, y))) blocked.add(pillarOf(column, row));
    });
  eachStudOf(slab, (k, x, y) => {
    const i = indexOf(x, y);
    const [column, row] = [x - whole.x, y - whole.y];
    if (ground.height[i] >= slab.under[k]) slab.borne[k] = 1;
    else if (isAt(column, row) && !isWay(i) && !(areCut && blocked.has(pillarOf(column, row))))
      slab.foot[k] = Math.min(slab.under[k], surface[i]);
  });
  if (deck.support === 'arches')
    turnArches(slab, isWide ? 'x' : 'y', isWide ? byX : byY, isWide ? whole.x : whole.y, (x, y) => {
      const i = indexOf(x, y);
      return { floor: surface[i], isFree: !isWay(i) };
    });
}

/** Thickness of an arch at its crown, plates: one course of bricks under the deck. */
const CROWN = PLATES_PER_BRICK;

/** Plates that are as high as a stud is wide. */
const PLATES_PER_STUD = MM_PER_STUD / MM_PER_PLATE;

/** An arch that rises less than this share of its opening is flat: it is built, but carries nothing (ours, no source). */
const LEAST_RISE = 0.25;

/**
 * Turns an arch between each two piers, in courses of bricks that step out from them: half round, or flatter where there
 * is no height for that. Where a pier is missing there is no arch.
 * @param piers of each stud along the deck the number of its pier, 0 between them; `start` the place of the first
 * @param at the highest surface under a stud, and whether something may stand on it
 */
function turnArches(
  slab: Slab,
  along: 'x' | 'y',
  piers: Uint8Array,
  start: number,
  at: (x: number, y: number) => { floor: number; isFree: boolean },
): void {
  eachStudOf(slab, (k, x, y) => {
    const place = (along === 'x' ? x : y) - start;
    if (piers[place] > 0 || slab.borne[k]) return;
    let [before, after] = [place, place];
    while (before >= 0 && piers[before] === 0) before--;
    while (after < piers.length && piers[after] === 0) after++;
    const footOf = (pier: number): number | null => {
      const m = along === 'x' ? slabIndex(slab, start + pier, y) : slabIndex(slab, x, start + pier);
      if (m < 0 || slab.top[m] === NO_SLAB) return null;
      if (slab.borne[m]) return slab.under[m];
      return slab.foot[m] === NO_SLAB ? null : slab.foot[m];
    };
    const [first, last] = [footOf(before), footOf(after)];
    if (first === null || last === null) return;
    const open = after - before - 1;
    const half = open / 2;
    const rise = Math.max(0, Math.min(half * PLATES_PER_STUD, slab.under[k] - CROWN - Math.max(first, last)));
    const off = Math.abs(place - before - 0.5 - half) / half;
    const wanted = slab.under[k] - CROWN - rise * (1 - Math.sqrt(1 - off * off));
    // In the courses of the nearer pier, so that its bricks and the arch's tie each other.
    const spring = place - before <= after - place ? first : last;
    const courses = Math.min(
      Math.round((wanted - spring) / PLATES_PER_BRICK),
      Math.floor((slab.under[k] - CROWN - spring) / PLATES_PER_BRICK),
    );
    const { floor, isFree } = at(x, y);
    const from = spring + Math.max(0, courses) * PLATES_PER_BRICK;
    if (from <= floor && !isFree) return;
    slab.foot[k] = Math.min(slab.under[k], Math.max(floor, from));
    if (from > floor) slab.arch[k] = rise < LEAST_RISE * open * PLATES_PER_STUD ? ARCH.flat : ARCH.carries;
  });
}

/** Which pillar each stud along a side belongs to, from 1; 0: none. */
function marks(length: number, starts: readonly number[], pillar: number): Uint8Array {
  const marked = new Uint8Array(length);
  starts.forEach((start, n) => marked.fill(n + 1, start, start + pillar));
  return marked;
}

/** Where pillars begin along a side: at both ends and between, no further apart than the spacing, from middle to middle. */
function places(length: number, pillar: number, spacing: number): number[] {
  const last = Math.max(0, length - pillar);
  const gaps = Math.max(1, Math.ceil(last / spacing));
  return [...new Set(Array.from({ length: gaps + 1 }, (_, i) => Math.round((i * last) / gaps)))];
}
