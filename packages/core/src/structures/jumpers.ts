import { partId } from '../catalogue/index.ts';
import { JUMPER_PLATES } from '../document/index.ts';
import { intersection, type Rect } from '../grid/index.ts';
import type { LaidPiece } from './piece.ts';

// Jumpers: plates of two or four studs' area with one stud in the middle, on which things stand half a stud off the grid.

/** A jumper stands under a wall each so many studs at most (ours, no source). */
const EVERY = 4;

/**
 * The jumpers under the walls of a building that stands half a stud off the grid: one under each corner, then no two nearer
 * than `EVERY` studs.
 * @param mask studs of its walls, row by row: 1 @param w of a row
 * @param off along which axes it is off
 */
export function jumpersUnderWalls(mask: Uint8Array, w: number, off: { x: boolean; y: boolean }): LaidPiece[] {
  const isWall = (x: number, y: number) => x >= 0 && x < w && mask[y * w + x] === 1;
  const studs = Array.from(mask, (on, i) => ({ on, x: i % w, y: Math.trunc(i / w) })).filter(({ on }) => on);
  const isCorner = ({ x, y }: { x: number; y: number }) =>
    !(isWall(x - 1, y) && isWall(x + 1, y)) && !(isWall(x, y - 1) && isWall(x, y + 1));
  const spots: { x: number; y: number }[] = [];
  for (const at of [...studs.filter(isCorner), ...studs]) {
    const isNear = spots.some(({ x, y }) => Math.abs(x - at.x) < EVERY && Math.abs(y - at.y) < EVERY);
    if (!isNear) spots.push(at);
  }
  const [wide, deep] = [off.x ? 2 : 1, off.y ? 2 : 1];
  return spots.map(({ x, y }): LaidPiece => ({
    ...{ part: partId('jumper', wide, deep), use: 'floor', turn: 0 },
    // The stud in the middle of a jumper holds the stud of the wall over it.
    ...{ x: off.x ? x - 0.5 : x, y: off.y ? y - 0.5 : y, w: wide, d: deep },
    ...{ z: -JUMPER_PLATES, h: JUMPER_PLATES },
  }));
}

/**
 * The jumpers under a thing that stands half a stud off along x or y: one at either end where there is room, under a thing
 * of one stud one.
 * @param thing studs from the north-west corner of what is built @param z of the floor's top, plates
 * @param isFree whether a jumper may lie there
 * @returns none for a thing on whole studs
 */
export function jumpersUnder(thing: Rect, z: number, isFree: (rect: Rect) => boolean): LaidPiece[] {
  const [halfX, halfY] = [thing.x, thing.y].map((at) => !Number.isInteger(at));
  if (!halfX && !halfY) return [];
  const [columns, rows] = [thing.w, thing.d].map((size) => Math.max(1, Math.floor(size)));
  const spots = Array.from({ length: columns * rows }, (_, k): Rect => {
    const [x, y] = [thing.x + (k % columns), thing.y + Math.trunc(k / columns)];
    // The stud in the middle of a jumper of two lies where two studs of its floor meet.
    return { x: halfX ? x - 0.5 : x, y: halfY ? y - 0.5 : y, w: halfX ? 2 : 1, d: halfY ? 2 : 1 };
  }).filter(isFree);
  const first = spots.at(0);
  if (!first) return [];
  const last = spots.findLast((spot) => !intersection(first, spot));
  return [first, ...(last ? [last] : [])].map((spot): LaidPiece => {
    return { ...spot, part: partId('jumper', spot.w, spot.d), use: 'floor', z, h: 1, turn: 0 };
  });
}
