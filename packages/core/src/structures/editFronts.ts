import type { Plot, Side } from '../document/index.ts';

// Edits of a building's fronts: each gives the bays as they are after it.

type Fronts = Plot['bays'];
type Bay = Fronts[number]['bays'][number];

/** A side of a building on one storey. */
export interface FrontPlace {
  side: Side;
  /** 1: on the ground. */
  storey: number;
}

const isAt =
  ({ side, storey }: FrontPlace) =>
  (front: FrontPlace): boolean =>
    front.side === side && front.storey === storey;

/** The bays of one side on one storey; empty where it is plain. */
export const baysAt = (fronts: Fronts, place: FrontPlace): readonly Bay[] =>
  fronts.find(isAt(place))?.bays ?? [];

const PLAIN = { part: null, sill: 0, high: 6 } as const;

/** Divides a side again: each bay keeps what is let into it by its number. @param widths none: the side is plain again */
export function withRhythm(fronts: Fronts, place: FrontPlace, widths: readonly number[]): Fronts {
  const before = baysAt(fronts, place);
  return put(
    fronts,
    place,
    widths.map((wide, i) => ({ ...(before[i] ?? PLAIN), wide })),
  );
}

/** Changes one bay. */
export const withBay = (fronts: Fronts, place: FrontPlace, index: number, change: Partial<Bay>): Fronts =>
  put(
    fronts,
    place,
    baysAt(fronts, place).map((bay, i) => (i === index ? { ...bay, ...change } : bay)),
  );

/** Gives other sides and storeys the bays of one. */
export const withCopies = (fronts: Fronts, from: FrontPlace, to: readonly FrontPlace[]): Fronts =>
  to
    .filter((place) => !isAt(from)(place))
    .reduce((all, place) => put(all, place, baysAt(fronts, from)), fronts);

/** Gives the side of another building all bays that a building has on it. @param from @param to their bays */
export const withSideOf = (to: Fronts, from: Fronts, side: Side): Fronts => [
  ...to.filter((front) => front.side !== side),
  ...from.filter((front) => front.side === side),
];

function put(fronts: Fronts, { side, storey }: FrontPlace, bays: readonly Bay[]): Fronts {
  const others = fronts.filter((front) => !isAt({ side, storey })(front));
  return bays.length === 0 ? others : [...others, { side, storey, bays: [...bays] }];
}

/** Gives one storey a height of its own. @param height plates; null: an even share of what the others leave */
export function withStoreyHeight(
  heights: Plot['storeyHeights'],
  storey: number,
  height: number | null,
): Plot['storeyHeights'] {
  const all = Array.from({ length: Math.max(heights.length, storey) }, (_, i) =>
    i === storey - 1 ? height : (heights[i] ?? null),
  );
  while (all.length > 0 && all[all.length - 1] === null) all.pop();
  return all;
}
