import { PLATES_PER_BRICK } from '../grid/index.ts';
import { storeyLevels, type Plot } from '../document/index.ts';

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

/** Height of a building's walls, plates: to the eaves, or to a flat roof. */
export const wallTop = ({ height, eaves }: Pick<Plot, 'height' | 'eaves'>): number =>
  Math.round(eaves === null ? height : Math.min(eaves, height));

/**
 * The storeys of a building from the ground up. One that reaches over the eaves ends there, and the last reaches up to
 * them; those that begin higher are in the roof and have no walls.
 */
export function storeysOf(plot: Pick<Plot, 'height' | 'storeys' | 'storeyHeights' | 'eaves'>): Storey[] {
  const top = wallTop(plot);
  const levels = storeyLevels(plot);
  const walls = (level: number, hasFloor: boolean, to: number): Storey => {
    const from = level + (hasFloor ? 1 : 0);
    const between = to - from;
    return {
      ...{ level, hasFloor, from, to },
      courses: Math.floor(between / PLATES_PER_BRICK),
      plates: between % PLATES_PER_BRICK,
    };
  };
  if (levels.length === 0) return [walls(0, false, top)];
  return levels
    .filter((level) => level < top)
    .map((level, i) => walls(level, true, Math.min(top, levels[i + 1] ?? top)));
}
