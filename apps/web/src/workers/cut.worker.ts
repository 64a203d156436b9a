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

/** Time for each rival's first answer, before the solver is loaded, s. */
const FIRST = 0.4;

const worker = {
  /**
   * Looks for all rivals: first an answer to each, then better ones in turn; `onBetter` hears of every step.
   * Ending the worker ends the search.
   * @returns the reasons when there is no cutting at all; else none
   */
  async rivals(
    problem: CutProblem,
    seconds: number,
    onBetter: (rival: Alternative, problem: CutProblem, cutting: Cutting) => void,
  ): Promise<string[]> {
    const now = () => performance.now();
    const found = new Map<Alternative, Cutting>();
    const run = (
      rival: Alternative,
      time: number,
      highs?: Awaited<ReturnType<typeof loadHighs>>,
    ): string[] => {
      let reasons: string[] = [];
      const balanced = found.get('balanced');
      const shares = rival === 'lightest' ? LIGHTER : [1];
      for (const share of shares) {
        const stated = alternativeProblem(problem, rival, balanced && heaviestOf(balanced), share);
        const tell = (cutting: Cutting) => {
          found.set(rival, cutting);
          onBetter(rival, stated, cutting);
        };
        const answer = solveCut(stated, { seconds: time / shares.length, now, highs, onProgress: tell });
        if (answer.feasible) return [];
        ({ reasons } = answer);
      }
      return reasons;
    };
    const first = run('balanced', FIRST);
    for (const rival of ALTERNATIVES) if (rival !== 'balanced' && first.length === 0) run(rival, FIRST);
    const highs = await loadHighs({ locateFile: () => wasmUrl });
    // The balanced one bounds all the others: it has the larger part of the time.
    const reasons = run('balanced', seconds * 0.4, highs);
    if (reasons.length > 0 && !found.has('balanced')) return reasons;
    for (const rival of ALTERNATIVES)
      if (rival !== 'balanced' && !(found.get(rival)?.proven && rival !== 'lightest'))
        run(rival, seconds * 0.15, highs);
    return [];
  },
};
export type CutWorker = typeof worker;
expose(worker);
