import { listOf, type Scene } from '../document/index.ts';
import { bodiesOf, compileRelief, type Body, type Relief } from '../terrain/index.ts';
import { BUILDING_RULES } from './building.ts';
import { PEOPLE_RULES } from './people.ts';
import {
  cardOf,
  hangingStuds,
  tableLoads,
  type CardState,
  type Hanging,
  type TableLoad,
} from '../venue/index.ts';
import { demandsOf, needsOf, netNeeds, suppliesOf, type Netted } from '../materials/index.ts';
import { reachOf, type Reach } from '../reach/index.ts';
import { moduleLoads, neighboursOf, seamSheet, type ModuleLoad } from '../cut/index.ts';
import { BRIEF_RULES } from './brief.ts';
import { DRESS_RULES } from './dress.ts';
import { TERRAIN_RULES } from './terrain.ts';
import { PLACE_RULES } from './places.ts';
import { FRONT_RULES } from './fronts.ts';
import { PLOT_RULES } from './plots.ts';
import { LIFTING_RULES } from './lifting.ts';
import { PUBLIC_RULES } from './public.ts';
import { SEAM_RULES } from './seams.ts';
import { STOCK_RULES } from './stock.ts';
import { SURVEY_RULES } from './survey.ts';
import { WAY_RULES } from './ways.ts';
import { fingerprint, type Context, type Finding, type Rule, type Severity } from './finding.ts';

export { fingerprint, type Finding, type Page, type Rule, type Severity } from './finding.ts';

/** Every rule there is: the one registry. A new check is a rule in this list. */
export const RULES: readonly Rule[] = [
  ...BRIEF_RULES,
  ...SURVEY_RULES,
  ...PUBLIC_RULES,
  ...PLACE_RULES,
  ...BUILDING_RULES,
  ...SEAM_RULES,
  ...PLOT_RULES,
  ...LIFTING_RULES,
  ...FRONT_RULES,
  ...TERRAIN_RULES,
  ...WAY_RULES,
  ...DRESS_RULES,
  ...STOCK_RULES,
  ...PEOPLE_RULES,
];

/** A finding with its acceptance. */
export interface EvaluatedFinding extends Finding {
  fingerprint: string;
  /** Somebody keeps it, for a reason, and its numbers are still those. */
  accepted: { id: string; reason: string; by: string; at: string | null } | null;
  /** It was accepted with other numbers: the reason given then. */
  lapsed: string | null;
}

/** A key is part of an acceptance, which keeps at most 200 letters of it; what is longer ends in a hash of the whole. */
function keyOfFinding(rule: string, things: Finding['things'], part: string | undefined): string {
  const key = [rule, ...things.map(({ id }) => id), ...(part ? [part.replaceAll(' ', '-')] : [])].join(':');
  if (key.length <= 200) return key;
  let hash = 0x811c9dc5;
  for (const letter of key) hash = Math.imul(hash ^ (letter.codePointAt(0) ?? 0), 0x01000193) >>> 0;
  return `${key.slice(0, 191)}~${hash.toString(16).padStart(8, '0')}`;
}

const RANK: Record<Severity, number> = { error: 0, warning: 1, note: 2 };

/**
 * All findings of a scene, the gravest first, then by rule and key.
 * @param options.today ISO date for the rules about dates; left out, dates are not judged
 * @param options.rows what is needed with counted ground, netted; left out, ground is not among what is judged of sources
 */
export function evaluateRules(
  scene: Scene,
  options: { today?: string; relief?: Relief; reach?: Reach; rows?: readonly Netted[] } = {},
): EvaluatedFinding[] {
  const relief = options.relief ?? compileRelief(scene);
  let bodies: readonly Body[] | null = null;
  let card: CardState | null = null;
  let hanging: readonly Hanging[] | null = null;
  let loads: readonly TableLoad[] | null = null;
  let modules: readonly ModuleLoad[] | null = null;
  let seams: ReturnType<Context['seams']> | null = null;
  let bound: readonly Netted[] | null = null;
  let reach = options.reach ?? null;
  const context: Context = {
    scene,
    relief,
    bodies: () => (bodies ??= bodiesOf(scene, relief)),
    card: () => (card ??= cardOf(scene, relief, context.bodies())),
    hanging: () => (hanging ??= hangingStuds(scene, relief)),
    modules: () => (modules ??= moduleLoads(scene, relief)),
    seams: () =>
      (seams ??= neighboursOf(scene).flatMap((pair) => {
        const seam = scene.seam[pair.id];
        return seam ? [{ pair, seam, sheet: seamSheet(scene, relief, pair) }] : [];
      })),
    loads: () => (loads ??= tableLoads(scene, relief)),
    bound: () =>
      (bound ??= (
        options.rows ?? netNeeds(scene, demandsOf(scene, needsOf(scene, [])), suppliesOf(scene)).rows
      ).filter(({ demand }) => demand.source !== null)),
    reach: () => (reach ??= reachOf(scene, relief)),
    today: options.today ?? null,
  };
  const acceptances = listOf(scene, 'acceptance');
  const times = new Map<string, number>();
  return RULES.flatMap((rule) =>
    rule.check(context).map(({ part, ...draft }): EvaluatedFinding => {
      const { id, page, severity } = rule;
      const named = keyOfFinding(id, draft.things, part);
      // What a rule finds several times of the same things, such as a track that crosses a seam twice, is numbered.
      const time = (times.get(named) ?? 0) + 1;
      times.set(named, time);
      const key = time === 1 ? named : keyOfFinding(id, draft.things, `${part ?? ''} again ${time}`.trim());
      const finding = { severity, ...draft, rule: id, page, key };
      const print = fingerprint(finding);
      // Before findings named their part, one key stood for all of a thing's: such an acceptance holds for its numbers.
      const whole = part ? keyOfFinding(id, draft.things, undefined) : null;
      const said = acceptances.filter(
        (entry) => entry.finding === finding.key || (entry.finding === whole && entry.fingerprint === print),
      );
      const holds = said.find((entry) => entry.fingerprint === print);
      return {
        ...finding,
        fingerprint: print,
        accepted: holds ? { id: holds.id, reason: holds.reason, by: holds.by, at: holds.at } : null,
        lapsed: holds || said.length === 0 ? null : said[said.length - 1].reason,
      };
    }),
  ).sort((a, b) => RANK[a.severity] - RANK[b.severity] || (a.key < b.key ? -1 : 1));
}
