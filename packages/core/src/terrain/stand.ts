import { boundsOfPoints, intersection, type Rect } from '../grid/index.ts';
import {
  JUMPER_PLATES,
  halfOff,
  listOf,
  plotBounds,
  standingOf,
  wallCorners,
  wallLine,
  wallStraights,
  type BaseKind,
  type Entity,
  type Plot,
  type Scene,
  type StandFields,
  type Standing,
} from '../document/index.ts';
import { OUTSIDE, type Raster } from './rasterize.ts';
import { eachTouched } from './shape.ts';
import { NO_SLAB, topAt, type Slab } from './slab.ts';
import { levelHeight } from './slabs.ts';
import { stripCorners } from './strip.ts';
import { eachWallStud } from './wallRuns.ts';

// What stands on what: the ground, the highest surface, or a deck, a cavity's floor, a roof or a wall that a thing names.

/** The ground with the highest surface over it. */
export interface SurfaceRaster extends Raster {
  surface: Int16Array;
}

/** Buildings and walls stand on each other at most so deep. */
export const MAX_STOREYS = 16;

/** Where a thing is on the plan, studs: a point, or all that it takes. */
type Over = { x: number; y: number } & Partial<Pick<Rect, 'w' | 'd'>>;

/**
 * Height of what a thing names to stand on, plates: the top of a deck, the floor of a cavity, the roof of a building, the
 * top of a wall.
 * @param over where the thing is: a wall that follows the ground is as high as it is there
 * @returns null where it names none, or the ground
 */
export function namedFoot(
  scene: Scene,
  relief: SurfaceRaster,
  thing: StandFields,
  over: Over,
): number | null {
  const on = standingOf(thing);
  if (on === null || on.kind === 'ground' || !isHeld(scene, on)) return null;
  if (on.kind === 'plot') {
    const under = scene.plot[on.id];
    const foot = under ? standsOn(scene, relief, under) : null;
    return foot === null ? null : foot + under.height;
  }
  if (on.kind === 'run') {
    const under = scene.run[on.id];
    return under ? topOfRun(scene, relief, under, over) : null;
  }
  const thingUnder = scene[on.kind][on.id];
  return thingUnder ? levelHeight(scene, thingUnder) : null;
}

/** Whether what a thing names is held by something else: in a circle nothing is. */
function isHeld(scene: Scene, on: Standing): boolean {
  let under: Standing | null = on;
  for (let deep = 0; deep < MAX_STOREYS; deep++) {
    if (under?.kind !== 'plot' && under?.kind !== 'run') return true;
    const thing: StandFields | undefined = scene[under.kind][under.id];
    under = thing ? standingOf(thing) : null;
  }
  return false;
}

/** The heights a thing stands on where it names nothing of its own, one a stud. */
export const footHeights = (relief: SurfaceRaster, { onGround }: StandFields): Int16Array =>
  onGround ? relief.height : relief.surface;

/**
 * Height that all of a wall or fence stands on, plates: what it names; a ring, whose panels are held by one another, on the
 * highest surface under it.
 * @returns null where each stud of it stands on what is there, and for a ring beside the footprint
 */
export function wallFoot(scene: Scene, relief: SurfaceRaster, run: Entity<'run'>): number | null {
  const named = namedFoot(scene, relief, run, boundsOfPoints(wallLine(run)));
  return named === null && run.ring !== null ? highestUnderRun(relief, run, relief) : named;
}

/** The highest of what a wall stands on, plates. @returns null where none of it lies in a window of the footprint */
function highestUnderRun(relief: SurfaceRaster, run: Entity<'run'>, window: Rect): number | null {
  const heights = footHeights(relief, run);
  let high: number | null = null;
  eachWallStud(run, window, (x, y) => {
    const i = (y - relief.y) * relief.w + x - relief.x;
    if (relief.ground[i] !== OUTSIDE && (high === null || heights[i] > high)) high = heights[i];
  });
  return high;
}

/** The studs that a thing lies on; of a point the one it is on. */
function studsOver({ x, y, w = 0, d = 0 }: Over): Rect {
  const [west, north] = [Math.floor(x), Math.floor(y)];
  return {
    ...{ x: west, y: north },
    ...{ w: Math.max(1, Math.ceil(x + w) - west), d: Math.max(1, Math.ceil(y + d) - north) },
  };
}

/** Height of the top of a wall under a thing, plates: where it is highest there, or where none of it is there, anywhere. */
function topOfRun(scene: Scene, relief: SurfaceRaster, run: Entity<'run'>, over: Over): number | null {
  const here = intersection(studsOver(over), relief);
  const foot =
    wallFoot(scene, relief, run) ??
    (here && highestUnderRun(relief, run, here)) ??
    highestUnderRun(relief, run, relief);
  return foot === null ? null : foot + run.height;
}

/**
 * Height a building stands on, plates: what it names, else the highest surface under it, with the jumpers that hold it half a
 * stud off; null where none of it is on the footprint.
 */
