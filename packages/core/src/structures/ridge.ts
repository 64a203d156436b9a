import { wallTop, type Plot } from '../document/index.ts';
import { ringRoofOf, slopedRoofOf } from '../terrain/index.ts';
import type { Fronted } from './fronts.ts';

// The top of a building, and how it is raised to meet another.

/** Plates above the building's ground: the top of its roof as it is laid. */
export function ridgeOf(plot: Fronted): number {
  const round = ringRoofOf(plot);
  if (round) return round.top;
  const roof = slopedRoofOf(plot);
  return roof !== null && roof.courses > 0 ? roof.ridge : wallTop(plot) + 1;
}

/**
 * What raises the walls of a building so that its roof, laid as it is, ends so many plates higher; parts that lift off
 * stay as they are, so that what is under them grows.
 * @param by plates, below 0: it is lowered
 * @returns null where nothing of its walls would be left
 */
export function raisedBy(
  { height, eaves }: Pick<Plot, 'height' | 'eaves'>,
  by: number,
): Pick<Plot, 'height' | 'eaves'> | null {
  const walls = (eaves ?? height) + by;
  return walls < 1 ? null : { height: height + by, eaves: eaves === null ? null : eaves + by };
}
