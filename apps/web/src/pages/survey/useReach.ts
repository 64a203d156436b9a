import { useEffect, useState } from 'react';
import type { Scene } from '@quarry/core/document';
import type { Reach } from '@quarry/core/reach';
import { useDerived } from '../../workers/useDerived.ts';

/** The reach of a scene as it is looked at: the survey's own where it is the current place, else asked for. */
export function useReach(seen: Scene, current: boolean): Reach | null {
  const judgement = useDerived(({ judgement }) => judgement);
  const core = useDerived(({ core }) => core);
  const [other, setOther] = useState<Reach | null>(null);
  useEffect(() => {
    if (current || !core) return;
    let wanted = true;
    void core.reach(seen).then((reach) => wanted && setOther(reach));
    return () => {
      wanted = false;
    };
  }, [seen, current, core]);
  return current ? (judgement?.reach ?? null) : other;
}
