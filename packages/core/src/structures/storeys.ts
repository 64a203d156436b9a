import { PLATES_PER_BRICK } from '../grid/index.ts';
import { storeyLevels, wallTop, type Plot } from '../document/index.ts';

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

/** Where a part lifts off a building: it stands on what is below. */
export interface PartJoint {
  /** Plates above the building's ground. */
  z: number;
  /** The part over it, and its index. */
  name: string;
  part: number;
}

/** The joints at which parts lift off, from the top down; one that lies on the ground is none. */
export function partJoints({ height, parts }: Pick<Plot, 'height' | 'parts'>): PartJoint[] {
  let z = height;
  return parts.flatMap(({ name, height: high }, part) => {
    z -= high;
    return z > 0 ? [{ z, name, part }] : [];
  });
}

/** One layer of pieces of a wall. */
export interface Course {
  /** The uppermost under a joint at which a part lifts off is smooth. */
  family: 'brick' | 'plate' | 'tile';
  z: number;
  h: number;
}

/**
 * The layers of a storey's walls from the ground up: as many bricks as fit between two joints, then plates. Under a joint
 * at which a part lifts off three plates stand for the last brick where none is over, the uppermost of them smooth.
 */
export function coursesOf({ from, to }: Pick<Storey, 'from' | 'to'>, joints: readonly PartJoint[]): Course[] {
  const cuts = joints.map(({ z }) => z).filter((z) => z > from && z <= to);
  const ends = [...new Set([...cuts, to])].toSorted((a, b) => a - b);
  let begin = from;
  return ends.flatMap((end) => {
    const between = end - begin;
    const isJoint = cuts.includes(end);
    const spare = between % PLATES_PER_BRICK;
    const bricks = Math.floor(between / PLATES_PER_BRICK) - (isJoint && spare === 0 && between > 0 ? 1 : 0);
    const plates = between - bricks * PLATES_PER_BRICK;
    const low = begin;
    begin = end;
    return [
      ...Array.from({ length: bricks }, (_, i): Course => {
        const z = low + i * PLATES_PER_BRICK;
        return { family: 'brick', z, h: PLATES_PER_BRICK };
      }),
      ...Array.from({ length: plates }, (_, i): Course => {
        const z = low + bricks * PLATES_PER_BRICK + i;
        return { family: isJoint && i === plates - 1 ? 'tile' : 'plate', z, h: 1 };
      }),
    ];
  });
}
