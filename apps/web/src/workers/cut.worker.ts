import { expose } from 'comlink';
import loadHighs from 'highs';
import wasmUrl from 'highs/runtime?url';
import { solveCut, type CutAnswer, type Cutting, type CutProblem } from '@quarry/core/cut';

const worker = {
  /** Cuts within a time; `onProgress` hears of every better cutting. Ending the worker ends the search. */
  async cut(
    problem: CutProblem,
    seconds: number,
    onProgress: (cutting: Cutting) => void,
  ): Promise<CutAnswer> {
    // The first answer needs no solver: it is on the screen while the solver is still loading.
    const first = solveCut(problem, { seconds, now: () => performance.now(), onProgress });
    if (first.feasible && first.cutting.proven) return first;
    const highs = await loadHighs({ locateFile: () => wasmUrl });
    return solveCut(problem, { seconds, now: () => performance.now(), highs, onProgress });
  },
};
export type CutWorker = typeof worker;
expose(worker);
