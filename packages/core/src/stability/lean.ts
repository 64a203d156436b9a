import { MM_PER_PLATE, MM_PER_STUD } from '../grid/index.ts';
import { builtRect, footStuds, type Plot } from '../document/index.ts';
import { isLoose, leanAcross, offBase, type PlotMass } from '../terrain/index.ts';
import { shareOfJoint } from './joints.ts';

// Buildings that lean: what their foot must hold, and how many ties they want.

/** Longest stretch of a leaning building without a rigid tie, studs (common practice: a tie each 8 to 10, no source). */
export const MAX_UNTIED = 10;

/** A leaning building in numbers. */
export interface LeanCard {
  /** How far its top is off its foot, studs. */
  out: number;
  /** Its length along the slope, studs. */
  length: number;
  /** Ties along it as planned, and how many it wants at least. */
  ties: number;
  wanted: number;
  /** The share of its foot's hold that it needs; 0: it rests; Infinity: it stands loose and its mass is beyond its foot. */
  share: number;
}

/**
 * A leaning building's numbers; null for one that stands upright.
 * @param weight its mass and the height of its centre
 * @param hold of one stud, grams; all studs of its foot hold where it is pinned, none where it stands loose
 */
export function leanCard(plot: Plot, weight: PlotMass, hold: number): LeanCard | null {
  if (plot.lean === 0) return null;
  const built = builtRect(plot);
  const { w, d } = built;
  const top = leanAcross(plot, plot.height);
  const off = offBase(plot, built, weight);
  const length = (plot.height * MM_PER_PLATE) / MM_PER_STUD / Math.cos((plot.lean * Math.PI) / 180);
  const { grams } = weight;
  return {
    ...{ out: Math.hypot(top.x, top.y), length },
    ties: plot.tieEvery === null ? 0 : tiesAlong(length, plot.tieEvery),
    wanted: tiesAlong(length, MAX_UNTIED),
    share: shareOfJoint(
      { x: 0, y: 0, w, d, studs: isLoose(plot) ? 0 : footStuds(plot) },
      { grams, mx: grams * (w / 2 + off.x), my: grams * (d / 2 + off.y) },
      hold,
    ),
  };
}

/** Ties along a length with one each so many studs: none at its ends. */
export const tiesAlong = (length: number, every: number): number =>
  Math.max(0, Math.ceil(length / every - 1e-9) - 1);
