import type { Remote } from 'comlink';
import { useDerived, type DerivedWorker } from '../../workers/useDerived.ts';
import { useAnswer } from '../../workers/useAnswer.ts';

/** Queries the derived data of the last counted scene. See `useAnswer`. */
export function useMaterialsWorker<P extends Promise<unknown>>(
  ask: (core: Remote<DerivedWorker>) => P,
  about: string,
): Awaited<P> | null {
  const worker = useDerived(({ core }) => core);
  const blocks = useDerived(({ materials }) => materials?.blocks ?? null);
  return useAnswer(worker, blocks, about, ask);
}
