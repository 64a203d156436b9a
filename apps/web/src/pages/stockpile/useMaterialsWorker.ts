import type { Remote } from 'comlink';
import { useEffect, useState } from 'react';
import type { MaterialsWorker } from '../../workers/materials.worker.ts';
import { useDerived } from '../../workers/derived.tsx';

/** Queries the materials worker about the last counted scene; repeated when that or `about` changes. */
export function useMaterialsWorker<P extends Promise<unknown>>(
  ask: (masons: Remote<MaterialsWorker>) => P,
  about: string,
): Awaited<P> | null {
  const masons = useDerived(({ masons }) => masons);
  const blocks = useDerived(({ materials }) => materials?.blocks);
  const [answer, setAnswer] = useState<{ about: string; value: Awaited<P> } | null>(null);
  useEffect(() => {
    if (!masons || !blocks) return;
    let wanted = true;
    void (async () => {
      const value = await ask(masons);
      if (wanted) setAnswer({ about, value });
    })();
    return () => {
      wanted = false;
    };
    // `about` identifies the question.
  }, [masons, blocks, about]);
  return answer?.about === about ? answer.value : null;
}
