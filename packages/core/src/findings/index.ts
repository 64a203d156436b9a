export { fingerprint, type Finding, type Page, type Rule, type Severity } from './finding.ts';
export { RULES } from './rules.ts';
export { RuleEvaluator, evaluateRules, type EvaluatedFinding, type EvaluationInputs } from './evaluator.ts';
export { FIXABLE_RULES, tryFixes, type TriedFix } from './fixes.ts';
export { type Fix } from './fix.ts';
export { viewHelps, type ViewHelp } from './viewHelps.ts';
