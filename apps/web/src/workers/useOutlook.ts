import { useEffect, useState } from 'react';
import type { OutlookAnswer } from '@quarry/core/progress';
import { useDisplay } from '../data/useDisplay.tsx';
import { today } from '../ui/days.ts';
import { useDerived } from './useDerived.ts';
import { useCounts } from './useCounts.ts';

const RUNS = 5000;
/** One seed for all: two people see the same odds. */
const SEED = 1;
/** Debounce before the forecast runs again, ms. */
const PLAY_AFTER = 400;

/** When the display will be done, with odds, a moment after each change; null until it is counted and played. */
export function useOutlook(): { answer: OutlookAnswer | null; counting: boolean } {
  const scene = useDisplay(({ scene }) => scene);
  const core = useDerived(({ core }) => core);
  const counts = useCounts();
  const [answer, setAnswer] = useState<OutlookAnswer | null>(null);
  useEffect(() => {
    let wanted = true;
    const timer = setTimeout(() => {
      if (counts)
        void core
          ?.outlook(scene, today(), { runs: RUNS, seed: SEED, counts })
          .then((one) => wanted && setAnswer(one));
    }, PLAY_AFTER);
    return () => {
      wanted = false;
      clearTimeout(timer);
    };
  }, [scene, core, counts]);
  return { answer, counting: counts === null };
}
