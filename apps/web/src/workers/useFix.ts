import { wrap } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { TriedFix } from '@quarry/core/findings';
import type { Scene } from '@quarry/core/document';
import { today } from '../ui/days.ts';
import type { FixWorker } from './fix.worker.ts';

type FixState =
  | { is: 'idle' }
  | { is: 'trying' }
  | { is: 'found'; fix: TriedFix; scene: Scene }
  | { is: 'none' }
  | { is: 'failed'; error: string };

/** Looks for a fix of a finding in a worker of its own, which can be ended at any moment. */
export function useFix(): { state: FixState; look: (scene: Scene, key: string) => void; end: () => void } {
  const [state, setState] = useState<FixState>({ is: 'idle' });
  const thread = useRef<Worker | null>(null);
  const stop = () => {
    thread.current?.terminate();
    thread.current = null;
  };
  useEffect(() => stop, []);
  const look = (scene: Scene, key: string) => {
    stop();
    const worker = new Worker(new URL('./fix.worker.ts', import.meta.url), { type: 'module' });
    thread.current = worker;
    const finish = (next: FixState) => {
      if (thread.current !== worker) return;
      stop();
      setState(next);
    };
    worker.addEventListener('error', ({ message }) =>
      finish({ is: 'failed', error: message || 'The fixes could not be loaded.' }),
    );
    setState({ is: 'trying' });
    wrap<FixWorker>(worker)
      .tryFixes(scene, key, today())
      .then(
        (fix) => finish(fix ? { is: 'found', fix, scene } : { is: 'none' }),
        (error: unknown) =>
          finish({ is: 'failed', error: error instanceof Error ? error.message : String(error) }),
      );
  };
  const end = () => {
    stop();
    setState({ is: 'idle' });
  };
  return { state, look, end };
}
