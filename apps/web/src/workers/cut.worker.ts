import { expose } from 'comlink';
import loadHighs from 'highs';
import wasmUrl from 'highs/runtime?url';
import {
  LIGHTER,
  ALTERNATIVES,
  heaviestOf,
  alternativeProblem,
  solveCut,
  type Cutting,
  type CutProblem,
  type Alternative,
} from '@quarry/core/cut';

/** Time for each alternative's first answer, before the solver is loaded, s. */
const FIRST = 0.4;

const worker = {
  /**
   * Looks for all alternatives: first an answer to each, then better ones in turn; `onBetter` hears of every step.
   * Ending the worker ends the search.
   * @returns the reasons when there is no cutting at all; else none
   */
  async alternatives(
    problem: CutProblem,
    seconds: number,
    onBetter: (alternative: Alternative, problem: CutProblem, cutting: Cutting) => void,
  ): Promise<string[]> {
    const now = () => performance.now();
    const found = new Map<Alternative, Cutting>();
    const run = (
      alternative: Alternative,
      time: number,
      highs?: Awaited<ReturnType<typeof loadHighs>>,
    ): string[] => {
      let reasons: string[] = [];
      const balanced = found.get('balanced');
      const shares = alternative === 'lightest' ? LIGHTER : [1];
      for (const share of shares) {
        const stated = alternativeProblem(problem, alternative, balanced && heaviestOf(balanced), share);
        const tell = (cutting: Cutting) => {
          found.set(alternative, cutting);
          onBetter(alternative, stated, cutting);
        };
        const answer = solveCut(stated, { seconds: time / shares.length, now, highs, onProgress: tell });
        if (answer.feasible) return [];
        ({ reasons } = answer);
      }
      return reasons;
    };
    const first = run('balanced', FIRST);
    for (const alternative of ALTERNATIVES)
      if (alternative !== 'balanced' && first.length === 0) run(alternative, FIRST);
    const highs = await loadHighs({ locateFile: () => wasmUrl });
    // The balanced one bounds all the others: it has the larger part of the time.
    const reasons = run('balanced', seconds * 0.4, highs);
    if (reasons.length > 0 && !found.has('balanced')) return reasons;
    for (const alternative of ALTERNATIVES)
      if (alternative !== 'balanced' && !(found.get(alternative)?.proven && alternative !== 'lightest'))
        run(alternative, seconds * 0.15, highs);
    return [];
  },
};
export type CutWorker = typeof worker;
expose(worker);