export function standsOn(
  scene: Scene,
  relief: SurfaceRaster,
  plot: Pick<Plot, 'x' | 'y' | 'w' | 'd' | 'turn'> &
    Partial<Pick<Plot, 'mount' | 'shape' | 'notches' | 'recesses'>> &
    StandFields,
): number | null {
  const heights = footHeights(relief, plot);
  let high: number | null = null;
  eachPlotSpan(plot, relief, (row, from, to) => {
    for (let column = from; column < to; column++) {
      const i = (row - relief.y) * relief.w + column - relief.x;
      if (relief.ground[i] !== OUTSIDE && (high === null || heights[i] > high)) high = heights[i];
    }
  });
  if (high === null) return null;
  return (namedFoot(scene, relief, plot, plotBounds(plot)) ?? high) + (halfOff(plot) ? JUMPER_PLATES : 0);
}

/** The studs of each row that the straight pieces of a wall or fence touch, row by row of each piece. */
export function eachRunSpan(
  run: Entity<'run'>,
  window: Rect,
  visit: (row: number, from: number, to: number) => void,
): void {
  for (const { from, to } of wallStraights(run))
    eachTouched(stripCorners(from, to, run.thick), window, visit);
}

/** Whether a wall takes studs of an area; on fences and hedges nothing stands. */
export function isOnWall(run: Entity<'run'>, area: Rect): boolean {
  let isOn = false;
  if (run.use === 'wall') eachWallStud(run, area, () => (isOn = true));
  return isOn;
}

/** Heights of the tops of all walls over a stud, plates. @param at studs, on the footprint */
export const wallTopsAt = (scene: Scene, relief: SurfaceRaster, at: { x: number; y: number }): number[] =>
  listOf(scene, 'run').flatMap(
    (run) => (isOnWall(run, studsOver(at)) ? topOfRun(scene, relief, run, at) : null) ?? [],
  );

/**
 * Height of what lies beside a thing at its own level, plates: in a cavity its floor, under decks the ground, else the
 * highest surface; the ground beyond them.
 * @param at studs, on the footprint
 */
export function floorBeside(
  scene: Scene,
  relief: SurfaceRaster & { slabs: readonly Slab[] },
  thing: StandFields,
  at: { x: number; y: number },
): number {
  const [x, y] = [Math.floor(at.x), Math.floor(at.y)];
  const i = (y - relief.y) * relief.w + x - relief.x;
  const on = standingOf(thing);
  const cavity = on?.kind === 'cavity' ? scene.cavity[on.id] : undefined;
  const isRoofed = relief.slabs.some(
    (slab) => slab.kind === 'cavity' && slab.id === cavity?.id && topAt(slab, x, y) !== NO_SLAB,
  );
  if (cavity) return isRoofed ? levelHeight(scene, cavity) : relief.height[i];
  return footHeights(relief, thing)[i];
}

/** What a building stands on: what it names, else the deck or bridge whose top is the surface under its middle, else the ground. */
export function baseOf(
  relief: SurfaceRaster & { slabs: readonly Slab[] },
  plot: Plot,
): { kind: 'ground' | BaseKind | 'way' | 'track'; id: string } {
  const on = standingOf(plot);
  if (on) return on.kind === 'ground' ? { kind: 'ground', id: '' } : on;
  const [x, y] = [Math.floor(plot.x + plot.w / 2), Math.floor(plot.y + plot.d / 2)];
  const slab = relief.slabs.findLast(
    (one) =>
      one.kind !== 'cavity' && topAt(one, x, y) === relief.surface[(y - relief.y) * relief.w + x - relief.x],
  );
  return slab ? { kind: slab.kind, id: slab.id } : { kind: 'ground', id: '' };
}

/**
 * The thing that a building is carried with because it stands on it: a deck that lifts off, a loose building, or a
 * building with parts that lift off. Null: it stands on the ground of its module, or on what is fixed to that.
 */
export function ridesOn(
  scene: Scene,
  relief: SurfaceRaster & { slabs: readonly Slab[] },
  plot: Plot,
): { kind: 'deck' | 'plot'; id: string } | null {
  let on = baseOf(relief, plot);
  for (let depth = 0; depth < MAX_STOREYS; depth++) {
    if (on.kind === 'deck') return scene.deck[on.id]?.loose ? { kind: 'deck', id: on.id } : null;
    const under = on.kind === 'plot' ? scene.plot[on.id] : undefined;
    if (!under) return null;
    if (under.mount === 'loose' || under.mount === 'turntable' || under.parts.length > 0)
      return { kind: 'plot', id: under.id };
    on = baseOf(relief, under);
  }
  return null;
}

/** The studs of each row that a plot's turned walls touch. */
export function eachPlotSpan(
  plot: Pick<Plot, 'x' | 'y' | 'w' | 'd' | 'turn'>,
  window: Rect,
  visit: (row: number, from: number, to: number) => void,
): void {
  eachTouched(wallCorners(plot), window, visit);
}
