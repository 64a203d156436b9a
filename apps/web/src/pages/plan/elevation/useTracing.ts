import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { loadTracing, putTracing, type KeptTracing } from '../../../data/tracings.ts';

/** The photograph below a front, and the way to change it; null while none is there. @param front of one side of one building */
export function useTracing(front: string): [KeptTracing | null, (tracing: KeptTracing | null) => void] {
  const [kept, setKept] = useState<{ front: string; tracing: KeptTracing | null }>({ front, tracing: null });
  useEffect(() => {
    let isWanted = true;
    void loadTracing(front).then((tracing) => isWanted && setKept({ front, tracing }));
    return () => {
      isWanted = false;
    };
  }, [front]);
  return [
    kept.front === front ? kept.tracing : null,
    (tracing) => {
      setKept({ front, tracing });
      putTracing(front, tracing).catch(() =>
        toast.error('This browser keeps no photograph: it is here until the page is left.'),
      );
    },
  ];
}
