import { PLATES_PER_BRICK } from '../grid/index.ts';
import type { Plot } from '../document/index.ts';

// A building's storeys in courses of bricks, and the plates over them.

/** One storey; heights in plates above the building's ground. */
export interface Storey {
  /** Where it begins; its floor is one plate there. */
  level: number;
  hasFloor: boolean;
  /** Where its walls begin and end. */
  from: number;
  to: number;
  /** As many courses of bricks as fit between two floors, with plates over them. */
  courses: number;
  plates: number;
}

/** The storeys of a building from the ground up, all as high as whole plates allow. */
export function storeysOf({ height, storeys }: Pick<Plot, 'height' | 'storeys'>): Storey[] {
  const high = Math.round(height);
  const floors = Math.min(storeys, high);
  const walls = (level: number, hasFloor: boolean, to: number): Storey => {
    const from = level + (hasFloor ? 1 : 0);
    const between = to - from;
    return {
      ...{ level, hasFloor, from, to },
      courses: Math.floor(between / PLATES_PER_BRICK),
      plates: between % PLATES_PER_BRICK,
    };
  };
  if (floors === 0) return [walls(0, false, high)];
  const levels = Array.from({ length: floors }, (_, storey) => Math.round((storey * high) / floors));
  return levels.map((level, i) => walls(level, true, levels[i + 1] ?? high));
}
