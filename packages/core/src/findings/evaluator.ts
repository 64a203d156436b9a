import { emptyScene, listOf, type Entity, type Scene } from '../document/index.ts';
import { bodiesOf, compileRelief, type MassRaster, type Relief } from '../terrain/index.ts';
import { cardOf, hangingStuds, tableLoads } from '../venue/index.ts';
import { demandsOf, needsOf, netNeeds, suppliesOf, type Netted } from '../materials/index.ts';
import { reachOf, type Reach } from '../reach/index.ts';
import { powerOf } from '../power/index.ts';
import { Lookout, publicEyes } from '../visibility/index.ts';
import { sceneAtShow, showOf } from '../transport/index.ts';
import { carriedPieces, moduleLoads, neighboursOf, seamSheet } from '../cut/index.ts';
import {
  fingerprint,
  type Context,
  type Finding,
  type FindingDraft,
  type Rule,
  type Severity,
} from './finding.ts';
import { RULES } from './rules.ts';
import { Computation, Input, Tracker } from './tracker.ts';

/** A finding with its acceptance. */
export interface EvaluatedFinding extends Finding {
  fingerprint: string;
  /** Accepted with a reason, and its numbers are still those. */
  accepted: { id: string; reason: string; by: string; at: string | null } | null;
  /** It was accepted with other numbers: the reason given then. */
  lapsed: string | null;
}

export interface EvaluationInputs {
  /** ISO date for the rules about dates; left out, dates are not evaluated. */
  today?: string;
  /** The compiled scene; compiled here when left out. */
  relief?: Relief;
  /** The ground's mass as counted piece by piece; left out, that of `relief`, else masses are estimated by area. */
  counted?: MassRaster | null;
  /** Netted needs with counted ground; left out, ground is not among the needs. */
  rows?: readonly Netted[];
}

/** All findings of a scene, the gravest first, then by rule and key. */
export const evaluateRules = (scene: Scene, inputs: EvaluationInputs = {}): EvaluatedFinding[] =>
  new RuleEvaluator().evaluate(scene, inputs);

/**
 * Evaluates scenes one after the other: a rule runs again only when something that it read is another than before.
 * Kinds of entities, the relief, the counted mass, netted needs and the date are told apart.
 */
export class RuleEvaluator {
  private readonly tracker = new Tracker();
  private readonly groups = new Map<string, Input<unknown>>();
  private readonly relief: Input<Relief>;
  private readonly counted = new Input<MassRaster | null>(this.tracker, null);
  private readonly rows = new Input<readonly Netted[] | null>(this.tracker, null);
  private readonly today = new Input<string | null>(this.tracker, null);
  private readonly reached: Computation<Reach>;
  private readonly findings: { rule: Rule; found: Computation<readonly NumberedFinding[]> }[];
  /** What takes longest: lines of sight, and the day of the show. */
  private readonly slow: readonly Computation<unknown>[];
  private ranAt = 0;

  constructor(rules: readonly Rule[] = RULES) {
    const { tracker } = this;
    const empty = emptyScene();
    this.relief = new Input(tracker, compileRelief(empty));
    const scene = this.trackedScene(empty);
    const memo = <T>(compute: () => T) => new Computation(tracker, compute);
    const relief = memo(() => new TrackedRelief(this.relief.read(), this.counted));
    const bodies = memo(() => bodiesOf(scene, relief.read()));
    const card = memo(() => cardOf(scene, relief.read(), bodies.read()));
    const hanging = memo(() => hangingStuds(scene, relief.read()));
    const modules = memo(() => moduleLoads(scene, relief.read()));
    const carried = memo(() => carriedPieces(scene, relief.read(), modules.read()));
    const loads = memo(() => tableLoads(scene, relief.read()));
    const seams = memo(() =>
      neighboursOf(scene).flatMap((pair) => {
        const seam = scene.seam[pair.id];
        return seam ? [{ pair, seam, sheet: seamSheet(scene, relief.read(), pair) }] : [];
      }),
    );
    const bound = memo(() =>
      (
        this.rows.read() ?? netNeeds(scene, demandsOf(scene, needsOf(scene, [])), suppliesOf(scene)).rows
      ).filter(({ demand }) => demand.source !== null),
    );
    this.reached = memo(() => reachOf(scene, relief.read()));
    const { today, reached } = this;
    const show = memo(() =>
      showOf(scene, relief.read(), { reach: () => reached.read(), carried: () => carried.read() }),
    );
    const lookout = memo(() => {
      const eyes = publicEyes(scene, relief.read());
      return eyes && new Lookout(scene, relief.read(), eyes, bodies.read());
    });
    const power = memo(() => powerOf(sceneAtShow(scene), relief.read()));
    const context: Context = {
      scene,
      get relief() {
        return relief.read();
      },
      bodies: () => bodies.read(),
      card: () => card.read(),
      hanging: () => hanging.read(),
      modules: () => modules.read(),
      carried: () => carried.read(),
      seams: () => seams.read(),
      loads: () => loads.read(),
      bound: () => bound.read(),
      reach: () => reached.read(),
      show: () => show.read(),
      power: () => power.read(),
      lookout: () => lookout.read(),
      get today() {
        return today.read();
      },
    };
    this.slow = [lookout, show];
    this.findings = rules.map((rule) => ({ rule, found: memo(() => numbered(rule, rule.check(context))) }));
  }

  /** Ids of the rules that ran in the last evaluation; the others kept their findings. */
  get ran(): string[] {
    return this.findings.filter(({ found }) => found.made >= this.ranAt).map(({ rule }) => rule.id);
  }

  /** All findings of a scene, the gravest first, then by rule and key. */
  evaluate(scene: Scene, inputs: EvaluationInputs = {}): EvaluatedFinding[] {
    this.take(scene, inputs);
    return this.sorted(({ found }) => found.read(), scene);
  }

