import type { Remote } from 'comlink';
import { useEffect, useState } from 'react';
import type { CoreWorker } from './core.worker.ts';
import { useDerived } from './derived.tsx';

/**
 * Queries the worker about the last evaluated scene, repeated when that or `about` changes; the last
 * answer stays until the next is there.
 * @param ask null: nothing to ask
 */
export function useWorkerQuery<P extends Promise<unknown>>(
  ask: ((core: Remote<CoreWorker>) => P) | null,
  about = '',
): Awaited<P> | null {
  const core = useDerived(({ core }) => core);
  const judgement = useDerived(({ judgement }) => judgement);
  const [answer, setAnswer] = useState<{ about: string; value: Awaited<P> } | null>(null);
  useEffect(() => {
    if (!core || !ask) return;
    let wanted = true;
    void (async () => {
      const value = await ask(core);
      if (wanted) setAnswer({ about, value });
    })();
    return () => {
      wanted = false;
    };
    // `about` identifies the question.
  }, [core, judgement, about, ask === null]);
  return answer?.about === about ? answer.value : null;
}
