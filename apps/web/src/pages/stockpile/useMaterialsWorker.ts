import type { Remote } from 'comlink';
import { useEffect, useState } from 'react';
import type { MaterialsWorker } from '../../workers/materials.worker.ts';
import { useDerived } from '../../workers/derived.tsx';

/** What the counting worker says of the scene as it was last counted; asked again when that or `about` changes. */
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
    // The question itself is told by `about`.
  }, [masons, blocks, about]);
  return answer?.about === about ? answer.value : null;
}
