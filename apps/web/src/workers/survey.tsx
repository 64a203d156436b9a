import { wrap, type Remote } from 'comlink';
import { formatISO } from 'date-fns';
import { createContext, use, useEffect, useRef, useState, type ReactNode } from 'react';
import type { Scene } from '@quarry/core/scene';
import { useDisplay } from '../data/useDisplay.tsx';
import type { CoreWorker, Survey } from './core.worker.ts';

interface SurveyState {
  survey: Survey | null;
  error: string | null;
  /** Asks the worker for what is worked out only on demand; null until it runs. */
  core: Remote<CoreWorker> | null;
}
const SurveyContext = createContext<SurveyState>({ survey: null, error: null, core: null });

export const today = () => formatISO(new Date(), { representation: 'date' });

/** Keeps the worker's survey of the scene fresh: one question at a time, always about the latest scene. */
export function SurveyProvider({ children }: { children: ReactNode }) {
  const { scene } = useDisplay();
  const [state, setState] = useState<SurveyState>({ survey: null, error: null, core: null });
  const latest = useRef<Scene>(scene);
  const ask = useRef<() => void>(() => undefined);
  latest.current = scene;
  useEffect(() => {
    const worker = new Worker(new URL('./core.worker.ts', import.meta.url), { type: 'module' });
    const core: Remote<CoreWorker> = wrap<CoreWorker>(worker);
    let busy = false;
    let asked: Scene | null = null;
    let ended = false;
    ask.current = () => {
      if (busy || asked === latest.current) return;
      busy = true;
      asked = latest.current;
      core
        .survey(asked, today())
        .then(
          (survey) => !ended && setState({ survey, error: null, core }),
          (error: unknown) =>
            !ended &&
            setState(({ survey }) => ({
              core,
              survey,
              error: error instanceof Error ? error.message : String(error),
            })),
        )
        .finally(() => {
          busy = false;
          if (!ended) ask.current();
        });
    };
    ask.current();
    return () => {
      ended = true;
      ask.current = () => undefined;
      worker.terminate();
    };
  }, []);
  useEffect(() => ask.current(), [scene]);
  return <SurveyContext value={state}>{children}</SurveyContext>;
}

export const useSurvey = () => use(SurveyContext);
