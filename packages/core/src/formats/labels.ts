import { placeByRank, type LabelBox, type Rect } from '../grid/index.ts';
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
  frame: Rect<'mm'> | null = null,
  taken: readonly Rect<'mm'>[] = [],
): { placed: PlacedLabel<L>[]; left: L[] } {
  const { placed, left } = placeByRank(
    labels,
    ({ at, text, size }) => {
      const width = widthOf(text, size);
      return WAYS.map(([aside, lines]) => {
        const spot = { x: at.x + aside * width, y: at.y + lines * size * 1.3 };
        return { spot, width, boxes: [boxAt(spot, width, size)] };
      });
    },
    frame,
    taken.map(({ x, y, w, d }) => ({ minX: x, minY: y, maxX: x + w, maxY: y + d })),
  );
  return {
    placed: placed.map(({ thing, place }) => ({ ...thing, at: place.spot, width: place.width })),
    left,
  };
}

const boxAt = ({ x, y }: RoomPoint, width: number, size: number): LabelBox => ({
  minX: x - width / 2 - AIR * size,
  maxX: x + width / 2 + AIR * size,
  minY: y - size * (0.5 + AIR),
  maxY: y + size * (0.5 + AIR),
});
