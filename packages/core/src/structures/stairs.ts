import { MM_PER_PLATE } from '../grid/index.ts';
import { wallStuds, type Plot } from '../document/index.ts';
import { FIGURE_MM } from '../scale/index.ts';
import { footOfFitting } from '../terrain/index.ts';
import type { Rect } from '../grid/index.ts';
import type { Fronted } from './fronts.ts';
import { storeysOf } from './storeys.ts';

// Stairs inside buildings: how steep they are, and where the floor above is open over them.

type Fitting = Plot['fittings'][number];

/** A stair in numbers. */
export interface StairCard {
  /** Its index among the building's fittings. */
  index: number;
  name: string;
  /** From its floor to the next, plates; how many plates it climbs on each stud of its length. */
  rise: number;
  perStud: number;
  /** Studs of its length, from its upper end, over which the floor above is open, so that a figure does not hit its head. */
  opening: number;
}

/** Height of a figure without hair, whole plates (about 40 mm, from memory). */
export const FIGURE_PLATES = Math.ceil(FIGURE_MM / MM_PER_PLATE);

/** @param from its foot @param upper what it leads up to, plates above the building's ground */
export function stairCard(
  { index, name, from, w, d }: { index: number; name: string; from: number; w: number; d: number },
  upper: number,
): StairCard {
  const [rise, length] = [Math.max(0, upper - from), Math.max(w, d)];
  const perStud = rise / length;
  // From where a figure on it would reach the underside of the floor, a plate thick, up to its top.
  const under = Math.max(0, rise - 1 - FIGURE_PLATES);
  return { index, name, rise, perStud, opening: rise > 0 ? Math.ceil(length - under / perStud) : 0 };
}

/** A hole in a floor over a stair, whole studs from the north-west corner of what is built. */
export interface StairHole extends Rect {
  /** Index of the storey whose floor it is in. */
  storey: number;
  /** The stair below it, where it stands. */
  stair: Rect;
}

/** The holes over the stairs that have a place, whole studs; those of the last storey lead to no floor. */
export function stairHoles(plot: Fronted): StairHole[] {
  if (!plot.fittings.some(({ use, place }) => use === 'stair' && place)) return [];
  const storeys = storeysOf(plot);
  const thick = wallStuds(plot);
  return plot.fittings.flatMap((fitting, index): StairHole[] => {
    const { use, place, name, on } = fitting;
    if (use !== 'stair' || !place) return [];
    const next = storeys.findIndex(({ level }) => level > on);
    if (next < 1) return [];
    const from = footOfFitting(plot, fitting);
    const { opening } = stairCard({ index, name, from, ...place }, storeys[next].from);
    const stair = { ...place, x: place.x + thick, y: place.y + thick };
    const open = openEnd(stair, opening, fitting.climbsTo);
    return open.w > 0 && open.d > 0 ? [{ ...open, storey: next, stair }] : [];
  });
}

/** The studs that the upper end of a stair touches, so many along it. */
function openEnd({ x, y, w, d }: Rect, opening: number, to: Fitting['climbsTo']): Rect {
  const off = to === 'start' ? 0 : Math.max(w, d) - opening;
  const open = w >= d ? { x: x + off, y, w: opening, d } : { x, y: y + off, w, d: opening };
  const [west, north] = [Math.floor(open.x), Math.floor(open.y)];
  return { x: west, y: north, w: Math.ceil(open.x + open.w) - west, d: Math.ceil(open.y + open.d) - north };
}
