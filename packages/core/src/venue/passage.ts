import { MM, MM_PER_PLATE, outerSize } from '../grid/index.ts';
import type { Passage, Scene } from '../document/index.ts';
import { OUTSIDE, loadsOf, type Relief } from '../terrain/index.ts';

/** What is carried: a rigid box kept upright, mm. `short` and `long` are its sides on the floor. */
export interface Box {
  short: number;
  long: number;
  height: number;
}

/**
 * The longest rectangle of a width that passes a right-angled corner between corridors of widths a and b, all in mm.
 *
 * Either it is pushed round without turning (its long side across one corridor), or it turns: with its outer long
 * side touching both outer walls at the angle θ, the inner corner stands a·sinθ + b·cosθ − L·sinθ·cosθ away from
 * that side, which must not be less than the width w. The longest is the least of (a·sinθ + b·cosθ − w)/(sinθ·cosθ)
 * over the quarter turn; for w = 0 that is (a^⅔ + b^⅔)^(3/2).
 * @returns 0 when the width itself passes neither corridor
 */
export function longestRoundCorner(a: number, b: number, width: number): number {
  const pushed = Math.max(width <= a ? b : 0, width <= b ? a : 0);
  if (width > Math.min(a, b)) return pushed >= width ? pushed : 0;
  const at = (angle: number) => {
    const [sin, cos] = [Math.sin(angle), Math.cos(angle)];
    return (a * sin + b * cos - width) / (sin * cos);
  };
  // The curve has one valley: find its neighbourhood, then close in on it.
  const step = Math.PI / 2 / 64;
  let middle = step;
  for (let angle = step; angle < Math.PI / 2 - step / 2; angle += step)
    if (at(angle) < at(middle)) middle = angle;
  let [low, high] = [Math.max(1e-6, middle - step), Math.min(Math.PI / 2 - 1e-6, middle + step)];
  for (let i = 0; i < 60; i++) {
    const [p, q] = [low + (high - low) / 3, high - (high - low) / 3];
    if (at(p) < at(q)) high = q;
    else low = p;
  }
  return Math.max(pushed, at((low + high) / 2));
}

/**
 * The longest box of a width and height that passes, mm: Infinity when its length does not matter, 0 when it does
 * not pass at all. A box goes upright and level, either way round.
 * - door: the width is what counts;
 * - corner: `longestRoundCorner`;
 * - stair: carried level under a headroom measured over the steps, so that length × tan(pitch) + height ≤ headroom;
 *   with a width after a turn, its landing is a corner too;
 * - lift, vehicle: straight in through the opening, and it must lie inside: never put in aslant.
 */
export function longestFor(passage: Passage, width: number, height: number): number {
  const { kind, width: clear, height: headroom, width2, pitch, insideW, insideD, insideH } = passage;
  if (height > headroom) return 0;
  if (kind === 'door') return width <= clear ? Infinity : 0;
  if (kind === 'corner') return longestRoundCorner(clear, width2 ?? clear, width);
  if (kind === 'stair') {
    if (width > clear) return 0;
    const level = pitch > 0 ? (headroom - height) / Math.tan((pitch * Math.PI) / 180) : Infinity;
    return Math.min(level, width2 === null ? Infinity : longestRoundCorner(clear, width2, width));
  }
  if (insideH !== null && height > insideH) return 0;
  const across = Math.min(clear, insideW ?? Infinity);
  const deep = insideD ?? Infinity;
  const longWaysIn = width <= across ? deep : 0;
  const broadsideIn = width <= deep ? across : 0;
  return Math.max(longWaysIn, broadsideIn);
}

/** Whether a box passes, and by which of its measures it fails first. */
export function evaluatePassage(
  passage: Passage,
  box: Box,
): { passes: true } | { passes: false; by: 'height' | 'width' | 'length'; has: number; limit: number } {
  const longest = longestFor(passage, box.short, box.height);
  if (longest >= box.long - 1e-6) return { passes: true };
  const tallest = Math.min(passage.height, passage.insideH ?? Infinity);
  if (box.height > tallest) return { passes: false, by: 'height', has: box.height, limit: tallest };
  const widest = widestOf(passage);
  if (box.short > widest) return { passes: false, by: 'width', has: box.short, limit: widest };
  return { passes: false, by: 'length', has: box.long, limit: Math.max(0, longest) };
}

/** How much room a passage leaves a box in the measure that is tightest, mm; negative: how much it is too large. */
export function clearanceOf(passage: Passage, box: Box): number {
  const beside = widestOf(passage) - box.short;
  const above = Math.min(passage.height, passage.insideH ?? Infinity) - box.height;
  // A module too wide or too tall passes at no length: that is reported first.
  if (beside < 0 || above < 0) return Math.min(beside, above);
  const longest = longestFor(passage, box.short, box.height);
  return Math.min(beside, above, Number.isFinite(longest) ? longest - box.long : Infinity);
}

