import RBush from 'rbush';
import type { RoomPoint } from '../venue/index.ts';

// Where names stand on a drawing, so that none lies on another.

export interface Label {
  /** Its middle at best. */
  at: RoomPoint;
  text: string;
  /** Height of its letters, in the drawing's unit. */
  size: number;
  /** Who comes first: the smallest. */
  rank: number;
}
/** A label where it stands. */
export type PlacedLabel<L extends Label = Label> = L & {
  /** Width of its text, in the drawing's unit. */
  width: number;
};

interface Box {
  minX: number;
  minY: number;
  maxX: number;
  maxY: number;
}

/** Room about a label, as a share of its size. */
const AIR = 0.2;
/** Ways from a label's own place: up and down by lines of text, aside by halves of its width. */
const WAYS: readonly (readonly [number, number])[] = [
  [0, 0],
  ...[1, -1, 2, -2].map((line) => [0, line] as const),
  ...[0.6, -0.6].flatMap((aside) => [0, 1, -1].map((line) => [aside, line] as const)),
];

/**
 * Places labels by their rank; each at its own place or near it, none on another or outside the frame.
 * @param widthOf width of a text at a size, in the drawing's unit
 * @param frame what all labels stay within; null: anywhere
 * @param taken boxes that no label may touch, x and y of their north-west corners
 * @returns those that found a place, and those that did not
 */
export function placeLabels<L extends Label>(
  labels: readonly L[],
  widthOf: (text: string, size: number) => number,
  frame: { x: number; y: number; w: number; d: number } | null = null,
  taken: readonly { x: number; y: number; w: number; d: number }[] = [],
): { placed: PlacedLabel<L>[]; left: L[] } {
  const index = new RBush<Box>();
  index.load(taken.map(({ x, y, w, d }) => ({ minX: x, minY: y, maxX: x + w, maxY: y + d })));
  const placed: PlacedLabel<L>[] = [];
  const left: L[] = [];
  for (const label of labels.toSorted((a, b) => a.rank - b.rank)) {
    const { at, text, size } = label;
    const width = widthOf(text, size);
    let found: RoomPoint | null = null;
    for (const [aside, lines] of WAYS) {
      const spot = { x: at.x + aside * width, y: at.y + lines * size * 1.3 };
      const box = boxAt(spot, width, size);
      if (frame && !isInside(box, frame)) continue;
      if (index.collides(box)) continue;
      index.insert(box);
      found = spot;
      break;
    }
    if (found) placed.push({ ...label, at: found, width });
    else left.push(label);
  }
  return { placed, left };
}

const boxAt = ({ x, y }: RoomPoint, width: number, size: number): Box => ({
  minX: x - width / 2 - AIR * size,
  maxX: x + width / 2 + AIR * size,
  minY: y - size * (0.5 + AIR),
  maxY: y + size * (0.5 + AIR),
});
const isInside = (box: Box, frame: { x: number; y: number; w: number; d: number }) =>
  box.minX >= frame.x &&
  box.minY >= frame.y &&
  box.maxX <= frame.x + frame.w &&
  box.maxY <= frame.y + frame.d;
