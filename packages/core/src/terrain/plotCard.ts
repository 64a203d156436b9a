import { offSides } from './roofPlan.ts';
import { sidesOfRoof, slopedRoofOf, underSlopedRoof } from './slopedRoof.ts';
import type { Rect } from '../grid/index.ts';
import {
  frontSize,
  insideOf,
  isOnHalf,
  isBoxed,
  roomStuds,
  roofFormOf,
  storeyLevels,
  wallStuds,
  wallTop,
  type Plot,
  type Side,
} from '../document/index.ts';
import { metresOf } from '../scale/index.ts';
import { offWallOf, ringRoofOf, underRingRoof } from './ringRoof.ts';
import { eachPlotSpan } from './stand.ts';

/** What a plot's numbers come to: what one would otherwise work out with paper beside the model. */
export interface PlotCard {
  /** Studs inside the walls of one floor, and of all floors. */
  inside: number;
  floors: number;
  /** True metres at the display's ratio, outside; and the true area of one floor inside, square metres. */
  trueW: number;
  trueD: number;
  trueFloor: number;
  /** Height of one storey, plates; null without storeys, and where they have heights of their own. */
  storey: number | null;
  /** Studs that the turned walls touch, and how many more than unturned. */
  swept: number;
  sweptMore: number;
  /** Of what stands inside: how much room stays above it, plates; negative: the ceiling hits it. */
  clearances: FittingClearance[];
  /** Where the connectors of a street front belong on its sides, studs from the front edge; empty for others. */
  connectors: readonly { from: number; to: number }[];
}

/** The room over a fitting, heights in plates above the building's ground. */
export interface FittingClearance {
  name: string;
  /** What is over it: the floor of the next storey, or the roof. */
  under: 'floor' | 'roof';
  /** Where that is over it. */
  ceiling: number;
  /** What stays between; below 0: it hits it. */
  clear: number;
}

/** Along the 32 studs of a street front's side: 9 free, a 2-stud brick, 10 free, a 2-stud brick, 9 free (common practice). */
export const CONNECTOR_PLACES = [
  { from: 9, to: 11 },
  { from: 21, to: 23 },
] as const;
export const FRONT_DEPTH = 32;

/** Where the connectors of a street front belong on its sides, studs from the front edge; none for others and other depths. */
export const connectorPlaces = (
  plot: Pick<Plot, 'w' | 'd' | 'front' | 'streetFront'>,
): readonly { from: number; to: number }[] =>
  plot.streetFront && frontSize(plot).deep === FRONT_DEPTH ? CONNECTOR_PLACES : [];

/**
 * The inside of a plot's roof: its height above the ground, plates, by the distance from the inside of the eaves wall,
 * studs. Of slopes or rings it is as they are laid; a flat roof is as high everywhere.
 */
export function roofOver(plot: Plot): (from: number) => number {
  const { height, eaves, parts } = plot;
  if (eaves === null) {
    const lowest = parts.filter(({ use }) => use === 'roof').map(({ clears }) => clears);
    return () => Math.min(height, ...lowest);
  }
  const sloped = slopedRoofOf(plot);
  if (sloped) return (from) => underSlopedRoof(plot, sloped, from);
  const rings = ringRoofOf(plot);
  return rings ? (from) => underRingRoof(plot, rings, from) : () => wallTop(plot);
}

/** Height of the inside of a plot's roof at one place: see `roofOver`. */
export const roofAt = (plot: Plot, from: number): number => roofOver(plot)(from);

type Fitting = Plot['fittings'][number];

/** How far a fitting stands off the nearer eaves wall at least, studs: by its place, else as it says. */
export function offWall(plot: Plot, { place, fromWall }: Pick<Fitting, 'place' | 'fromWall'>): number {
  return place === null ? fromWall : offEaves(plot, place);
}

/** How far a rectangle of a floor is off the nearest wall that the roof falls to, studs. @param rect from the inside of the north-west corner */
export function offEaves(plot: Plot, { x, y, w, d }: Rect): number {
  if (!isBoxed(plot)) {
    if (!slopedRoofOf(plot)) return offWallOf(plot, { x, y, w, d });
    const thick = wallStuds(plot);
    return Math.max(0, offSides(sidesOfRoof(plot), { x: x + thick, y: y + thick, w, d }) - plot.wall);
  }
  const room = insideOf(plot);
  const off = { n: y, s: room.d - y - d, w: x, e: room.w - x - w };
  const low: readonly Side[] =
    roofFormOf(plot) === 'lean-to'
      ? [plot.front]
      : roofFormOf(plot) === 'hip'
        ? ['n', 'e', 's', 'w']
        : room.w >= room.d
          ? ['n', 's']
          : ['w', 'e'];
  return Math.max(0, Math.min(...low.map((side) => off[side])));
}

/**
 * Where a fitting stands, plates above the building's ground: on the plates of its floor where it is set on one, and on
 * jumpers there where its place is half a stud off.
 */
export const footOfFitting = (
  plot: Parameters<typeof storeyLevels>[0],
  { on, place }: Pick<Fitting, 'on' | 'place'>,
): number => (storeyLevels(plot).includes(on) ? on + 1 + (isOnHalf(place) ? 1 : 0) : on);

/** What is over a fitting, and how much room it leaves. */
export function clearanceOfFitting(plot: Plot, fitting: Fitting): FittingClearance {
  const roof = roofAt(plot, offWall(plot, fitting));
  // A stair leads through the floor over it.
  const next = fitting.use === 'stair' ? undefined : storeyLevels(plot).find((level) => level > fitting.on);
  const ceiling = Math.min(roof, next ?? Infinity);
  return {
    name: fitting.name,
    under: ceiling < roof ? 'floor' : 'roof',
    ceiling,
    clear: ceiling - footOfFitting(plot, fitting) - fitting.height,
  };
}

/** @param ratio the display's scale, 1 : n */
export function plotCard(plot: Plot, ratio: number): PlotCard {
  const { w, d, height, storeys, fittings } = plot;
  const inside = roomStuds(plot);
  let swept = 0;
  const everywhere = { x: -20_000, y: -20_000, w: 40_000, d: 40_000 };
  eachPlotSpan(plot, everywhere, (_, from, to) => (swept += to - from));
  let flat = 0;
  eachPlotSpan({ ...plot, turn: 0 }, everywhere, (_, from, to) => (flat += to - from));
  return {
    inside,
    floors: inside * Math.max(1, storeys),
    trueW: metresOf(w, ratio),
    trueD: metresOf(d, ratio),
    trueFloor: inside * metresOf(1, ratio) ** 2,
    storey: storeys > 0 && plot.storeyHeights.length === 0 ? height / storeys : null,
    swept,
    sweptMore: swept - flat,
    clearances: fittings.map((fitting) => clearanceOfFitting(plot, fitting)),
    connectors: connectorPlaces(plot),
  };
}
