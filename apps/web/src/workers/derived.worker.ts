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
import {
  FIXABLE_RULES,
  RULES,
  RuleEvaluator,
  type EvaluatedFinding,
  type EvaluationInputs,
} from '@quarry/core/findings';
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
import { reduce, type Change, type Delta, type Scene, type Side } from '@quarry/core/document';
import { outlook, type OutlookAnswer } from '@quarry/core/progress';
import { tableLoads, withPlace, type TableLoad } from '@quarry/core/venue';
import { bestMoves, reachOf, type TableMove, type Reach } from '@quarry/core/reach';
import { blockInputs, methodInputs, paintedFrom, type MethodCount, type Painted } from '@quarry/core/masonry';
import type { BlockLayers } from './block.worker.ts';
import { FollowedScene } from './followedScene.ts';
import { MaterialsCounting, type Materials } from './materialsCounting.ts';
import { pool } from './pool.ts';
import { tilesOf, type GroundStep } from './tiles.ts';

/** Reach and findings of a scene. */
export interface Judgement {
  /** What is worked out here is of one scene for as long as this number is the same. */
  version: number;
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

/** Who hears of what is worked out after a change has been answered. */
export interface Listeners {
  onMaterials: (materials: Materials) => void;
  onJudgement: (judgement: Judgement) => void;
  onCounting: (counting: { done: number; of: number } | null) => void;
  onError: (error: string) => void;
}

/** Counting waits until a hand rests, ms; the first count does not wait. */
const COUNT_AFTER_MS = 250;

/** All that follows from a scene, worked out in a worker. */
export class DerivedWorker {
  readonly #followed = new FollowedScene();
  readonly #evaluator = new RuleEvaluator();
  /** What the scene needs as it was counted last; null until it is. */
  #counted: { mass: MassRaster; rows: readonly Netted[] } | null = null;
  #weighed: { from: Relief; mass: MassRaster; relief: Relief } | null = null;
  #seamsJudged: { relief: Relief; judge: ReturnType<typeof seamClassifier> } | null = null;
  #listeners: Listeners | null = null;
  #counting: MaterialsCounting | null = null;
  #today = '';
  #timer: ReturnType<typeof setTimeout> | undefined;
  /** Until what takes longest to find follows the rest. */
  #restTimer: ReturnType<typeof setTimeout> | undefined;
  #version = 0;
  #isCounting = false;
  /** What was short by a rule of its own when the scene was counted last. */
  #lastShort = '';

