import { expose, transfer } from 'comlink';
import { RULES, RuleEvaluator, type EvaluatedFinding } from '@quarry/core/findings';
import {
  adoptCutting,
  arrangementOf,
  byHand,
  costOf,
  cutProblemOf,
  seamRemedies,
  moduleLoads,
  neighboursOf,
  rimsOf,
  seamClassifier,
  seamSheet,
  seamState,
  type Arrangement,
  type Cutting,
  type HandAct,
  type SeamRemedy,
  type ModuleLoad,
  type SceneProblem,
  type SeamSheet,
  type SeamState,
} from '@quarry/core/cut';
import { writePagePlan } from '@quarry/core/formats';
import { buildUp, freeModule, type BuildUp, type Freed } from '@quarry/core/assembly';
import type { Netted } from '@quarry/core/materials';
import { intersection, type Rect } from '@quarry/core/grid';
import {
  compile,
  compileRelief,
  contoursOf,
  loadsOf,
  recompile,
  type Compiled,
  type Contour,
  type LoosePiece,
  type MassRaster,
  type Relief,
} from '@quarry/core/terrain';
import {
  displayOf,
  emptyScene,
  reduce,
  withDelta,
  type Change,
  type Delta,
  type Scene,
} from '@quarry/core/document';
import { outlook, type OutlookAnswer } from '@quarry/core/progress';
import { tableLoads, type TableLoad } from '@quarry/core/venue';
import { bestMoves, reachOf, type TableMove, type Reach } from '@quarry/core/reach';

/** A square of the relief with its contours: redrawn when something in it changes. */
export interface Tile extends Rect {
  contours: Contour[];
}

/** The compiled ground and the tiles that are not as they were; `whole`: these are all there are. */
export interface GroundStep {
  relief: Relief;
  tiles: Tile[];
  whole: boolean;
}

/** Reach and findings of a scene. */
export interface Judgement {
  reach: Reach;
  findings: EvaluatedFinding[];
  /** How the number of each rule is made, by rule: the rules themselves stay in the worker. */
  basis: Readonly<Record<string, string>>;
}

/** An act by hand with what it costs before and after. */
export type HandAnswer =
  | { ok: true; changes: Change[]; words: string; before: number; after: number }
  | { ok: false; error: string };

/** A seam as the list of seams shows it. */
export interface SeamEntry {
  sheet: SeamSheet;
  state: SeamState;
  mends: SeamRemedy[];
}

const BASIS = Object.fromEntries(RULES.map(({ id, basis }) => [id, basis]));
/** Height of the names on a small plan, mm of the drawing. */
const SMALL_PLAN_TEXT = 30;
/** Side of a tile, studs. */
const TILE = 32;

/** This worker's own copy of the scene, kept up by what changes. */
let scene = emptyScene();
let compiled: Compiled | null = null;

/** Takes in what changed. @returns where the relief may differ; null: everywhere */
function follow(delta: readonly Delta[]): readonly Rect[] | null {
  scene = withDelta(scene, delta);
  const before = compiled;
  // Until a scene has compiled, the next one is compiled whole.
  compiled = null;
  if (!before) {
    compiled = compile(scene);
    return null;
  }
  const step = recompile(before, scene);
  ({ compiled } = step);
  return step.changed;
}

function tilesOf(relief: Relief, changed: readonly Rect[] | null): Tile[] {
  const tiles: Tile[] = [];
  for (let y = relief.y; y < relief.y + relief.d; y += TILE)
    for (let x = relief.x; x < relief.x + relief.w; x += TILE) {
      const square = {
        x,
        y,
        w: Math.min(TILE, relief.x + relief.w - x),
        d: Math.min(TILE, relief.y + relief.d - y),
      };
      // A tile draws the edges towards its east and south neighbours too.
      const near = { x: x - 1, y: y - 1, w: square.w + 2, d: square.d + 2 };
      if (changed && !changed.some((rect) => intersection(rect, near))) continue;
      tiles.push({ ...square, contours: contoursOf(relief, square) });
    }
  return tiles;
}

const evaluator = new RuleEvaluator();
/** The ground's mass as it was counted last; null until it is. */
let mass: MassRaster | null = null;
let rows: readonly Netted[] | null = null;
let weighed: { from: Relief; mass: MassRaster; relief: Relief } | null = null;

/** The compiled ground of the followed scene, with its mass as counted last: one object for as long as both hold. */
function followed(): Relief {
  compiled ??= compile(scene);
  const { relief } = compiled;
  const counted = countedMass();
  if (!counted) return relief;
  if (weighed?.from !== relief || weighed.mass !== counted)
    weighed = { from: relief, mass: counted, relief: { ...relief, counted } };
  return weighed.relief;
}

/** The ground's mass as counted last; null while it belongs to a relief of another size. */
const countedMass = () =>
  mass && compiled && mass.grams.length === compiled.relief.height.length ? mass : null;

/** The judge of the scene's seams, made once for each ground: modules do not change it. */
function judgeOfSeams(): ReturnType<typeof seamClassifier> {
  const relief = followed();
  if (seamsJudged?.relief !== relief) seamsJudged = { relief, judge: seamClassifier(scene, relief) };
  return seamsJudged.judge;
}
let seamsJudged: { relief: Relief; judge: ReturnType<typeof seamClassifier> } | null = null;

