import { intersection, type Rect } from '../grid/index.ts';
import type { Kind, Scene } from '../document/index.ts';
import { OUTSIDE } from './rasterize.ts';
import { placeObjects } from './placeObjects.ts';
import type { Relief } from './relief.ts';
import { NO_SLAB, eachStudOf } from './slab.ts';
import { levelHeight } from './slabs.ts';

// What is solid over each stud: the ground less its cavities, decks with what carries them, and what stands anywhere.

/** A solid piece of a column, plates above datum, and whose it is; null: the ground itself. */
export interface Interval {
  from: number;
  to: number;
  owner: { kind: Kind; id: string } | null;
}

/** The columns of a rectangle of studs, row by row; empty outside the footprint. */
export interface Columns extends Rect {
  /** Solid pieces from the bottom up; none overlaps another of its stud. */
  at: (x: number, y: number) => readonly Interval[];
}

/**
 * Solid pieces over each stud, from the table up. Ground is solid from the datum to its height where no cavity is in
 * it. Of two things in one place the first keeps it: ground, decks from the lowest up, then what stands, in the order
 * of `placeObjects`. Its cost grows with studs and with what stands on them.
 * @param window studs; left out: the whole relief
 */
export function columnsOf(scene: Scene, relief: Relief, window: Rect = relief): Columns {
  const on = intersection(window, relief) ?? { x: relief.x, y: relief.y, w: 0, d: 0 };
  const columns: Interval[][] = Array.from({ length: on.w * on.d }, () => []);
  const indexOf = (x: number, y: number) => (y - on.y) * on.w + x - on.x;
  const isIn = (x: number, y: number) => x >= on.x && y >= on.y && x < on.x + on.w && y < on.y + on.d;
  for (let k = 0; k < columns.length; k++) {
    const i = (on.y + Math.trunc(k / on.w) - relief.y) * relief.w + on.x + (k % on.w) - relief.x;
    if (relief.ground[i] !== OUTSIDE && relief.height[i] > 0)
      columns[k].push({ from: 0, to: relief.height[i], owner: null });
  }
  for (const slab of relief.slabs) {
    const cavity = slab.kind === 'cavity' ? scene.cavity[slab.id] : undefined;
    const owner = { kind: slab.kind, id: slab.id };
    const floor = cavity ? levelHeight(scene, cavity) : 0;
    eachStudOf(slab, (k, x, y) => {
      if (!isIn(x, y)) return;
      const column = columns[indexOf(x, y)];
      if (cavity) hollow(column, floor, slab.under[k]);
      else {
        fill(column, { from: slab.under[k], to: slab.top[k], owner });
        if (slab.foot[k] !== NO_SLAB) fill(column, { from: slab.foot[k], to: slab.under[k], owner });
      }
    });
  }
  const things: { kind: Kind; id: string }[] = [];
  placeObjects(
    scene,
    {
      land: relief,
      put(i, from, to, owner) {
        const [x, y] = [relief.x + (i % relief.w), relief.y + Math.trunc(i / relief.w)];
        if (isIn(x, y)) fill(columns[indexOf(x, y)], { from, to, owner: things[owner - 1] });
      },
    },
    on,
    (kind, id) => things.push({ kind, id }),
    () => true,
  );
  return { ...on, at: (x, y) => (isIn(x, y) ? columns[indexOf(x, y)] : []) };
}

/** Takes solid ground away between two heights. */
function hollow(column: Interval[], from: number, to: number): void {
  for (let i = column.length - 1; i >= 0; i--) {
    const piece = column[i];
    if (piece.owner !== null || piece.to <= from || piece.from >= to) continue;
    const rest = [
      { ...piece, to: Math.min(piece.to, from) },
      { ...piece, from: Math.max(piece.from, to) },
    ].filter((part) => part.to > part.from);
    column.splice(i, 1, ...rest);
  }
}

/** Puts a piece where the column is free. */
function fill(column: Interval[], piece: Interval): void {
  let from = piece.from;
  const parts: Interval[] = [];
  for (const there of column) {
    if (there.to <= from || there.from >= piece.to) continue;
    if (there.from > from) parts.push({ ...piece, from, to: there.from });
    from = Math.max(from, there.to);
  }
  if (from < piece.to) parts.push({ ...piece, from });
  if (parts.length === 0) return;
  column.push(...parts);
  column.sort((a, b) => a.from - b.from);
}

/** Air over a surface: the plates from a height to the next solid piece over it; null: nothing is over it. */
export function clearOver(column: readonly Interval[], height: number): number | null {
  const over = column.find(({ from, to }) => to > height && from >= height);
  return over ? over.from - height : null;
}