  /**
   * As `evaluate`, but rules that asked lines of sight or the day of the show, which takes longest, keep what they found
   * before: the next `evaluate` brings them up to date.
   * @returns `isWhole`: none was put off
   */
  evaluateSoon(
    scene: Scene,
    inputs: EvaluationInputs = {},
  ): { findings: EvaluatedFinding[]; isWhole: boolean } {
    this.take(scene, inputs);
    let isWhole = true;
    const findings = this.sorted(({ found }) => {
      const known = this.slow.some((source) => found.didRead(source)) ? found.known : null;
      if (!known) return found.read();
      isWhole = false;
      return known.value;
    }, scene);
    return { findings, isWhole };
  }

  /** Takes the scene and what is known of it as inputs. */
  private take(scene: Scene, { today, relief, counted, rows }: EvaluationInputs): void {
    const ground = relief ?? compileRelief(scene);
    // Of an evaluation in which nothing changed, no computation is as new as this.
    this.tracker.revision++;
    this.ranAt = this.tracker.revision;
    for (const [kind, group] of Object.entries(scene)) this.groups.get(kind)?.set(group);
    this.relief.set(ground);
    this.counted.set((counted === undefined ? ground.counted : counted) ?? null);
    this.rows.set(rows ?? null);
    this.today.set(today ?? null);
  }

  private sorted(
    foundBy: (entry: (typeof this.findings)[number]) => readonly NumberedFinding[],
    scene: Scene,
  ): EvaluatedFinding[] {
    const acceptances = listOf(scene, 'acceptance');
    return this.findings
      .flatMap((entry) => foundBy(entry).map((finding) => withAcceptance(finding, acceptances)))
      .sort((a, b) => RANK[a.severity] - RANK[b.severity] || (a.key < b.key ? -1 : 1));
  }

  /** Reach in the scene that was evaluated last. */
  reach(): Reach {
    return this.reached.read();
  }

  /** The scene whose kinds are inputs: reading one is recorded. */
  private trackedScene(scene: Scene): Scene {
    for (const [kind, group] of Object.entries(scene)) {
      const input = new Input<unknown>(this.tracker, group);
      this.groups.set(kind, input);
      Object.defineProperty(scene, kind, { enumerable: true, get: () => input.read() });
    }
    return scene;
  }
}

/** A relief whose counted mass is an input of its own, since most rules do not read it. A class, for quick fields. */
class TrackedRelief implements Relief {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly d: number;
  readonly height: Relief['height'];
  readonly ground: Relief['ground'];
  readonly owner: Relief['owner'];
  readonly top: Relief['top'];
  readonly surface: Relief['surface'];
  readonly slabs: Relief['slabs'];
  readonly things: Relief['things'];

  constructor(
    { x, y, w, d, height, ground, owner, top, surface, slabs, things }: Relief,
    private readonly mass: Input<MassRaster | null>,
  ) {
    [this.x, this.y, this.w, this.d] = [x, y, w, d];
    [this.height, this.ground, this.owner, this.top] = [height, ground, owner, top];
    [this.surface, this.slabs] = [surface, slabs];
    this.things = things;
  }

  get counted(): MassRaster | undefined {
    return this.mass.read() ?? undefined;
  }
}

const RANK: Record<Severity, number> = { error: 0, warning: 1, note: 2 };

/** A finding of a rule, before acceptances are looked at. */
interface NumberedFinding extends Finding {
  fingerprint: string;
  /** Key that stood for all parts of a thing before findings named their part; null: it names none. */
  wholeKey: string | null;
}

/** Gives drafts their keys. What a rule finds several times of the same things is numbered. */
function numbered({ id, page, severity }: Rule, drafts: readonly FindingDraft[]): NumberedFinding[] {
  const times = new Map<string, number>();
  return drafts.map(({ part, ...draft }) => {
    const named = keyOfFinding(id, draft.things, part);
    const time = (times.get(named) ?? 0) + 1;
    times.set(named, time);
    const key = time === 1 ? named : keyOfFinding(id, draft.things, `${part ?? ''} again ${time}`.trim());
    const finding = { severity, ...draft, rule: id, page, key };
    const wholeKey = part ? keyOfFinding(id, draft.things, undefined) : null;
    return { ...finding, fingerprint: fingerprint(finding), wholeKey };
  });
}

/** An acceptance holds for its key while the numbers are those; one of a whole thing holds for its numbers. */
function withAcceptance(
  { wholeKey, ...finding }: NumberedFinding,
  acceptances: readonly Entity<'acceptance'>[],
): EvaluatedFinding {
  const about = acceptances.filter(
    (entry) =>
      entry.finding === finding.key ||
      (entry.finding === wholeKey && entry.fingerprint === finding.fingerprint),
  );
  const holds = about.find((entry) => entry.fingerprint === finding.fingerprint);
  return {
    ...finding,
    accepted: holds ? { id: holds.id, reason: holds.reason, by: holds.by, at: holds.at } : null,
    lapsed: holds || about.length === 0 ? null : about[about.length - 1].reason,
  };
}

/** A key is part of an acceptance, which keeps at most 200 letters of it; what is longer ends in a hash of the whole. */
function keyOfFinding(rule: string, things: Finding['things'], part: string | undefined): string {
  const key = [rule, ...things.map(({ id }) => id), ...(part ? [part.replaceAll(' ', '-')] : [])].join(':');
  if (key.length <= 200) return key;
  let hash = 0x811c9dc5;
  for (const letter of key) hash = Math.imul(hash ^ (letter.codePointAt(0) ?? 0), 0x01000193) >>> 0;
  return `${key.slice(0, 191)}~${hash.toString(16).padStart(8, '0')}`;
}
