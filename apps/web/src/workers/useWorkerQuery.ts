import type { Remote } from 'comlink';
import { useDerived, type DerivedWorker } from './useDerived.ts';
import { useAnswer } from './useAnswer.ts';

/** Queries the core worker about the last evaluated scene. See `useAnswer`. */
export function useWorkerQuery<P extends Promise<unknown>>(
  ask: ((core: Remote<DerivedWorker>) => P) | null,
  about = '',
): Awaited<P> | null {
  const core = useDerived(({ core }) => core);
  // Findings that follow a moment later are of the same scene.
  const version = useDerived(({ judgement }) => judgement?.version ?? null);
  return useAnswer(core, version, about, ask);
}
