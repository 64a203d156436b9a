import { MM, formatMm } from '../grid/index.ts';
import type { Kind, Scene, Seam } from '../document/index.ts';
import type { Body, Relief } from '../terrain/index.ts';
import type { Netted } from '../materials/index.ts';
import type { CarriedPiece, ModuleLoad, Neighbours, SeamSheet } from '../cut/index.ts';
import type { Power } from '../power/index.ts';
import type { Show } from '../transport/index.ts';
import type { Reach } from '../reach/index.ts';
import type { Lookout } from '../visibility/index.ts';
import type { CardState, Hanging, TableLoad } from '../venue/index.ts';

export type Severity = 'error' | 'warning' | 'note';
export type Page = 'brief' | 'survey' | 'plan' | 'cut' | 'stockpile' | 'progress' | 'crew' | 'transport';

/** The result of a rule: one plain sentence with the thing, the number and the limit, and one thing to do. */
export interface Finding {
  /** Rule, part and things: the same finding keeps its key from run to run, and no other has it. */
  key: string;
  rule: string;
  severity: Severity;
  sentence: string;
  /** What to do about it, as an imperative. */
  remedy: string;
  /** Where on the plan, studs; null for what has no place. */
  place: { x: number; y: number } | null;
  things: { kind: Kind; id: string }[];
  page: Page;
  /** The numbers of the sentence, for tables and for telling whether the matter has changed. */
  numbers: Record<string, number>;
}

/** What every rule may look at. */
export interface Context {
  scene: Scene;
  relief: Relief;
  /** Everything that stands in the scene, as bodies: worked out when a rule first asks, once for all rules. */
  bodies(): readonly Body[];
  /** The scene as a rule card sees it: worked out likewise. */
  card(): CardState;
  /** The studs that no table carries: worked out when a rule first asks, once for all rules. */
  hanging(): readonly Hanging[];
  /** What each module weighs and how it is lifted: worked out likewise. */
  modules(): readonly ModuleLoad[];
  /** Everything that is carried by itself: worked out likewise. */
  carried(): readonly CarriedPiece[];
  /** Seams with records, and what lies along each, computed on demand likewise. */
  seams(): readonly { pair: Neighbours; seam: Seam; sheet: SeamSheet }[];
  /** What each table carries: worked out likewise. */
  loads(): readonly TableLoad[];
  /** What may only come from kits or own stock, netted; of counted ground too where it was counted: worked out likewise. */
  bound(): readonly Netted[];
  /** How far each stud is from a place to stand: worked out likewise. */
  reach(): Reach;
  /** The display at its show: worked out likewise. */
  show(): Show;
  /** Light and power in the place of the show: worked out likewise. */
  power(): Power;
  /** What visitors see of single things; null where it is not said who looks: worked out likewise. */
  lookout(): Lookout | null;
  /** The day it is, ISO date; null when dates are not to be judged. */
  today: string | null;
}

/** One kind of finding. `basis` explains how its number is computed. */
export interface Rule {
  id: string;
  title: string;
  basis: string;
  page: Page;
  severity: Severity;
  check(context: Context): FindingDraft[];
}

/** What a rule hands over; the registry adds rule, page, key and the rule's severity where none is given. */
export type FindingDraft = Omit<Finding, 'key' | 'rule' | 'page' | 'severity'> & {
  severity?: Severity;
  /** Which part of its things it is about, where one thing can have several: “north edge”, “point 2”. */
  part?: string;
};

/** The numbers of a finding as text: an acceptance holds while they stay the same. */
export function fingerprint({ numbers, severity }: Pick<Finding, 'numbers' | 'severity'>): string {
  return [
    severity,
    ...Object.keys(numbers)
      .sort()
      .map((key) => `${key}=${Number(numbers[key].toFixed(2))}`),
  ]
    .join(' ')
    .slice(0, 200);
}

/** Formats a length in mm to a tenth. */
export const formatTenths = (value: number) => formatMm(Math.round(value * 10) * (MM / 10));
