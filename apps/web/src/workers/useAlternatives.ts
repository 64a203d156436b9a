import { proxy, wrap } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import { costUnder, type Cutting, type CutProblem, type Alternative } from '@quarry/core/cut';
import type { CutWorker } from './cut.worker.ts';

/** A alternative's best cutting so far, and what it costs by the Brief's weights. */
export interface AlternativeFound {
  cutting: Cutting;
  cost: number;
}

export interface AlternativeRun {
  state: 'idle' | 'running' | 'done';
  stopped: boolean;
  found: Partial<Record<Alternative, AlternativeFound>>;
  /** The least that any cutting can cost by the Brief's weights, proven. */
  bound: number;
  /** Why there is none. */
  reasons: string[];
}
const IDLE: AlternativeRun = { state: 'idle', stopped: false, found: {}, bound: 0, reasons: [] };

/** One search for all alternatives, in a worker of its own that can be ended at any moment; the best so far are kept. */
export function useAlternatives() {
  const [run, setRun] = useState<AlternativeRun>(IDLE);
  const worker = useRef<Worker | null>(null);
  const end = () => {
    worker.current?.terminate();
    worker.current = null;
  };
  useEffect(() => end, []);
  return {
    run,
    start(problem: CutProblem, seconds: number) {
      end();
      const mine = new Worker(new URL('./cut.worker.ts', import.meta.url), { type: 'module' });
      worker.current = mine;
      setRun({ ...IDLE, state: 'running' });
      const better = (alternative: Alternative, stated: CutProblem, cutting: Cutting) => {
        if (worker.current !== mine) return;
        const cost = costUnder(problem, cutting, stated);
        setRun((now) => {
          const before = now.found[alternative];
          // The lightest is another problem each time: the latest counts. Of the others the cheaper by their own weights.
          const keeps =
            before && alternative !== 'lightest' && before.cutting.cost.total < cutting.cost.total - 1e-9;
          return {
            ...now,
            found: keeps ? now.found : { ...now.found, [alternative]: { cutting, cost } },
            bound: alternative === 'balanced' ? Math.max(now.bound, cutting.bound) : now.bound,
          };
        });
      };
      const done = (reasons: string[]) => {
        if (worker.current !== mine) return;
        setRun((now) => ({ ...now, state: 'done', reasons }));
        end();
      };
      wrap<CutWorker>(mine)
        .alternatives(problem, seconds, proxy(better))
        .then(done, (error: unknown) => done([error instanceof Error ? error.message : String(error)]));
    },
    stop() {
      end();
      setRun((now) => ({
        ...now,
        state: Object.keys(now.found).length > 0 ? 'done' : 'idle',
        stopped: true,
      }));
    },
    clear() {
      end();
      setRun(IDLE);
    },
  };
}
