import { proxy, wrap } from 'comlink';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Market, Sourcing } from '@quarry/core/materials';
import type { PartLine } from '@quarry/core/document';
import type { BuyGoal, SourceWorker } from '../../workers/source.worker.ts';

const SECONDS = 8;

type Found = Partial<Record<BuyGoal, Sourcing>>;
const NOTHING: Found = {};

/**
 * One search for a purchase at a time, in a worker that can be ended; the best so far is kept as long as the same is
 * wanted of the same market.
 */
export function useBuy(needs: readonly PartLine[], market: Market) {
  // Counted again, the same lines may come in other arrays: then what was found still holds.
  const about = useMemo(() => JSON.stringify([needs, market]), [needs, market]);
  const [kept, setKept] = useState<{ about: string; found: Found }>({ about, found: NOTHING });
  const [running, setRunning] = useState<BuyGoal | null>(null);
  /** Goals whose search was ended before it was over. */
  const [cut, setCut] = useState<ReadonlySet<BuyGoal>>(new Set());
  const worker = useRef<Worker | null>(null);
  const end = () => {
    worker.current?.terminate();
    worker.current = null;
    setRunning(null);
  };
  // A search for what is wanted no more is given up.
  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = null;
      setRunning(null);
      setCut(new Set());
    },
    [about],
  );
  return {
    found: kept.about === about ? kept.found : NOTHING,
    running,
    cut,
    stop() {
      if (running) setCut((before) => new Set(before).add(running));
      end();
    },
    async start(goal: BuyGoal) {
      // One at a time: what ran until now is ended by it.
      setCut((before) => new Set([...before, ...(running ? [running] : [])].filter((one) => one !== goal)));
      end();
      const mine = new Worker(new URL('../../workers/source.worker.ts', import.meta.url), { type: 'module' });
      worker.current = mine;
      setRunning(goal);
      const keep = (sourcing: Sourcing) => {
        if (worker.current === mine)
          setKept((before) => ({
            about,
            found: { ...(before.about === about ? before.found : NOTHING), [goal]: sourcing },
          }));
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
