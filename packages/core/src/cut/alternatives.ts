import type { Cutting, CutProblem } from './problem.ts';

/** Cuttings to be held against each other: each gives one wish more weight than the Brief does. */
export const ALTERNATIVES = ['balanced', 'fewest', 'cheapest', 'lightest', 'quietest'] as const;
export type Alternative = (typeof ALTERNATIVES)[number];

export const ALTERNATIVE_WORDS: Readonly<Record<Alternative, { word: string; how: string }>> = {
  balanced: { word: 'Balanced', how: 'money, modules and seams as the weights say' },
  fewest: { word: 'Fewest modules', how: 'a module weighs twenty times as much' },
  cheapest: { word: 'Cheapest bases', how: 'modules and seams weigh a twentieth' },
  lightest: {
    word: 'Lightest lifts',
    how: 'no module heavier than three quarters of the heaviest of the balanced one',
  },
  quietest: { word: 'Quietest seams', how: 'a stud of seam weighs twenty times as much' },
};

const MUCH = 20;
/** Of the heaviest module of the balanced cutting: shares tried one after the other until one can be done. */
export const LIGHTER = [0.6, 0.75, 0.9] as const;

/**
 * A alternative's problem.
 * @param heaviest of the balanced cutting, kg, and the share of it that the lightest one may reach
 */
export function alternativeProblem(
  problem: CutProblem,
  alternative: Alternative,
  heaviest = Infinity,
  share = 1,
): CutProblem {
  const { weights, module } = problem;
  switch (alternative) {
    case 'balanced':
      return problem;
    case 'fewest':
      return { ...problem, weights: { ...weights, module: Math.max(weights.module, 1) * MUCH } };
    case 'cheapest':
      return { ...problem, weights: { module: weights.module / MUCH, seam: weights.seam / MUCH } };
    case 'quietest':
      return { ...problem, weights: { ...weights, seam: Math.max(weights.seam, 0.01) * MUCH } };
    case 'lightest': {
      const most = Math.min(module.maxMassKg ?? Infinity, heaviest * share);
      return Number.isFinite(most) && most > 0
        ? { ...problem, module: { ...module, maxMassKg: most } }
        : problem;
    }
  }
}

/** What a alternative's cutting costs by the weights of another problem of the same scene. */
export function costUnder(problem: CutProblem, { modules, cost }: Cutting, alternative: CutProblem): number {
  const seams =
    alternative.weights.seam > 0 ? (cost.seams / alternative.weights.seam) * problem.weights.seam : 0;
  return cost.bases + problem.weights.module * modules.length + seams;
}

export const heaviestOf = ({ modules }: Cutting): number =>
  Math.max(...modules.map(({ massKg }) => massKg ?? 0));
