import { useEffect, useRef, useState } from 'react';
import type { Scene } from '@quarry/core/document';
import { askOnce, type Asked } from './askOnce.ts';
import { today } from '../ui/days.ts';
import type { JudgedVersions, VersionsWorker } from './versions.worker.ts';

/** Counts and judges versions in a worker of its own, which can be ended at any moment. */
export function useVersions(): {
  state: Asked<JudgedVersions>;
  judge: (base: Scene, ids: readonly string[]) => void;
  end: () => void;
} {
  const [state, setState] = useState<Asked<JudgedVersions>>({ is: 'idle' });
  const stop = useRef<() => void>(() => undefined);
  useEffect(() => () => stop.current(), []);
  return {
    state,
    judge: (base, ids) => {
      stop.current();
      stop.current = askOnce<VersionsWorker, JudgedVersions>(
        new Worker(new URL('./versions.worker.ts', import.meta.url), { type: 'module' }),
        (worker, onProgress) => worker.judge(base, ids, today(), onProgress),
        setState,
      );
    },
    end: () => {
      stop.current();
      setState({ is: 'idle' });
    },
  };
}
