import { proxy, wrap } from 'comlink';
import { useEffect, useMemo, useRef, useState } from 'react';
import { type Scene } from '@quarry/core/document';
import { judgedThings, planDigest, type CarriedStanding } from '@quarry/core/stability';
import { keptStandings } from '../data/keptAnswers.ts';
import type { StabilityWorker } from './stability.worker.ts';

export interface StabilityRun {
  /** `asking`: whether it is kept already. */
  state: 'asking' | 'idle' | 'running' | 'done' | 'failed';
  standings: readonly CarriedStanding[];
  /** How many are judged, with the share of the one in hand. */
  done: number;
  error: string | null;
  /** The content of the plan that was judged. */
  digest: string | null;
}
const NOTHING: StabilityRun = { state: 'asking', standings: [], done: 0, error: null, digest: null };

/** Judges all modules and decks that lift off in a worker of its own, which can be ended at any moment; what was judged is kept in this browser. */
export function useStability(displayId: string, scene: Scene) {
  const [run, setRun] = useState<StabilityRun>(NOTHING);
  const thread = useRef<Worker | null>(null);
  const digest = useMemo(() => planDigest(scene), [scene]);
  const end = () => {
    thread.current?.terminate();
    thread.current = null;
  };
  useEffect(() => end, []);
  useEffect(() => {
    let wanted = true;
    void keptStandings
      .read(displayId, CORE_DIGEST, digest)
      .catch(() => null)
      .then((standings) => {
        if (!wanted) return;
        setRun((now) =>
          standings && now.state !== 'running'
            ? { ...NOTHING, state: 'done', standings, digest }
            : now.state === 'asking'
              ? { ...NOTHING, state: 'idle' }
              : now,
        );
      });
    return () => {
      wanted = false;
    };
  }, [displayId, digest]);
  const start = () => {
    end();
    const worker = new Worker(new URL('./stability.worker.ts', import.meta.url), { type: 'module' });
    thread.current = worker;
    const isMine = () => thread.current === worker;
    const standings: CarriedStanding[] = [];
    const change = (more: Partial<StabilityRun>) => {
      if (isMine()) setRun((now) => ({ ...now, ...more }));
    };
    const fail = (error: string) => {
      change({ state: 'failed', error });
      if (isMine()) end();
    };
    worker.addEventListener('error', ({ message }) => fail(message || 'The judging could not be loaded.'));
    setRun({ ...NOTHING, state: 'running', digest });
    wrap<StabilityWorker>(worker)
      .judgeAll(
        scene,
        proxy((standing: CarriedStanding) => {
          standings.push(standing);
          change({ standings: [...standings] });
        }),
        proxy((done: number) => change({ done })),
      )
      .then(
        () => {
          if (!isMine()) return;
          change({ state: 'done', done: judgedThings(scene).length });
          end();
          void keptStandings.keep(displayId, CORE_DIGEST, digest, standings).catch(() => undefined);
        },
        (error: unknown) => fail(error instanceof Error ? error.message : String(error)),
      );
  };
  const stop = () => {
    end();
    setRun((now) => ({ ...now, state: now.standings.length > 0 ? 'done' : 'idle' }));
  };
  return { run, start, stop, isStale: run.digest !== null && run.digest !== digest };
}