/** The widest narrow side that passes at all, mm. */
export function widestOf({ kind, width, width2, insideW, insideD }: Passage): number {
  if (kind === 'corner') return Math.max(width, width2 ?? width);
  if (kind === 'lift' || kind === 'vehicle')
    return Math.min(insideD ?? Infinity, Math.min(width, insideW ?? Infinity));
  return width;
}

/** Of vehicles one after another on the way that with the highest score, since a thing travels in one of them; all else. */
function withOneVehicle(way: readonly Passage[], scoreOf: (vehicle: Passage) => number): Passage[] {
  const steps: Passage[] = [];
  for (const passage of way) {
    const before = steps.at(-1);
    if (passage.kind !== 'vehicle' || before?.kind !== 'vehicle') steps.push(passage);
    else if (scoreOf(passage) > scoreOf(before)) steps[steps.length - 1] = passage;
  }
  return steps;
}

/** The passages that a box goes through: of vehicles one after another it goes in the one that leaves most room. */
export const passagesFor = (way: readonly Passage[], box: Box): Passage[] =>
  withOneVehicle(way, (vehicle) => clearanceOf(vehicle, box));

/** The first passage of the way that stops a box; null: it gets through. */
export const stopperOf = (way: readonly Passage[], box: Box): Passage | null =>
  passagesFor(way, box).find((passage) => !evaluatePassage(passage, box).passes) ?? null;

/** Longest module of a given width, and the passage that limits it. */
export interface ModuleLimit {
  /** Studs, on steps of 8. */
  short: number;
  long: number;
  /** The passage that stops a longer one; null: the cap does. */
  stops: Passage | null;
}

/** The longest module looked for, studs: 1.5 m between two carriers (a default of ours, no source). */
export const CARRY_STUDS = 192;

/** How tall the scene is carried, mm: its tallest stud with what is fixed to it; what lifts off is off. */
export function carriedHeight(scene: Scene, relief: Relief): number {
  const { top } = loadsOf(scene, relief);
  let highest = 0;
  for (let i = 0; i < top.length; i++) if (relief.ground[i] !== OUTSIDE) highest = Math.max(highest, top[i]);
  return highest * MM_PER_PLATE;
}

/** Steps of module sizes, studs. */
const STEP = 8;

/**
 * What the way lets through, for each narrow side in steps of 8 studs: the largest modules of all.
 * @param height of a module as carried, mm
 * @param cap no module is longer, studs (what one can carry, or the longest one wants)
 */
export function moduleLimits(way: readonly Passage[], height: number, cap: number): ModuleLimit[] {
  const limits: ModuleLimit[] = [];
  for (let short = STEP; short <= cap; short += STEP) {
    let long = cap - (cap % STEP);
    let stops: Passage | null = null;
    const width = outerSize(short) / MM;
    for (const passage of withOneVehicle(way, (vehicle) => longestFor(vehicle, width, height))) {
      const longest = longestFor(passage, width, height);
      while (long > 0 && outerSize(long) / MM > longest) {
        long -= STEP;
        stops = passage;
      }
    }
    if (long < short) break;
    limits.push({ short, long, stops });
  }
  return limits;
}

/** The largest module the way lets through, with the passage that forbids a larger one. */
export interface LargestModule {
  short: number;
  long: number;
  /** The tightest passage; null when nothing but the cap stops a larger one. */
  tightest: Passage | null;
  /** In words: which size would not pass which passage. */
  reason: string;
}

/** The module of the largest area among `moduleLimits`, the squarer one of two. Null when not even 8 × 8 passes. */
export function largestModule(way: readonly Passage[], height: number, cap: number): LargestModule | null {
  const limits = moduleLimits(way, height, cap);
  if (limits.length === 0) return null;
  const best = limits.reduce((a, b) => (b.short * b.long >= a.short * a.long ? b : a));
  const stopper = (short: number, long: number) =>
    stopperOf(way, { short: outerSize(short) / MM, long: outerSize(long) / MM, height });
  const [wider, longer] = [
    [best.short + STEP, Math.max(best.long, best.short + STEP)],
    [best.short, best.long + STEP],
  ];
  const size = best.long + STEP <= cap && stopper(longer[0], longer[1]) ? longer : wider;
  const tightest = best.short + STEP > cap && size === wider ? null : stopper(size[0], size[1]);
  return {
    short: best.short,
    long: best.long,
    tightest,
    reason: tightest
      ? `${best.long} × ${best.short} studs, because ${size[1]} × ${size[0]} (${Math.round(outerSize(size[1]) / MM)} × ${Math.round(outerSize(size[0]) / MM)} mm) does not pass the ${tightest.name}.`
      : `${best.long} × ${best.short} studs: the way lets everything of that length through.`,
  };
}
