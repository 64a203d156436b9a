import type { Reach } from '@quarry/core/reach';
import { useDerived } from '../../workers/useDerived.ts';
import { useWorkerQuery } from '../../workers/useWorkerQuery.ts';

/** The reach in a place: the survey's own where the display stands there, else asked for. */
export function useReach(place: string | null, isCurrent: boolean): Reach | null {
  const judgement = useDerived(({ judgement: known }) => known);
  const other = useWorkerQuery(isCurrent ? null : (core) => core.reach(place), place ?? '');
  return isCurrent ? (judgement?.reach ?? null) : other;
}
