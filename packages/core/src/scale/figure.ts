import { MM_PER_PLATE } from '../grid/index.ts';
import { FIGURE_MM, FIGURE_WIDTH_MM, NEM_010 } from './ratio.ts';
import { BREADTH, STATURE } from './trueSizes.ts';

/** The ratio 1 : n that a figure has by its height. */
export const FIGURE_RATIO = (STATURE * 1000) / FIGURE_MM;

/** A way to choose a scale: what it rests on, the ratio it leads to, and the ratios in use. */
export interface School {
  word: string;
  rests: string;
  ratio: number;
  range: readonly [number, number];
}

/** The schools of scale. Ranges are common practice; the rail ratios are NEM 010's nominal ones. */
export const SCHOOL_LIST: Readonly<Record<'height' | 'width' | 'rail' | 'small' | 'eye', School>> = {
  height: {
    word: 'By figure height',
    rests: `A figure ${FIGURE_MM} mm tall stands for ${STATURE} m.`,
    ratio: FIGURE_RATIO,
    range: [42, 48],
  },
  width: {
    word: 'By figure width',
    rests: `A figure ${FIGURE_WIDTH_MM} mm wide stands for ${BREADTH} m across: interiors come out right.`,
    ratio: (BREADTH * 1000) / FIGURE_WIDTH_MM,
    range: [28, 32],
  },
  rail: {
    word: 'Model-rail ratio',
    rests: `A nominal scale of NEM 010: ${NEM_010.map((ratio) => `1:${ratio}`).join(', ')}.`,
    ratio: 45,
    range: [NEM_010[0], NEM_010[NEM_010.length - 1]],
  },
  small: {
    word: 'Small scale',
    rests: 'No figures: whole towns and ships, from 1:100 to 1:650.',
    ratio: 200,
    range: [100, 650],
  },
  eye: {
    word: 'By eye',
    rests: 'A ratio of your own, stated so that others can follow it.',
    ratio: 45,
    range: [1, 2000],
  },
};

/** How high furniture should stand against the figure, as shares of its height, with the reason. */
export interface FurnitureRule {
  least: number;
  most: number;
  why: string;
}

/** An inch, m. */
const INCH = 0.0254;

/**
 * Limits as shares of the stature a figure stands for. Seats: 17 to 19 in (2010 ADA Standards, 903.5); tables and
 * counters: 28 to 34 in (902.3); service counters: at most 36 in (904.4.1) and not below a table; doorways: at
 * least 80 in clear (307.4). A seat must never reach the chest, about 0.72 of the stature (from memory).
 */
export const FURNITURE_RULES: Readonly<Record<'seat' | 'table' | 'counter' | 'doorway', FurnitureRule>> = {
  seat: {
    least: (17 * INCH) / STATURE,
    most: (19 * INCH) / STATURE,
    why: 'seats of 17 to 19 in, 2010 ADA Standards 903.5',
  },
  table: {
    least: (28 * INCH) / STATURE,
    most: (34 * INCH) / STATURE,
    why: 'tables of 28 to 34 in, 2010 ADA Standards 902.3',
  },
  counter: {
    least: (28 * INCH) / STATURE,
    most: (42 * INCH) / STATURE,
    why: 'counters of up to 36 in for all (2010 ADA Standards 904.4.1), bars of up to 42 in (from memory)',
  },
  doorway: {
    least: (80 * INCH) / STATURE,
    most: 1.6,
    why: 'a clear height of 80 in, 2010 ADA Standards 307.4',
  },
};
/** Height of the chest over the stature (from memory): no seat may reach it. */
export const CHEST = 0.72;

export interface FurnitureJudged {
  /** Height over the figure's height. */
  share: number;
  verdict: 'fits' | 'low' | 'high';
  /** The heights in plates that fit, whole; `least` above `most` when the lattice has none between. */
  least: number;
  most: number;
  /** A seat that reaches the chest. */
  chest: boolean;
}

/**
 * Judges a piece of furniture against a standing figure rather than against the display's ratio, because a figure
 * is what stands beside it. One plate of grace either way: the lattice has no finer step.
 * @param plates its height as built
 */
export function judgeFurniture(
  use: 'seat' | 'table' | 'counter' | 'doorway',
  plates: number,
): FurnitureJudged {
  const { least, most } = FURNITURE_RULES[use];
  const inPlates = (share: number) => (share * FIGURE_MM) / MM_PER_PLATE;
  const low = Math.floor(inPlates(least));
  const high = Math.ceil(inPlates(most));
  const share = (plates * MM_PER_PLATE) / FIGURE_MM;
  return {
    share,
    verdict: plates < low ? 'low' : plates > high ? 'high' : 'fits',
    least: low,
    most: high,
    chest: use === 'seat' && share >= CHEST,
  };
}
