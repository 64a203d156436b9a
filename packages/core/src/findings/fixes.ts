import { reduce, type Scene } from '../document/index.ts';
import { compileRelief } from '../terrain/index.ts';
import { evaluateRules, type EvaluatedFinding } from './evaluator.ts';
import type { Fix } from './fix.ts';
import { PROPOSED } from './proposals.ts';

// Remedies that a computation can find: proposed by rule, then tried on the whole scene before they are offered.

/** A fix that has been tried: the finding is gone, and no other error or warning has come. */
export interface TriedFix extends Fix {
  /** Sentences of other findings that go with it. */
  alsoGone: string[];
}

/** Rules whose findings a computation may do away with. */
export const FIXABLE_RULES: readonly string[] = Object.keys(PROPOSED);

/**
 * The first proposed fix of a finding after which it is gone and no error or warning is new, or is another about what
 * the fix changes. Each is tried on the whole scene: compiled again and judged by every rule.
 * @param today ISO date for the rules about dates
 * @returns null where none does it, or the finding is not there any more
 */
export function tryFixes(scene: Scene, key: string, today: string): TriedFix | null {
  const evaluated = (of: Scene) => evaluateRules(of, { relief: compileRelief(of), today });
  const found = evaluated(scene);
  const finding = found.find((one) => one.key === key);
  const proposed = finding && PROPOSED[finding.rule]?.(scene, finding);
  if (!finding || !proposed) return null;
  const before = new Map(found.map((one) => [one.key, one]));
  for (const fix of proposed.slice(0, MAX_TRIED)) {
    if (fix.changes.length === 0) continue;
    const fixed = reduce(scene, fix.changes);
    if (!fixed.ok) continue;
    const left = evaluated(fixed.scene);
    const keys = new Set(left.map((one) => one.key));
    if (keys.has(key)) continue;
    if (left.some((one) => isWorse(one, before.get(one.key), fix))) continue;
    return {
      ...fix,
      alsoGone: found
        .filter((one) => one.key !== key && !one.accepted && !keys.has(one.key))
        .map(({ sentence }) => sentence),
    };
  }
  return null;
}

/** Fixes of one finding that are tried. */
const MAX_TRIED = 8;

/** Whether an error or warning after a fix was not there before, was accepted, or is another about what it changed. */
export function isWorse(after: EvaluatedFinding, before: EvaluatedFinding | undefined, fix: Fix): boolean {
  if (after.severity === 'note' || after.accepted) return false;
  if (!before || before.accepted) return true;
  const isChanged = after.things.some(({ kind, id }) =>
    fix.changes.some((change) => change.kind === kind && change.id === id),
  );
  return isChanged && after.fingerprint !== before.fingerprint;
}
