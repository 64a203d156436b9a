import { MM_PER_PLATE, MM_PER_STUD, centreOf, hullOf, quadOf } from '../grid/index.ts';
import { CORNERS, listOf, wallCorners, type Plot, type Scene } from '../document/index.ts';
import type { Point } from './shape.ts';
import { standsOn, type SurfaceRaster } from './stand.ts';

// What a moving thing passes through: gates and doors swing, wagons slide, boats and stages rise, ramps are let down.

/** Largest step between two places of a swinging thing, degrees: between them its far corner leaves the chord by less than a thousandth of its reach. */
const STEP = 2;

/** One place of a moving thing on its way: its walls there, and the heights it fills, plates above datum. */
export interface SweepStep {
  /** How far it has moved: degrees, studs or plates, as its kind of moving is measured. */
  at: number;
  corners: readonly Point[];
  begins: number;
  top: number;
}

/** A moving plot's way from where it stands to where it goes. */
export interface Sweep {
  plot: Plot & { id: string };
  /** How far it moves in all, and in which unit. */
  of: number;
  unit: '°' | 'studs' | 'plates';
  foot: number;
  steps: SweepStep[];
}

/** The places of a moving plot, or one on a turntable, from rest to the end of its range. @param foot what it stands on, plates */
export function sweepOf(plot: Plot & { id: string }, foot: number): Sweep | null {
  const { moves, height, swingBy, slideX, slideY, riseBy } = plot;
  const rest = wallCorners(plot);
  const step = (at: number, corners: readonly Point[], up = 0): SweepStep => ({
    ...{ at, corners, begins: foot + up, top: foot + up + height },
  });
  if (moves === 'swing') {
    const count = Math.max(1, Math.ceil(Math.abs(swingBy) / STEP));
    const hinge = wallCorners({ ...plot, shape: 'box', notches: [], recesses: [] })[
      CORNERS.indexOf(plot.hinge)
    ];
    return {
      ...{ plot, of: Math.abs(swingBy), unit: '°', foot },
      steps: Array.from({ length: count + 1 }, (_, i) =>
        step((Math.abs(swingBy) * i) / count, turned(rest, hinge, (swingBy * i) / count)),
      ),
    };
  }
  if (moves === 'slide') {
    const of = Math.hypot(slideX, slideY);
    const count = Math.max(1, Math.ceil(of));
    return {
      ...{ plot, of, unit: 'studs', foot },
      steps: Array.from({ length: count + 1 }, (_, i) =>
        step(
          (of * i) / count,
          rest.map(({ x, y }) => ({ x: x + (slideX * i) / count, y: y + (slideY * i) / count })),
        ),
      ),
    };
  }
  if (moves === 'lower') return letDown(plot, foot);
  if (moves === 'none' && plot.mount === 'turntable') {
    const middle = centreOf(plot);
    const count = 360 / STEP;
    return {
      ...{ plot, of: 360, unit: '°', foot },
      steps: Array.from({ length: count + 1 }, (_, i) => step(STEP * i, turned(rest, middle, STEP * i))),
    };
  }
  if (moves !== 'rise') return null;
  return {
    ...{ plot, of: riseBy, unit: 'plates', foot },
    steps: Array.from({ length: riseBy + 1 }, (_, i) => step(i, rest, i)),
  };
}

/**
 * A ramp or drawbridge that is let down about the foot of one side. At each angle it is the box that holds the edge it is
 * let down by: over all angles the boxes fill the quarter of a circle that its height sweeps.
 */
function letDown(plot: Plot & { id: string }, foot: number): Sweep {
  const { x, y, w, d, turn, height, downTo, downBy } = plot;
  const tall = (height * MM_PER_PLATE) / MM_PER_STUD;
  const count = Math.max(1, Math.ceil(downBy / STEP));
  const middle = centreOf(plot);
  return {
    ...{ plot, of: downBy, unit: '°', foot },
    steps: Array.from({ length: count + 1 }, (_, i): SweepStep => {
      const at = (downBy * i) / count;
      const angle = (at * Math.PI) / 180;
      const out = tall * Math.sin(angle);
      const area = {
        n: { x, y: y - out, w, d: d + out },
        s: { x, y, w, d: d + out },
        w: { x: x - out, y, w: w + out, d },
        e: { x, y, w: w + out, d },
      }[downTo];
      // Lying down it is as high as it is thick: a plate at least.
      const top = foot + Math.max(1, Math.round(height * Math.cos(angle)));
      return { at, corners: turned(quadOf(area), middle, turn), begins: foot, top };
    }),
  };
}

function turned(corners: readonly Point[], about: Point, degrees: number): Point[] {
  const angle = (degrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return corners.map(({ x, y }) => ({
    x: about.x + (x - about.x) * cos - (y - about.y) * sin,
    y: about.y + (x - about.x) * sin + (y - about.y) * cos,
  }));
}

/** The sweeps of all plots that move, or turn on a turntable, and stand on the footprint. */
export const sweepsOf = (scene: Scene, relief: SurfaceRaster): Sweep[] =>
  listOf(scene, 'plot').flatMap((plot) => {
    if (plot.moves === 'none' && plot.mount !== 'turntable') return [];
    const foot = standsOn(scene, relief, plot);
    const sweep = foot === null ? null : sweepOf(plot, foot);
    return sweep ? [sweep] : [];
  });

/** Outlines that only touch do not overlap, studs: numbers carry noise in their last digits. */
const TOUCH = 1e-6;

/**
 * Whether the convex hulls of two outlines share more than their border (separating axes; Gottschalk, Lin, Manocha 1996).
 */
export function convexOverlap(a: readonly Point[], b: readonly Point[]): boolean {
  const [p, q] = [a, b].map((corners) => hullOf(corners).map((index) => corners[index]));
  for (const [one, other] of [
    [p, q],
    [q, p],
  ])
    for (let i = 0; i < one.length; i++) {
      const [p, q] = [one[i], one[(i + 1) % one.length]];
      const axis = { x: p.y - q.y, y: q.x - p.x };
      const long = Math.hypot(axis.x, axis.y);
      if (long === 0) continue;
      const along = (points: readonly Point[]) => points.map(({ x, y }) => (x * axis.x + y * axis.y) / long);
      const [own, its] = [along(one), along(other)];
      if (Math.max(...own) <= Math.min(...its) + TOUCH || Math.max(...its) <= Math.min(...own) + TOUCH)
        return false;
    }
  return true;
}
