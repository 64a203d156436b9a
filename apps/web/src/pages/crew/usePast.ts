import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { fromRows, type Scene } from '@quarry/core/document';
import { keys } from '../../data/api.ts';
import { crewApi } from '../../data/crewApi.ts';
import { useLink } from '../../data/useDisplay.tsx';
import { useDerived, type CompiledGround } from '../../workers/useDerived.ts';

/** The display as it was after a number of its log; its ground a moment later. Null: nothing is asked. */
export function usePast(seq: number | null) {
  const link = useLink();
  const core = useDerived(({ core }) => core);
  const past = useQuery({
    queryKey: keys.past(link.id, seq ?? 0),
    enabled: seq !== null,
    staleTime: Infinity,
    // What was does not change, but old scenes are large.
    gcTime: 60_000,
    queryFn: async () => {
      const { rows, at } = await crewApi.past(link.id, seq ?? 0);
      return { scene: fromRows(rows), at };
    },
  });
  const [drawn, setDrawn] = useState<{ of: Scene; ground: CompiledGround } | null>(null);
  const scene = past.data?.scene ?? null;
  useEffect(() => {
    if (!scene || !core) return;
    let wanted = true;
    void core.groundOf(scene).then((ground) => wanted && setDrawn({ of: scene, ground }));
    return () => {
      wanted = false;
    };
  }, [scene, core]);
  return {
    scene,
    at: past.data?.at ?? null,
    ground: drawn?.of === scene ? drawn.ground : null,
    error: past.error,
  };
}