const worker = {
  /** The ground after a change: asked of one worker, so that no judging stands in its way. */
  ground(delta: readonly Delta[]): GroundStep {
    const changed = follow(delta);
    if (!compiled) throw new Error('the ground has not been compiled');
    const own = compiled.relief;
    const relief = {
      ...own,
      height: own.height.slice(),
      ground: own.ground.slice(),
      top: own.top.slice(),
      owner: own.owner.slice(),
    };
    const tiles = tilesOf(own, changed);
    const arrays = [relief.height, relief.ground, relief.top, relief.owner];
    const lines = tiles.flatMap(({ contours }) => contours.flatMap((contour) => contour.lines));
    return transfer(
      { relief, tiles, whole: changed === null },
      [...arrays, ...lines].map(({ buffer }) => buffer),
    );
  },
  /** Evaluates the scene after a change, in a second worker. */
  judge(delta: readonly Delta[], today: string): Judgement {
    follow(delta);
    compiled ??= compile(scene);
    const counted = countedMass();
    const { relief } = compiled;
    const findings = evaluator.evaluate(scene, { today, relief, counted, ...(rows ? { rows } : {}) });
    const reach = evaluator.reach();
    const distance = reach.distance.slice();
    return transfer({ reach: { ...reach, distance }, findings, basis: BASIS }, [distance.buffer]);
  },
  /** Takes the ground's mass as it was counted piece by piece, and what its pieces may only come from kits or own stock. */
  weigh(counted: MassRaster, bound: readonly Netted[]): void {
    mass = counted;
    rows = bound;
  },
  /** The ground of a scene that is not the one followed. */
  groundOf(of: Scene): GroundStep {
    const relief = compileRelief(of);
    return { relief, tiles: tilesOf(relief, null), whole: true };
  },
  /** When a scene will be done, with odds. */
  outlook: (of: Scene, day: string, how: Parameters<typeof outlook>[2]): OutlookAnswer =>
    outlook(of, day, how),
  /** A plan of a scene as a picture (SVG), some places pointed out. */
  pagePlan: (of: Scene, changed: readonly Rect[]): string =>
    writePagePlan(of, compileRelief(of), { textSize: SMALL_PLAN_TEXT, changed }),
  /** The reach in a place one only looks at. */
  reach: (of: Scene): Reach => reachOf(of, compileRelief(of)),
  /** The cutting problem of the followed scene. */
  problem: (): SceneProblem => cutProblemOf(scene, followed()),
  /** What the modules of the followed scene come to. */
  arrangement: (): Arrangement => arrangementOf(scene, followed(), judgeOfSeams()),
  /**
   * What modules and tables carry in a place, and whether the ground is counted or still estimated.
   * @param place whose tables it stands on
   */
  loads(place: string | null): {
    modules: ModuleLoad[];
    tables: TableLoad[];
    loose: readonly LoosePiece[];
    counted: boolean;
  } {
    const relief = followed();
    const display = displayOf(scene);
    const there = { ...scene, display: { [display.id]: { ...display, place } } };
    return {
      modules: moduleLoads(there, relief),
      tables: tableLoads(there, relief),
      loose: loadsOf(there, relief).pieces,
      counted: relief.counted !== undefined,
    };
  },
  /** What another cutting of it would come to. */
  alternative(cutting: Cutting, origin: { x: number; y: number }): Arrangement | null {
    const taken = reduce(scene, adoptCutting(scene, cutting, origin));
    return taken.ok ? arrangementOf(taken.scene, followed(), judgeOfSeams()) : null;
  },
  /** What an act by hand would change, and the cost before and after; or why it cannot be. */
  byHand(act: HandAct): HandAnswer {
    const hand = byHand(scene, act);
    if (!hand.ok) return hand;
    const done = reduce(scene, hand.changes);
    if (!done.ok) return { ok: false, error: done.refusal.sentence };
    const judge = judgeOfSeams();
    const [before, after] = [scene, done.scene].map(
      (each) =>
        costOf(each, followed(), judge).cost.total + rimsOf(each).reduce((sum, { cost }) => sum + cost, 0),
    );
    return { ...hand, before, after };
  },
  /** Every seam with how it stands. */
  seams(): SeamEntry[] {
    const relief = followed();
    return neighboursOf(scene).map((neighbours) => {
      const seam = scene.seam[neighbours.id];
      const sheet = seamSheet(scene, relief, neighbours);
      return { sheet, state: seamState(seam, sheet), mends: seam ? seamRemedies(seam, sheet) : [] };
    });
  },
  /** The order of building up, by where one can stand. */
  order(): BuildUp {
    const relief = followed();
    return buildUp(scene, relief, reachOf(scene, relief));
  },
  free: (id: string): Freed | null => freeModule(scene, reachOf(scene, followed()), id),
  /** The rearrangements of the room that bring most within reach. */
  moves: (of: Scene): TableMove[] => bestMoves(of),
};
export type CoreWorker = typeof worker;
expose(worker);
