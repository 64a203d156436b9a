import { useMemo } from 'react';
import { pieceCounts, type CountedBlock, type PieceCounts } from '@quarry/core/progress';
import { useDerived } from './useDerived.ts';

/** Pieces of every section by kind of work, as the plan is counted; null until it is. */
export function useCounts(): PieceCounts | null {
  const needs = useDerived(({ materials }) => materials?.needs ?? null);
  return useMemo(() => needs && pieceCounts(needs), [needs]);
}

/** The modules, and ground in none, with the pieces of their ground; null until they are counted. */
export function useBlocks(): CountedBlock[] | null {
  const blocks = useDerived(({ materials }) => materials?.blocks ?? null);
  return useMemo(
    () =>
      blocks?.map(({ block: { id, name, rest, part, x, y, w, d }, counted }) => ({
        ...{ id, x, y, w, d, pieces: counted.pieces },
        name: part ? name : rest ? `the ground ${name}` : `module ${name}`,
      })) ?? null,
    [blocks],
  );
}
