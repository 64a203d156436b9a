import { proxy, wrap } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { Cutting, CutProblem } from '@quarry/core/cut';
import type { CutWorker } from './cut.worker.ts';

export type CutRun =
  | { state: 'idle' }
  | { state: 'running'; best: Cutting | null; since: number }
  | { state: 'done'; best: Cutting; stopped: boolean }
  | { state: 'none'; reasons: string[] };

/** One search for a cutting, in a worker of its own that can be ended at any moment; the best so far is kept. */
export function useCutRun() {
  const [run, setRun] = useState<CutRun>({ state: 'idle' });
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
      setRun({ state: 'running', best: null, since: performance.now() });
      const better = (cutting: Cutting) => {
        if (worker.current === mine)
          setRun((now) =>
            now.state === 'running' && (!now.best || cutting.cost.total <= now.best.cost.total + 1e-9)
              ? { ...now, best: cutting }
              : now,
          );
      };
      wrap<CutWorker>(mine)
        .cut(problem, seconds, proxy(better))
        .then(
          (answer) =>
            worker.current === mine &&
            setRun(
              answer.feasible
                ? { state: 'done', best: answer.cutting, stopped: false }
                : { state: 'none', reasons: answer.reasons },
            ),
          (error: unknown) =>
            worker.current === mine &&
            setRun({ state: 'none', reasons: [error instanceof Error ? error.message : String(error)] }),
        )
        .finally(() => worker.current === mine && end());
    },
    stop() {
      end();
      setRun((now) =>
        now.state !== 'running'
          ? now
          : now.best
            ? { state: 'done', best: now.best, stopped: true }
            : { state: 'idle' },
      );
    },
    clear() {
      end();
      setRun({ state: 'idle' });
    },
  };
}
