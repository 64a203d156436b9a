import { MM_PER_STUD } from '../grid/index.ts';
import { displayOf, type Place, type Scene, type Side } from '../document/index.ts';
import { currentPlace, evaluateBarriers, highestTable } from '../venue/index.ts';
import type { Eye } from './seen.ts';

// Where the public stands: along the sides from which the display is looked at, with eyes at three heights.

/** Whose eyes. */
export const WATCHERS = ['adult', 'seated', 'child'] as const;
export type Watcher = (typeof WATCHERS)[number];

/** One pair of eyes stands each so many mm along a side (ours, no source). */
export const EYE_STEP = 500;
/** Where no barrier says so the public stands so far from the scene, mm (ours, as for sight lines). */
export const NO_BARRIER = 600;

/** How far the public stands from the scene, mm: as its nearest barrier has it. */
export function publicDistance(scene: Scene): number {
  const nearest = Math.min(...evaluateBarriers(scene).map(({ toScene }) => toScene ?? Infinity));
  return Number.isFinite(nearest) ? nearest : NO_BARRIER;
}

/**
 * Where eyes stand along the viewed sides: each EYE_STEP from end to end, both ends among them.
 * @param z of the eyes above the table, mm @param distance from the scene, mm
 */
export function eyesAlong(
  { w, d }: { w: number; d: number },
  sides: readonly Side[],
  distance: number,
  z: number,
): Eye[] {
  const off = distance / MM_PER_STUD;
  return sides.flatMap((side) => {
    const length = side === 'n' || side === 's' ? w : d;
    const count = Math.max(1, Math.round((length * MM_PER_STUD) / EYE_STEP));
    return Array.from({ length: count + 1 }, (_, i): Eye => {
      const along = (length * i) / count;
      const at = {
        n: { x: along, y: d + off },
        s: { x: along, y: -off },
        w: { x: -off, y: along },
        e: { x: w + off, y: along },
      }[side];
      return { ...at, z };
    });
  });
}

/** Heights of eyes over the floor of a place, mm. */
export const eyeHeights = ({ eyeAdult, eyeSeated, eyeChild }: Place): Record<Watcher, number> => ({
  adult: eyeAdult,
  seated: eyeSeated,
  child: eyeChild,
});

/** The eyes of the public: from which sides, how far off, and where they are, by whose they are. */
export interface PublicEyes {
  sides: readonly Side[];
  /** mm from the eyes to the scene. */
  distance: number;
  by: Record<Watcher, Eye[]>;
}

/**
 * @param size of the scene, studs
 * @returns null where the display does not say from which sides it is looked at, or stands in no place
 */
export function publicEyes(scene: Scene, size: { w: number; d: number }): PublicEyes | null {
  const { viewedSides: sides } = displayOf(scene);
  const place = currentPlace(scene);
  if (!place || sides.length === 0) return null;
  const table = highestTable(scene);
  const distance = publicDistance(scene);
  const heights = eyeHeights(place);
  const at = (height: number) => eyesAlong(size, sides, distance, height - table);
  return {
    ...{ sides, distance },
    by: { adult: at(heights.adult), seated: at(heights.seated), child: at(heights.child) },
  };
}
