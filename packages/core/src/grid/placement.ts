import RBush from 'rbush';
import type { CoordinateFrame, Rect } from './rect.ts';

/** A rectangle that a label takes, in the drawing's unit. */
export interface LabelBox {
  minX: number;
  minY: number;
  maxX: number;
  maxY: number;
}

/**
 * Gives each of some things, by its rank, the first of its places that touches nothing placed before.
 * @param placesOf the places a thing may have, the best first, each with the boxes that it takes there
 * @param frame what all boxes stay within; null: anywhere
 * @param taken boxes that nothing may touch
 * @returns the places found, in the order of the ranks, and the things that found none
 */
export function placeByRank<T extends { rank: number }, P extends { boxes: readonly LabelBox[] }>(
  things: readonly T[],
  placesOf: (thing: T) => Iterable<P>,
  frame: Rect<CoordinateFrame> | null = null,
  taken: readonly LabelBox[] = [],
): { placed: { thing: T; place: P }[]; left: T[] } {
  const index = new RBush<LabelBox>();
  index.load([...taken]);
  const placed: { thing: T; place: P }[] = [];
  const left: T[] = [];
  for (const thing of things.toSorted((a, b) => a.rank - b.rank)) {
    let found: P | null = null;
    for (const place of placesOf(thing)) {
      if (frame && !place.boxes.every((box) => isInside(box, frame))) continue;
      if (place.boxes.some((box) => index.collides(box))) continue;
      found = place;
      break;
    }
    if (found) {
      index.load([...found.boxes]);
      placed.push({ thing, place: found });
    } else left.push(thing);
  }
  return { placed, left };
}

const isInside = (box: LabelBox, frame: Rect<CoordinateFrame>) =>
  box.minX >= frame.x &&
  box.minY >= frame.y &&
  box.maxX <= frame.x + frame.w &&
  box.maxY <= frame.y + frame.d;
