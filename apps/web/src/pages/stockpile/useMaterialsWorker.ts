import type { Remote } from 'comlink';
import type { MaterialsWorker } from '../../workers/materials.worker.ts';
import { useDerived } from '../../workers/derived.tsx';
import { useAnswer } from '../../workers/useAnswer.ts';

/** Queries the materials worker about the last counted scene. See `useAnswer`. */
export function useMaterialsWorker<P extends Promise<unknown>>(
  ask: (materials: Remote<MaterialsWorker>) => P,
  about: string,
): Awaited<P> | null {
  const worker = useDerived(({ materialsWorker }) => materialsWorker);
  const blocks = useDerived(({ materials }) => materials?.blocks ?? null);
  return useAnswer(worker, blocks, about, ask);
}
