import { type Rect, boundsOfPoints } from '../grid/index.ts';
import {
  areaPieces,
  builtCorners,
  isBoxed,
  isRound,
  PAVEMENT_PLATES,
  pavementCorners,
  wallCorners,
  listOf,
  leaningSlices,
  outerCorners,
  outerPieces,
  signboardCorners,
  isOverhanging,
  wantedAt,
  type CharacterForm,
  type Kind,
  type Plot,
  type Scene,
  type SceneSpot,
  type StandFields,
  runHigh,
  wallStraights,
} from '../document/index.ts';
import { OUTSIDE } from './rasterize.ts';
import { membersOf, plantsOf } from './scatter.ts';
import type { Point } from './shape.ts';
import { blockCorners, hasBlocks, wallBlocks, type WallLayer } from './wallRuns.ts';
import { slabBoxes, type Slab } from './slab.ts';
import { stripCorners } from './strip.ts';
import { footHeights, namedFoot, standsOn, wallFoot, type SurfaceRaster } from './stand.ts';

// What stands in the scene as solid bodies: the one place that knows how far a thing reaches and from which height.

/** An outline on the plan between two heights; it may be no convex one. */
export interface Body {
  kind: Kind;
  id: string;
  /** Corners in order, studs; turned things are turned. */
  corners: readonly Point[];
  bounds: Rect;
  /** Plates above the datum: where it stands, where it begins to stand out over what is below, and its top. */
  ground: number;
  begins: number;
  top: number;
  /** Convex parts of it, where it is far from convex: a building with corners left out. */
  parts?: readonly (readonly Point[])[];
  /** It is the pavement before a building, a plate high. */
  isPavement?: true;
  /** What it is of a wall with arches, openings or a fence on it. */
  layer?: WallLayer;
  /** It takes a spot of a small scene and is no figure. */
  as?: Exclude<CharacterForm, 'figure'>;
}

/** The bodies of a building: its walls from the ground up, and what stands out over them. */
export function plotBodies(plot: Plot, ground: number): Body[] {
  const { id, height, overhangFrom } = plot;
  const out = isOverhanging(plot);
  const body = (corners: readonly Point[], begins: number, top = ground + height): Body => ({
    ...{ kind: 'plot', id, corners, ground, begins, top },
    bounds: boundsOfPoints(corners),
  });
  // Without an overhang the building itself may begin above the ground.
  const walls = body(builtCorners(plot), ground + (out ? 0 : overhangFrom));
  const paved = pavementCorners(plot);
  const pavement = paved
    ? [{ ...body(paved, ground, ground + PAVEMENT_PLATES), isPavement: true as const }]
    : [];
  if (plot.lean > 0)
    return [
      ...pavement,
      ...leaningSlices(plot).map(({ corners, from, to }) => body(corners, ground + from, ground + to)),
      ...(out ? [body(outerCorners(plot), ground + overhangFrom)] : []),
    ];
  const outer = out ? [body(outerCorners(plot), ground + overhangFrom)] : [];
  if (!isBoxed(plot) && !isRound(plot))
    return [
      { ...walls, parts: areaPieces(plot) },
      ...pavement,
      ...outer.map((one) => ({ ...one, parts: outerPieces(plot) })),
    ];
  return [walls, ...pavement, ...outer];
}

/** Height and width of a figure, plates and studs (about 40 mm, 12.5 plates, and 16 mm, from memory). */
const FIGURE = { height: 13, wide: 2 };
/** Height of a figure that sits or lies, plates (guesses of ours). */
const SITTING = 10;
const LYING = { height: 4, long: 5 };
/** Animals and vehicles, whose size nobody tells: guesses of ours. */
const OTHERS = { animal: { w: 2, d: 3, height: 6 }, vehicle: { w: 4, d: 8, height: 10 } } as const;

/** What takes a spot of a small scene: studs across and along where it looks, and plates. */
export function spotSize(
  form: CharacterForm,
  pose: SceneSpot['pose'],
): { w: number; d: number; height: number } {
  if (form !== 'figure') return OTHERS[form];
  if (pose === 'lying') return { w: FIGURE.wide, d: LYING.long, height: LYING.height };
  return { w: FIGURE.wide, d: FIGURE.wide, height: pose === 'sitting' ? SITTING : FIGURE.height };
}

/** What bodies are found in: the surfaces of a compiled scene, and what lies over air in it. */
export interface BodyGround extends SurfaceRaster {
  slabs: readonly Slab[];
}

/** Height of the ground, or of other heights of a relief, under a point, plates; beyond the footprint that of the nearest stud. */
function heightUnder(relief: SurfaceRaster, { x, y }: Point, heights = relief.surface): number {
  const column = Math.min(relief.w - 1, Math.max(0, Math.floor(x) - relief.x));
  const row = Math.min(relief.d - 1, Math.max(0, Math.floor(y) - relief.y));
  const i = row * relief.w + column;
  return i < 0 || i >= heights.length || relief.ground[i] === OUTSIDE ? 0 : heights[i];
}