  /**
   * Begins: counts of the display that this browser keeps are read, and those to come are kept.
   * @param displayId null: nothing is kept
   */
  begin(displayId: string | null, to: Listeners & ProxyMarked): void {
    this.#listeners = to;
    this.#counting = new MaterialsCounting(displayId);
  }
  /** Evaluates the scene after a change; it is counted a moment later, and evaluated again by what was counted. */
  follow(delta: readonly Delta[], day: string): Judgement {
    this.#followed.follow(delta);
    this.#today = day;
    this.#countSoon();
    this.#version++;
    clearTimeout(this.#restTimer);
    const { findings, isWhole } = this.#evaluator.evaluateSoon(this.#followed.scene, this.#inputs());
    if (!isWhole) this.#restTimer = setTimeout(() => this.#listeners?.onJudgement(this.#judgement()), 0);
    return this.#withReach(findings);
  }
  /** The ground of a scene that is not the one followed. */
  groundOf(of: Scene): GroundStep {
    const relief = compileRelief(of);
    return { relief, tiles: tilesOf(relief, null), whole: true };
  }
  /** When a scene will be done, with odds. */
  outlook(of: Scene, day: string, how: Parameters<typeof outlook>[2]): OutlookAnswer {
    return outlook(of, day, how);
  }
  /** What is carried in each step of a swap. @param base the display without a version */
  swapPieces(base: Scene, to: string | null) {
    return swapPieces(base, to);
  }
  /** A plan of a scene as a picture (SVG), some places pointed out. */
  pagePlan(of: Scene, changed: readonly Rect[]): string {
    return writePagePlan(of, compileRelief(of), { textSize: SMALL_PLAN_TEXT, changed });
  }
  /** The reach in a place one only looks at. */
  reach(place: string | null): Reach {
    return reachOf(withPlace(this.#followed.scene, place), this.#ground());
  }
  /** The cutting problem of the followed scene. */
  problem(): SceneProblem {
    return cutProblemOf(this.#followed.scene, this.#ground());
  }
  /** What the modules of the followed scene come to. */
  arrangement(): Arrangement {
    return arrangementOf(this.#followed.scene, this.#ground(), this.#judgeOfSeams());
  }
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
    const relief = this.#ground();
    const there = withPlace(this.#followed.scene, place);
    const modules = moduleLoads(there, relief);
    return {
      modules,
      tables: tableLoads(there, relief),
      carried: carriedPieces(there, relief, modules),
      counted: relief.counted !== undefined,
    };
  }
  /** What another cutting of it would come to. */
  alternative(cutting: Cutting, origin: { x: number; y: number }): Arrangement | null {
    const taken = reduce(this.#followed.scene, adoptCutting(this.#followed.scene, cutting, origin));
    return taken.ok ? arrangementOf(taken.scene, this.#ground(), this.#judgeOfSeams()) : null;
  }
  /** What an act by hand would change, and the cost before and after; or why it cannot be. */
  byHand(act: HandAct): HandAnswer {
    const hand = byHand(this.#followed.scene, act);
    if (!hand.ok) return hand;
    const done = reduce(this.#followed.scene, hand.changes);
    if (!done.ok) return { ok: false, error: done.refusal.sentence };
    const judge = this.#judgeOfSeams();
    const costNow = (each: Scene) =>
      costOf(each, this.#ground(), judge).cost.total + rimsOf(each).reduce((sum, { cost }) => sum + cost, 0);
    return { ...hand, before: costNow(this.#followed.scene), after: costNow(done.scene) };
  }
  /** Every seam with how it stands. */
  seams(): SeamEntry[] {
    const relief = this.#ground();
    return neighboursOf(this.#followed.scene).map((neighbours) => {
      const seam = this.#followed.scene.seam[neighbours.id];
      const sheet = seamSheet(this.#followed.scene, relief, neighbours);
      return { sheet, state: seamState(seam, sheet), mends: seam ? seamRemedies(seam, sheet) : [] };
    });
  }
  /** The order of building up, by where one can stand. */
  order(): BuildUp {
    const relief = this.#ground();
    return buildUp(this.#followed.scene, relief, reachOf(this.#followed.scene, relief));
  }
  /** What is loaded for the show, and what is done at the place. */
  show(): { shipment: Shipment; tasks: Partial<Record<ShowPhase, ShowTask[]>> } {
    const { scene } = this.#followed;
    const relief = this.#ground();
    const show = showOf(scene, relief);
    return {
      shipment: show.shipment,
      tasks: Object.fromEntries(
        phasesOf(scene).map((phase) => [phase, tasksOfPhase(scene, relief, show, phase)]),
      ),
    };
  }
  /** All shows, each judged in its own place. */
  diary(): DiaryShow[] {
    return showDiary(this.#followed.scene, this.#ground());
  }
  /** What comes along to the show, and where it can hurt someone. */
  kit(): Pick<ShowBook, 'kit' | 'cautions'> {
    const { kit, cautions } = showBook(this.#followed.scene, this.#ground());
    return { kit, cautions };
  }
  /** How small scenes are seen, and how far light is from them. */
  scenesSeen(): SceneSeen[] {
    return scenesSeen(this.#followed.scene, this.#ground());
  }
  /** Light and power in the place of the show. */
  power(): Power {
    return powerOf(sceneAtShow(this.#followed.scene), this.#ground());
  }
  /** The list that a building's plain shell makes; null: it is gone. */
  shell(id: string): ReturnType<typeof shellList> | null {
    const plot = this.#followed.scene.plot[id];
    return plot ? shellList(this.#followed.scene, plot) : null;
  }
  /** A building beside what it would become; null: it is gone. */
  swap(id: string, choice: SwapChoice): ReturnType<typeof swapCard> | null {
    const plot = this.#followed.scene.plot[id];
    return plot ? swapCard(this.#followed.scene, plot, choice) : null;
  }
  /** Those of all buildings that no list counts. */
  shells(): ReturnType<typeof shellList>[] {
    return unlistedBuildings(this.#followed.scene).map((plot) => shellList(this.#followed.scene, plot));
  }
  /** The display as it is seen from a side. */
  skyline(side: Side): Skyline {
    return skylineOf(this.#followed.scene, this.#ground(), side);
  }
  /** The same of another scene. */
  skylineIn(of: Scene, side: Side): Skyline {
    return skylineOf(of, compileRelief(of), side);
  }
  /** The shortest list of things to take off before a module can be lifted out; null: it is gone. */
  free(id: string): Freed | null {
    return freeModule(
      this.#followed.scene,
      this.#ground(),
      reachOf(this.#followed.scene, this.#ground()),
      id,
    );
  }
  /** The rearrangements of a place that bring most within reach. */
  moves(place: string | null): TableMove[] {
    return bestMoves(withPlace(this.#followed.scene, place), this.#ground());
  }
  /** The methods side by side for a hill, a pad or a section. */
  compare(kind: 'hill' | 'pad' | 'section', id: string): Promise<MethodCount[]> {
    return pool.all(
      methodInputs(this.#followed.scene, this.#followed.compiled, { kind, id }),
      (block, { method, input }) => block.compare(method, input),
    );
  }
  /** The colour of each stud from above. */
  async painted(): Promise<Painted> {
    const { scene, compiled } = this.#followed;
    const painted = await pool.all(blockInputs(scene, compiled), (block, input) => block.paint(input));
    return paintedFrom(compiled.relief, painted);
  }
  /** One block as placed pieces; null for one that the scene does not have. */
  async layers(id: string): Promise<BlockLayers | null> {
    const input = blockInputs(this.#followed.scene, this.#followed.compiled).find(
      ({ block }) => block.id === id,
    );
    return input ? pool.run((block) => block.layers(input)) : null;
  }

  /** The compiled ground of the scene, with its mass as counted last: one object for as long as both hold. */
  #ground(): Relief {
    const { relief } = this.#followed.compiled;
    const mass = this.#countedMass();
    if (!mass) return relief;
    if (this.#weighed?.from !== relief || this.#weighed.mass !== mass)
      this.#weighed = { from: relief, mass, relief: { ...relief, counted: mass } };
    return this.#weighed.relief;
  }

  /** The ground's mass as counted last; null while it belongs to a relief of another size. */
  #countedMass(): MassRaster | null {
    const mass = this.#counted?.mass;
    return mass && mass.grams.length === this.#followed.compiled.relief.height.length ? mass : null;
  }

  /** The judge of the scene's seams, made once for each ground: modules do not change it. */
  #judgeOfSeams(): ReturnType<typeof seamClassifier> {
    const relief = this.#ground();
    if (this.#seamsJudged?.relief !== relief)
      this.#seamsJudged = { relief, judge: seamClassifier(this.#followed.scene, relief) };
    return this.#seamsJudged.judge;
  }

  /** Findings and reach of the scene as it stands. */
  #judgement(): Judgement {
    clearTimeout(this.#restTimer);
    return this.#withReach(this.#evaluator.evaluate(this.#followed.scene, this.#inputs()));
  }

  /** What rules read beside the scene. */
  #inputs(): EvaluationInputs {
    const rows = this.#counted?.rows;
    return {
      ...{ today: this.#today, relief: this.#followed.compiled.relief, counted: this.#countedMass() },
      ...(rows ? { rows } : {}),
    };
  }

  #withReach(findings: EvaluatedFinding[]): Judgement {
    const reach = this.#evaluator.reach();
    const distance = reach.distance.slice();
    return transfer({ version: this.#version, reach: { ...reach, distance }, findings, rules: RULE_WORDS }, [
      distance.buffer,
    ]);
  }

  #countSoon(): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.#count(), this.#counted ? COUNT_AFTER_MS : 0);
  }

  /** Counts the scene as it stands; once more when it has changed meanwhile: what was counted then is kept. */
  async #count(): Promise<void> {
    const counting = this.#counting;
    if (this.#isCounting || !counting || !this.#listeners) return;
    this.#isCounting = true;
    const { onCounting, onMaterials, onJudgement, onError } = this.#listeners;
    try {
      let latest: Scene | null = null;
      while (latest !== this.#followed.scene) {
        latest = this.#followed.scene;
        const materials = await counting.materials(latest, this.#followed.compiled, (done, of) =>
          onCounting({ done, of }),
        );
        if (this.#followed.scene !== latest) {
          await new Promise((resolve) => setTimeout(resolve, COUNT_AFTER_MS));
          continue;
        }
        onMaterials(materials);
        // Only what is bought under a rule of its own is judged.
        const rows = materials.rows.filter(({ demand }) => demand.source !== null);
        const short = rows.map((row) => `${row.demand.id} ${row.demand.qty} ${row.short}`).join();
        if (materials.fresh > 0 || !this.#counted || short !== this.#lastShort) {
          this.#counted = { mass: materials.mass, rows };
          this.#lastShort = short;
          this.#version++;
          onJudgement(this.#judgement());
        }
      }
    } catch (error) {
      onError(error instanceof Error ? error.message : String(error));
    } finally {
      this.#isCounting = false;
      onCounting(null);
    }
  }
}
expose(new DerivedWorker());
