import { proxy, wrap } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { Market, Sourcing } from '@quarry/core/materials';
import type { PartLine } from '@quarry/core/document';
import type { BuyGoal, SourceWorker } from '../../workers/source.worker.ts';

const SECONDS = 8;

/** One search for a purchase at a time, in a worker that can be ended; the best so far is kept. */
export function useBuy() {
  const [found, setFound] = useState<Partial<Record<BuyGoal, Sourcing>>>({});
  const [running, setRunning] = useState<BuyGoal | null>(null);
  const worker = useRef<Worker | null>(null);
  const end = () => {
    worker.current?.terminate();
    worker.current = null;
    setRunning(null);
  };
  useEffect(() => () => worker.current?.terminate(), []);
  return {
    found,
    running,
    stop: end,
    clear() {
      end();
      setFound({});
    },
    async start(needs: readonly PartLine[], market: Market, goal: BuyGoal) {
      end();
      const mine = new Worker(new URL('../../workers/source.worker.ts', import.meta.url), { type: 'module' });
      worker.current = mine;
      setRunning(goal);
      const keep = (sourcing: Sourcing) => {
        if (worker.current === mine) setFound((before) => ({ ...before, [goal]: sourcing }));
      };
      try {
        keep(await wrap<SourceWorker>(mine).buy(needs, market, goal, SECONDS, proxy(keep)));
      } catch (error) {
        keep({ ok: false, uncovered: [], reason: error instanceof Error ? error.message : String(error) });
      }
      if (worker.current === mine) end();
    },
  };
}