/** Height on which something stands at a point, plates: what it names, else what is under it there. */
export const footAt = (scene: Scene, relief: SurfaceRaster, thing: StandFields, at: Point): number =>
  namedFoot(scene, relief, thing, at) ?? heightUnder(relief, at, footHeights(relief, thing));

/**
 * Everything that stands or hangs in a scene: decks, bridges and what carries them too. Walls stand from stretch to stretch, members of repeats and plants one by one;
 * what stands beyond the footprint has the ground of its nearest stud.
 */
export function bodiesOf(scene: Scene, relief: BodyGround): Body[] {
  const bodies: Body[] = [];
  const footOf = (thing: StandFields, at: Point) => footAt(scene, relief, thing, at);
  const stand = (
    kind: Kind,
    id: string,
    corners: Point[],
    at: Point,
    height: number,
    ground = heightUnder(relief, at),
    begins = ground,
    layer?: WallLayer,
  ) => {
    const bounds = boundsOfPoints(corners);
    bodies.push({
      kind,
      id,
      corners,
      bounds,
      ground,
      begins,
      top: begins + height,
      ...(layer ? { layer } : {}),
    });
  };
  const square = ({ x, y }: Point, wide: number): Point[] =>
    wallCorners({ x: x - wide / 2, y: y - wide / 2, w: wide, d: wide, turn: 0 });
  for (const plot of listOf(scene, 'plot'))
    bodies.push(
      ...plotBodies(
        plot,
        standsOn(scene, relief, plot) ??
          heightUnder(relief, { x: plot.x + plot.w / 2, y: plot.y + plot.d / 2 }),
      ),
    );
  for (const run of listOf(scene, 'run')) {
    const foot = wallFoot(scene, relief, run);
    for (const straight of wallStraights(run)) {
      const { from, to } = straight;
      const middle = midway(from, to);
      const on = foot ?? footOf(run, middle);
      if (!hasBlocks(run)) stand('run', run.id, stripCorners(from, to, run.thick), middle, runHigh(run), on);
      else
        for (const block of wallBlocks(run, straight)) {
          const corners = blockCorners(run, straight, block);
          stand('run', run.id, corners, middle, block.high - block.low, on, on + block.low, block.of);
        }
    }
  }
  for (const repeat of listOf(scene, 'repeat'))
    for (const member of membersOf(repeat, listOf(scene, 'module')).members) {
      const [u, v] = [
        (Math.cos(member.angle) * repeat.length) / 2,
        (Math.sin(member.angle) * repeat.length) / 2,
      ];
      const ends = [
        { x: member.x - u, y: member.y - v },
        { x: member.x + u, y: member.y + v },
      ] as const;
      stand('repeat', repeat.id, stripCorners(ends[0], ends[1], 1), member, repeat.height);
    }
  for (const planting of listOf(scene, 'planting'))
    for (const plant of plantsOf(planting))
      stand('planting', planting.id, square(plant, plant.crown), plant, plant.height);
  for (const tree of listOf(scene, 'tree'))
    stand('tree', tree.id, square(tree, tree.crown), tree, tree.height, footOf(tree, tree));
  for (const figure of listOf(scene, 'figure')) {
    if (figure.spots.length === 0)
      stand('figure', figure.id, square(figure, FIGURE.wide), figure, FIGURE.height, footOf(figure, figure));
    for (const spot of figure.spots) {
      const { form } = wantedAt(scene, spot);
      const at = { x: figure.x + spot.dx, y: figure.y + spot.dy };
      const { w, d, height } = spotSize(form, spot.pose);
      const place = { x: at.x - w / 2, y: at.y - d / 2, w, d, turn: spot.facing };
      stand('figure', figure.id, wallCorners(place), at, height, footOf(figure, at) + spot.up);
      if (form !== 'figure') bodies[bodies.length - 1].as = form;
    }
  }
  for (const sign of listOf(scene, 'signboard')) {
    const foot = footOf(sign, sign);
    // Its post is part of it, so that nothing else stands there.
    stand('signboard', sign.id, signboardCorners(sign), sign, sign.height, foot, foot + sign.up);
  }
  for (const flag of listOf(scene, 'flag')) stand('flag', flag.id, square(flag, 1), flag, flag.height);
  for (const slab of relief.slabs)
    if (slab.kind !== 'cavity')
      for (const part of ['slab', 'supports'] as const)
        for (const { under, top, ...bounds } of slabBoxes(slab, part))
          bodies.push({
            ...{ kind: slab.kind, id: slab.id, bounds, ground: under, begins: under, top },
            corners: wallCorners({ ...bounds, turn: 0 }),
          });
  return bodies;
}

const midway = (a: Point, b: Point): Point => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });
