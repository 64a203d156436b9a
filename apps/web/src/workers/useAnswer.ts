import { useEffect, useEffectEvent, useState } from 'react';

/**
 * What a worker answers to a question; the last answer stays until the next is there.
 * @param worker null: it does not run yet
 * @param version of what the worker knows: the question is asked again when it changes
 * @param about identifies the question: asked again when it changes, and its answer is not that of another
 * @param ask null: nothing to ask
 */
export function useAnswer<W, P extends Promise<unknown>>(
  worker: W | null,
  version: unknown,
  about: string,
  ask: ((worker: W) => P) | null,
): Awaited<P> | null {
  const [answer, setAnswer] = useState<{ about: string; value: Awaited<P> } | null>(null);
  const question = useEffectEvent(async (of: W, isWanted: () => boolean) => {
    if (!ask) return;
    const value = await ask(of);
    if (isWanted()) setAnswer({ about, value });
  });
  const isAsked = ask !== null;
  useEffect(() => {
    if (worker === null || version === null || !isAsked) return;
    let wanted = true;
    void question(worker, () => wanted);
    return () => {
      wanted = false;
    };
  }, [worker, version, about, isAsked]);
  return answer?.about === about ? answer.value : null;
}
