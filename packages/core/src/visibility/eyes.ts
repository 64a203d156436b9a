import { MM_PER_STUD } from '../grid/index.ts';
import { displayOf, runsEast, type Place, type Scene, type Side } from '../document/index.ts';
import { currentPlace, evaluateBarriers, highestTable } from '../venue/index.ts';
import type { Eye } from './seen.ts';

// Where the public stands: along the sides from which the display is looked at, with eyes at four heights.

/** Whose eyes; “shoulders” is a small child on somebody's. */
export const WATCHERS = ['adult', 'seated', 'child', 'shoulders'] as const;
export type Watcher = (typeof WATCHERS)[number];

/** What each of them has. */
export const byWatcher = <T>(of: (who: Watcher) => T): Record<Watcher, T> => ({
  adult: of('adult'),
  seated: of('seated'),
  child: of('child'),
  shoulders: of('shoulders'),
});

/** As a sentence names them. */
export const WATCHER_WORDS: Readonly<Record<Watcher, string>> = {
  adult: 'adults',
  seated: 'people in a wheelchair',
  child: 'children',
  shoulders: 'those on shoulders',
};

/** One pair of eyes stands each so many mm along a side (ours, no source). */
export const EYE_STEP = 500;
/** Where no barrier says so the public stands so far from the scene, mm (ours, as for sight lines). */
export const NO_BARRIER = 600;

/** An eye of the public. */
export interface PublicEye extends Eye {
  side: Side;
  /** How many stand there against the busiest third of the busiest side, over 0 to 1. */
  crowd: number;
}

/** How far the public stands from the scene, mm: as its nearest barrier has it. */
export function publicDistance(scene: Scene): number {
  const nearest = Math.min(...evaluateBarriers(scene).map(({ toScene }) => toScene ?? Infinity));
  return Number.isFinite(nearest) ? nearest : NO_BARRIER;
}

/**
 * Where eyes stand along the viewed sides: each EYE_STEP from end to end, both ends among them.
 * @param z of the eyes above the table, mm @param distance from the scene, mm
 * @param crowd how busy each side is, percent of the busiest
 * @param thirds of each side from its west or north end, percent of the side
 */
export function eyesAlong(
  { w, d }: { w: number; d: number },
  sides: readonly Side[],
  distance: number,
  z: number,
  crowd: Readonly<Record<Side, number>> = EVEN,
  thirds: Readonly<Record<Side, Thirds>> = EVEN_THIRDS,
): PublicEye[] {
  const off = distance / MM_PER_STUD;
  return sides.flatMap((side) => {
    const length = runsEast(side) ? w : d;
    const count = Math.max(1, Math.round((length * MM_PER_STUD) / EYE_STEP));
    return Array.from({ length: count + 1 }, (_, i): PublicEye => {
      const along = (length * i) / count;
      const at = {
        n: { x: along, y: d + off },
        s: { x: along, y: -off },
        w: { x: -off, y: along },
        e: { x: w + off, y: along },
      }[side];
      // y counts from the south edge, thirds from the north end.
      const share = runsEast(side) ? i / count : 1 - i / count;
      const third = share < 1 / 3 ? 0 : share > 2 / 3 ? 2 : 1;
      return { ...at, z, side, crowd: (crowd[side] / 100) * (thirds[side][third] / 100) };
    });
  });
}
const EVEN: Readonly<Record<Side, number>> = { n: 100, e: 100, s: 100, w: 100 };
type Thirds = readonly [first: number, middle: number, last: number];
const ALIKE: Thirds = [100, 100, 100];
const EVEN_THIRDS: Readonly<Record<Side, Thirds>> = { n: ALIKE, e: ALIKE, s: ALIKE, w: ALIKE };

/** Heights of eyes over the floor of a place, mm. */
export const eyeHeights = ({
  eyeAdult,
  eyeSeated,
  eyeChild,
  eyeShoulders,
}: Pick<Place, 'eyeAdult' | 'eyeSeated' | 'eyeChild' | 'eyeShoulders'>): Record<Watcher, number> => ({
  adult: eyeAdult,
  seated: eyeSeated,
  child: eyeChild,
  shoulders: eyeShoulders,
});

/** Shares of the visitors that look from each height, 1 in all; even ones where a place has none. */
export function watcherShares({
  shareAdult,
  shareSeated,
  shareChild,
  shareShoulders,
}: Pick<Place, 'shareAdult' | 'shareSeated' | 'shareChild' | 'shareShoulders'>): Record<Watcher, number> {
  const all = shareAdult + shareSeated + shareChild + shareShoulders;
  const share = (part: number) => (all > 0 ? part / all : 1 / WATCHERS.length);
  return {
    adult: share(shareAdult),
    seated: share(shareSeated),
    child: share(shareChild),
    shoulders: share(shareShoulders),
  };
}

/** The eyes of the public: from which sides, how far off, and where they are, by whose they are. */
export interface PublicEyes {
  sides: readonly Side[];
  /** mm from the eyes to the scene. */
  distance: number;
  /** Places where they stand, at the height of the table. */
  places: readonly PublicEye[];
  /** Shares of the visitors, 1 in all. */
  shares: Record<Watcher, number>;
  /** None where no visitor has eyes at that height. */
  by: Record<Watcher, PublicEye[]>;
}

/**
 * @param size of the scene, studs
 * @returns null where the display does not say from which sides it is looked at, or stands in no place
 */
export function publicEyes(scene: Scene, size: { w: number; d: number }): PublicEyes | null {
  const { viewedSides: sides, crowd, crowdAlong } = displayOf(scene);
  const place = currentPlace(scene);
  if (!place || sides.length === 0) return null;
  const table = highestTable(scene);
  const distance = publicDistance(scene);
  const heights = eyeHeights(place);
  const shares = watcherShares(place);
  const at = (who: Watcher) =>
    shares[who] > 0 ? eyesAlong(size, sides, distance, heights[who] - table, crowd, crowdAlong) : [];
  return {
    ...{ sides, distance, shares },
    places: eyesAlong(size, sides, distance, 0, crowd, crowdAlong),
    by: { adult: at('adult'), seated: at('seated'), child: at('child'), shoulders: at('shoulders') },
  };
}
