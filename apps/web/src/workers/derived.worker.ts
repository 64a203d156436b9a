import { scenesSeen, type SceneSeen } from '@quarry/core/cast';
import {
  shellList,
  skylineOf,
  swapCard,
  unlistedBuildings,
  type Skyline,
  type SwapChoice,
} from '@quarry/core/structures';
import { expose, transfer, type ProxyMarked } from 'comlink';
import { FIXABLE_RULES, RULES, RuleEvaluator, type EvaluatedFinding } from '@quarry/core/findings';
import {
  adoptCutting,
  arrangementOf,
  byHand,
  carriedPieces,
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
  type CarriedPiece,
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
import { showBook, type ShowBook } from '@quarry/core/kit';
import { powerOf, type Power } from '@quarry/core/power';
import {
  phasesOf,
  sceneAtShow,
  showDiary,
  showOf,
  swapPieces,
  tasksOfPhase,
  type DiaryShow,
  type Shipment,
  type ShowPhase,
  type ShowTask,
} from '@quarry/core/transport';
import type { Netted } from '@quarry/core/materials';
import type { Rect } from '@quarry/core/grid';
import { compileRelief, type MassRaster, type Relief } from '@quarry/core/terrain';
import { displayOf, reduce, type Change, type Delta, type Scene, type Side } from '@quarry/core/document';
import { outlook, type OutlookAnswer } from '@quarry/core/progress';
import { tableLoads, type TableLoad } from '@quarry/core/venue';
import { bestMoves, reachOf, type TableMove, type Reach } from '@quarry/core/reach';
import { blockInputs, methodInputs, paintedFrom, type MethodCount, type Painted } from '@quarry/core/masonry';
import type { BlockLayers } from './block.worker.ts';
import { FollowedScene } from './followedScene.ts';
import { MaterialsCounting, type Materials } from './materialsCounting.ts';
import { pool } from './pool.ts';
import { tilesOf, type GroundStep } from './tiles.ts';

/** Reach and findings of a scene. */
export interface Judgement {
  reach: Reach;
  findings: EvaluatedFinding[];
  /** What each rule is called and how its number is made: the rules themselves stay in the worker. */
  rules: Readonly<Record<string, RuleWords>>;
}

/** A rule in words. */
export interface RuleWords {
  title: string;
  basis: string;
  /** A fix of its findings can be looked for. */
  fixable: boolean;
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

const RULE_WORDS = Object.fromEntries(
  RULES.map(({ id, title, basis }) => [id, { title, basis, fixable: FIXABLE_RULES.includes(id) }]),
);
/** Height of the names on a small plan, mm of the drawing. */
const SMALL_PLAN_TEXT = 30;
const followed = new FollowedScene();
const evaluator = new RuleEvaluator();
/** What the scene needs as it was counted last; null until it is. */
let counted: { mass: MassRaster; rows: readonly Netted[] } | null = null;
let weighed: { from: Relief; mass: MassRaster; relief: Relief } | null = null;

/** The compiled ground of the scene, with its mass as counted last: one object for as long as both hold. */
function ground(): Relief {
  const { relief } = followed.compiled;
  const mass = countedMass();
  if (!mass) return relief;
  if (weighed?.from !== relief || weighed.mass !== mass)
    weighed = { from: relief, mass, relief: { ...relief, counted: mass } };
  return weighed.relief;
}

/** The ground's mass as counted last; null while it belongs to a relief of another size. */
const countedMass = () =>
  counted && counted.mass.grams.length === followed.compiled.relief.height.length ? counted.mass : null;

/** The judge of the scene's seams, made once for each ground: modules do not change it. */
function judgeOfSeams(): ReturnType<typeof seamClassifier> {
  const relief = ground();
  if (seamsJudged?.relief !== relief) seamsJudged = { relief, judge: seamClassifier(followed.scene, relief) };
  return seamsJudged.judge;
}
let seamsJudged: { relief: Relief; judge: ReturnType<typeof seamClassifier> } | null = null;

/** Findings and reach of the scene as it stands. */
function judgement(): Judgement {
  const { scene } = followed;
  const { relief } = followed.compiled;
  const rows = counted?.rows;
  const findings = evaluator.evaluate(scene, {
    today,
    relief,
    counted: countedMass(),
    ...(rows ? { rows } : {}),
  });
  const reach = evaluator.reach();
  const distance = reach.distance.slice();
  return transfer({ reach: { ...reach, distance }, findings, rules: RULE_WORDS }, [distance.buffer]);
}

/** Who hears of what is worked out after a change has been answered. */
export interface Listeners {
  onMaterials: (materials: Materials) => void;
  onJudgement: (judgement: Judgement) => void;
  onCounting: (counting: { done: number; of: number } | null) => void;
  onError: (error: string) => void;
}
let listeners: Listeners | null = null;
let counting: MaterialsCounting | null = null;
let today = '';
let timer: ReturnType<typeof setTimeout> | undefined;
let isCounting = false;
/** What was short by a rule of its own when the scene was counted last. */
let lastShort = '';

/** Counting waits until a hand rests, ms; the first count does not wait. */
const COUNT_AFTER_MS = 250;

function countSoon(): void {
  clearTimeout(timer);
  timer = setTimeout(() => void count(), counted ? COUNT_AFTER_MS : 0);
}

/** Counts the scene as it stands; once more when it has changed meanwhile: what was counted then is kept. */
async function count(): Promise<void> {
  if (isCounting || !counting || !listeners) return;
  isCounting = true;
  const { onCounting, onMaterials, onJudgement, onError } = listeners;
  try {
    let latest: Scene | null = null;
    while (latest !== followed.scene) {
      latest = followed.scene;
      const materials = await counting.materials(latest, followed.compiled, (done, of) =>
        onCounting({ done, of }),
      );
      if (followed.scene !== latest) {
        await new Promise((resolve) => setTimeout(resolve, COUNT_AFTER_MS));
        continue;
      }
      onMaterials(materials);
      // Only what is bought under a rule of its own is judged.
      const rows = materials.rows.filter(({ demand }) => demand.source !== null);
      const short = rows.map((row) => `${row.demand.id} ${row.demand.qty} ${row.short}`).join();
      if (materials.fresh > 0 || !counted || short !== lastShort) {
        counted = { mass: materials.mass, rows };
        lastShort = short;
        onJudgement(judgement());
      }
    }
  } catch (error) {
    onError(error instanceof Error ? error.message : String(error));
  } finally {
    isCounting = false;
    onCounting(null);
  }
}

const worker = {
  /**
   * Begins: counts of the display that this browser keeps are read, and those to come are kept.
   * @param displayId null: nothing is kept
   */
  begin(displayId: string | null, to: Listeners & ProxyMarked): void {
    listeners = to;
    counting = new MaterialsCounting(displayId);
  },
  /** Evaluates the scene after a change; it is counted a moment later, and evaluated again by what was counted. */
  follow(delta: readonly Delta[], day: string): Judgement {
    followed.follow(delta);
    today = day;
    countSoon();
    return judgement();
  },
  /** The ground of a scene that is not the one followed. */
  groundOf(of: Scene): GroundStep {
    const relief = compileRelief(of);
    return { relief, tiles: tilesOf(relief, null), whole: true };
  },
  /** When a scene will be done, with odds. */
  outlook: (of: Scene, day: string, how: Parameters<typeof outlook>[2]): OutlookAnswer =>
    outlook(of, day, how),
  /** What is carried in each step of a swap. @param base the display without a version */
  swapPieces: (base: Scene, to: string | null) => swapPieces(base, to),
  /** A plan of a scene as a picture (SVG), some places pointed out. */
  pagePlan: (of: Scene, changed: readonly Rect[]): string =>
    writePagePlan(of, compileRelief(of), { textSize: SMALL_PLAN_TEXT, changed }),
  /** The reach in a place one only looks at. */
  reach: (of: Scene): Reach => reachOf(of, compileRelief(of)),
  /** The cutting problem of the followed scene. */
  problem: (): SceneProblem => cutProblemOf(followed.scene, ground()),
  /** What the modules of the followed scene come to. */
  arrangement: (): Arrangement => arrangementOf(followed.scene, ground(), judgeOfSeams()),
  /**
   * What modules and tables carry in a place, and whether the ground is counted or still estimated.
   * @param place whose tables it stands on
   */
  loads(place: string | null): {
    modules: ModuleLoad[];
    tables: TableLoad[];
    carried: readonly CarriedPiece[];
    counted: boolean;
  } {
    const relief = ground();
    const display = displayOf(followed.scene);
    const there = { ...followed.scene, display: { [display.id]: { ...display, place } } };
    const modules = moduleLoads(there, relief);
    return {
      modules,
      tables: tableLoads(there, relief),
      carried: carriedPieces(there, relief, modules),
      counted: relief.counted !== undefined,
    };
  },
  /** What another cutting of it would come to. */
  alternative(cutting: Cutting, origin: { x: number; y: number }): Arrangement | null {
    const taken = reduce(followed.scene, adoptCutting(followed.scene, cutting, origin));
    return taken.ok ? arrangementOf(taken.scene, ground(), judgeOfSeams()) : null;
  },
  /** What an act by hand would change, and the cost before and after; or why it cannot be. */
  byHand(act: HandAct): HandAnswer {
    const hand = byHand(followed.scene, act);
    if (!hand.ok) return hand;
    const done = reduce(followed.scene, hand.changes);
    if (!done.ok) return { ok: false, error: done.refusal.sentence };
    const judge = judgeOfSeams();
    const [before, after] = [followed.scene, done.scene].map(
      (each) =>
        costOf(each, ground(), judge).cost.total + rimsOf(each).reduce((sum, { cost }) => sum + cost, 0),
    );
    return { ...hand, before, after };
  },
  /** Every seam with how it stands. */
  seams(): SeamEntry[] {
    const relief = ground();
    return neighboursOf(followed.scene).map((neighbours) => {
      const seam = followed.scene.seam[neighbours.id];
      const sheet = seamSheet(followed.scene, relief, neighbours);
      return { sheet, state: seamState(seam, sheet), mends: seam ? seamRemedies(seam, sheet) : [] };
    });
  },
  /** The order of building up, by where one can stand. */
  order(): BuildUp {
    const relief = ground();
    return buildUp(followed.scene, relief, reachOf(followed.scene, relief));
  },
  /** What is loaded for the show, and what is done at the place. */
  show(): { shipment: Shipment; tasks: Partial<Record<ShowPhase, ShowTask[]>> } {
    const { scene } = followed;
    const relief = ground();
    const show = showOf(scene, relief);
    return {
      shipment: show.shipment,
      tasks: Object.fromEntries(
        phasesOf(scene).map((phase) => [phase, tasksOfPhase(scene, relief, show, phase)]),
      ),
    };
  },
  /** All shows, each judged in its own place. */
  diary: (): DiaryShow[] => showDiary(followed.scene, ground()),
  /** What comes along to the show, and where it can hurt someone. */
  kit(): Pick<ShowBook, 'kit' | 'cautions'> {
    const { kit, cautions } = showBook(followed.scene, ground());
    return { kit, cautions };
  },
  /** How small scenes are seen, and how far light is from them. */
  scenesSeen: (): SceneSeen[] => scenesSeen(followed.scene, ground()),
  /** Light and power in the place of the show. */
  power: (): Power => powerOf(sceneAtShow(followed.scene), ground()),
  /** The list that a building's plain shell makes; null: it is gone. */
  shell: (id: string): ReturnType<typeof shellList> | null => {
    const plot = followed.scene.plot[id];
    return plot ? shellList(followed.scene, plot) : null;
  },
  /** Those of all buildings that no list counts. */
  /** A building beside what it would become; null: it is gone. */
  swap: (id: string, choice: SwapChoice): ReturnType<typeof swapCard> | null => {
    const plot = followed.scene.plot[id];
    return plot ? swapCard(followed.scene, plot, choice) : null;
  },
  shells: (): ReturnType<typeof shellList>[] =>
    unlistedBuildings(followed.scene).map((plot) => shellList(followed.scene, plot)),
  /** The display as it is seen from a side. */
  skyline: (side: Side): Skyline => skylineOf(followed.scene, ground(), side),
  /** The same of another scene. */
  skylineIn: (of: Scene, side: Side): Skyline => skylineOf(of, compileRelief(of), side),
  free: (id: string): Freed | null =>
    freeModule(followed.scene, ground(), reachOf(followed.scene, ground()), id),
  /** The rearrangements of the room that bring most within reach. */
  moves: (of: Scene): TableMove[] => bestMoves(of),
  /** The methods side by side for a hill, a pad or a section. */
  compare: (kind: 'hill' | 'pad' | 'section', id: string): Promise<MethodCount[]> =>
    pool.all(methodInputs(followed.scene, followed.compiled, { kind, id }), (block, { method, input }) =>
      block.compare(method, input),
    ),
  /** The colour of each stud from above. */
  async painted(): Promise<Painted> {
    const { scene, compiled } = followed;
    const painted = await pool.all(blockInputs(scene, compiled), (block, input) => block.paint(input));
    return paintedFrom(compiled.relief, painted);
  },
  /** One block as placed pieces; null for one that the scene does not have. */
  async layers(id: string): Promise<BlockLayers | null> {
    const input = blockInputs(followed.scene, followed.compiled).find(({ block }) => block.id === id);
    return input ? pool.run((block) => block.layers(input)) : null;
  },
};
export type DerivedWorker = typeof worker;
expose(worker);
