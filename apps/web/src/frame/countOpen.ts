import type { EvaluatedFinding, Severity } from '@quarry/core/findings';

/** Counts of open (not accepted) findings, by severity. */
export function countOpen(findings: readonly EvaluatedFinding[]): Record<Severity, number> {
  const count = { error: 0, warning: 0, note: 0 };
  for (const { severity, accepted } of findings) if (!accepted) count[severity]++;
  return count;
}
