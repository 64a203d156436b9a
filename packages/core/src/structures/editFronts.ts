import type { Plot, Side } from '../document/index.ts';
import type { Face } from './fronts.ts';

// Edits of a building's fronts: each gives the bays as they are after it.

type Fronts = Plot['bays'];
type Bay = Fronts[number]['bays'][number];

/** A face of a building on one storey. */
export interface FrontPlace extends Face {
  /** 1: on the ground. */
  storey: number;
}

const isAt =
  ({ side, recess, storey }: FrontPlace) =>
  (front: FrontPlace): boolean =>
    front.side === side && front.recess === recess && front.storey === storey;

/** The bays of one face on one storey; empty where it is plain. */
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

/** Gives the outer walls of a side of another building all bays that a building has on it. @param from @param to their bays */
export function withSideOf(to: Fronts, from: Fronts, side: Side): Fronts {
  const isOuter = (front: FrontPlace) => front.side === side && front.recess === null;
  return [...to.filter((front) => !isOuter(front)), ...from.filter(isOuter)];
}

/** A building without one of its recesses, with the bays of the others. @param index of the recess, from 0 */
export const withoutRecess = (
  { recesses, bays }: Pick<Plot, 'recesses' | 'bays'>,
  index: number,
): Pick<Plot, 'recesses' | 'bays'> => ({
  recesses: recesses.filter((_, i) => i !== index),
  bays: bays
    .filter(({ recess }) => recess !== index + 1)
    .map((front) =>
      front.recess !== null && front.recess > index + 1 ? { ...front, recess: front.recess - 1 } : front,
    ),
});

function put(fronts: Fronts, place: FrontPlace, bays: readonly Bay[]): Fronts {
  const { side, recess, storey } = place;
  const others = fronts.filter((front) => !isAt(place)(front));
  return bays.length === 0 ? others : [...others, { side, recess, storey, bays: [...bays] }];
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
