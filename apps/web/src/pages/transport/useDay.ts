import { useMemo } from 'react';
import type { Scene } from '@quarry/core/document';
import {
  closingsOf,
  helpersOf,
  phaseTimes,
  type DayAnswer,
  type ShowPhase,
  type ShowTask,
} from '@quarry/core/transport';
import { useDayPlan } from '../../workers/useTransport.ts';

/** The words for a phase of a show. */
export const PHASE_WORDS: Record<ShowPhase, string> = {
  leave: 'Packing at home',
  setup: 'Setting up',
  takedown: 'Taking down',
  rebuild: 'Home again',
};

/**
 * The plan of a phase; null until it is planned.
 * @param tasks null: not known yet
 * @param now minutes after its beginning; null: as if everybody came in time
 * @param origin the moment of its beginning, ms since 1970
 */
export function useDay(
  scene: Scene,
  tasks: readonly ShowTask[] | null,
  phase: ShowPhase,
  now: number | null = null,
  origin = 0,
): DayAnswer | null {
  const question = useMemo((): Parameters<typeof useDayPlan>[0] => {
    if (!tasks || tasks.length === 0) return null;
    const times = phaseTimes(scene, phase);
    const helpers = helpersOf(scene, phase).map(({ id, arrives, carriesKg }) => ({ id, arrives, carriesKg }));
    return [tasks, helpers, { now, origin, until: times.until, closed: closingsOf(times) }];
  }, [tasks, scene, phase, now, origin]);
  return useDayPlan(question);
}
