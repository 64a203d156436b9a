import { partId } from '../catalogue/index.ts';
import { intersection, type Rect } from '../grid/index.ts';
import type { LaidPiece } from './piece.ts';

// Jumpers: plates of two or four studs' area with one stud in the middle, on which things stand half a stud off the grid.

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
