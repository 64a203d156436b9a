import { intersection, studsIn, type Rect } from '../grid/index.ts';
import { listOf, mayCutAt, plotBounds, type Scene } from '../document/index.ts';
import { OUTSIDE, fixedGroundAt, indexAt, ownerAt, type Relief } from '../terrain/index.ts';
import { SQUARE_WITHIN, crossingsOf, slantsOver, stripsOf, type GridLine } from './crossing.ts';
import { CELL } from './problem.ts';

/**
 * What a seam crosses, with what a stud of it costs beyond one: cheap where an edge hides it, dear where it is seen
 * or hard to build. The costs are defaults of ours, no source; that seams follow walls, kerbs and shores, and that
 * track is parted squarely, is common practice.
 */
export const SEAM_COSTS = {
  edge: 0,
  step: 0,
  section: 0.25,
  flat: 1,
  way: 1.5,
  slope: 2,
  planting: 2.5,
  water: 2,
  slanted: 4,
  building: 6,
  track: 1,
  forbidden: 100,
} as const;
export type SeamOver = keyof typeof SEAM_COSTS;

export const SEAM_WORDS: Readonly<Record<SeamOver, string>> = {
  edge: 'wall, kerb or shore',
  step: 'level step',
  section: 'section border',
  flat: 'flat ground',
  way: 'way, crossed squarely',
  slope: 'slope',
  planting: 'planting',
  water: 'water',
  slanted: 'way, crossed aslant or along',
  building: 'building that may be cut',
  track: 'track, crossed squarely',
  forbidden: 'where none may be',
};

/** A difference of this many plates all along is a level step: a brick. */
const STEP = 3;

/** One piece of a possible seam: a line of 8 studs with what it lies over. */
export interface SeamPiece extends GridLine {
  over: SeamOver;
}

/** Tells of any piece of a line what it lies over. */
export function seamClassifier(scene: Scene, relief: Relief): (line: GridLine) => SeamOver {
  const strips = stripsOf(scene, relief);
  const sections = listOf(scene, 'section');
  const cuttable = listOf(scene, 'plot').filter(({ mayCut }) => mayCut);
  const boxes = strips.map(({ points, width }) => {
    const [xs, ys] = [points.map(({ x }) => x), points.map(({ y }) => y)];
    return {
      x: Math.min(...xs) - width,
      y: Math.min(...ys) - width,
      w: Math.max(...xs) - Math.min(...xs) + 2 * width,
      d: Math.max(...ys) - Math.min(...ys) + 2 * width,
    };
  });
  return (line) => {
    const about: Rect = line.upright
      ? { x: line.x - 1, y: line.y, w: 2, d: line.length }
      : { x: line.x, y: line.y - 1, w: line.length, d: 2 };
    const crossings = crossingsOf(
      strips.filter((_, i) => intersection(boxes[i], about)),
      line,
    );
    if (crossings.some(slantsOver)) return 'forbidden';
    for (const plot of cuttable) {
      const bounds = studsIn(plotBounds(plot));
      const shared = intersection(bounds, about);
      const across = line.upright ? line.x - bounds.x : line.y - bounds.y;
      if (!shared || across <= 0 || across >= (line.upright ? bounds.w : bounds.d)) continue;
      const allowed = line.upright ? mayCutAt(plot, 'x', line.x) : mayCutAt(plot, 'y', line.y);
      return allowed ? 'building' : 'forbidden';
    }
    if (crossings.some(({ kind }) => kind === 'track')) return 'track';
    const pairs = pairsAlong(relief, line);
    if (pairs.length === 0) return 'flat';
    // Along the middle of a track's bed no crossing reports it.
    const owners = pairs.map(({ a, b }) => [ownerAt(relief, a)?.kind, ownerAt(relief, b)?.kind]);
    if (owners.some(([a, b]) => a === 'track' && b === 'track')) return 'forbidden';
    if (crossings.some(({ kind, angle }) => kind === 'way' && angle > SQUARE_WITHIN)) return 'slanted';
    if (crossings.some(({ kind }) => kind === 'way')) return 'way';
    const inWay = ([a, b]: (string | undefined)[]) => a === 'way' && b === 'way';
    if (owners.filter(inWay).length > pairs.length / 2) return 'slanted';
    const grounds = pairs.map(({ a, b }) => [
      fixedGroundAt(scene, relief, a),
      fixedGroundAt(scene, relief, b),
    ]);
    if (grounds.some(([a, b]) => a === 'water' && b === 'water')) return 'water';
    if (owners.some(([a, b]) => [a, b].some((kind) => kind === 'planting' || kind === 'tree')))
      return 'planting';
    const steps = pairs.map(({ a, b }) => Math.abs(relief.height[a] - relief.height[b]));
    if (steps.every((step) => step >= STEP)) return 'step';
    if (grounds.every(([a, b]) => a !== b) || owners.every(([a, b]) => a === 'run' || b === 'run'))
      return 'edge';
    if (steps.some((step) => step > 0) || uneven(relief, pairs)) return 'slope';
    const border = sections.some(({ x, y, w, d }) =>
      line.upright
        ? (line.x === x || line.x === x + w) && line.y >= y && line.y + line.length <= y + d
        : (line.y === y || line.y === y + d) && line.x >= x && line.x + line.length <= x + w,
    );
    return border ? 'section' : 'flat';
  };
}

const uneven = (relief: Relief, pairs: readonly { a: number }[]) =>
  pairs.some(({ a }) => relief.height[a] !== relief.height[pairs[0].a]);

/** The studs on both sides of a line, as indices of the relief; where one is outside there is no pair. */
export function pairsAlong(
  relief: Relief,
  { x, y, upright, length }: GridLine,
): { at: number; a: number; b: number }[] {
  return Array.from({ length }, (_, at) => ({
    at,
    a: upright ? indexAt(relief, x - 1, y + at) : indexAt(relief, x + at, y - 1),
    b: upright ? indexAt(relief, x, y + at) : indexAt(relief, x + at, y),
  })).filter(({ a, b }) => a >= 0 && b >= 0 && relief.ground[a] !== OUTSIDE && relief.ground[b] !== OUTSIDE);
}

/** Every piece of 8 studs that could be a seam within the relief, on the lattice from a corner of it. */
export function seamPieces(
  scene: Scene,
  relief: Relief,
  corner: { x: number; y: number } = relief,
): SeamPiece[] {
  const judge = seamClassifier(scene, relief);
  const pieces: SeamPiece[] = [];
  const [w, d] = [relief.x + relief.w - corner.x, relief.y + relief.d - corner.y];
  for (const upright of [true, false])
    for (let y = upright ? 0 : CELL; y + (upright ? CELL : 0) <= d - (upright ? 0 : 1); y += CELL)
      for (let x = upright ? CELL : 0; x + (upright ? 0 : CELL) <= w - (upright ? 1 : 0); x += CELL) {
        const line = { x: corner.x + x, y: corner.y + y, upright, length: CELL };
        if (pairsAlong(relief, line).length > 0) pieces.push({ ...line, over: judge(line) });
      }
  return pieces;
}
