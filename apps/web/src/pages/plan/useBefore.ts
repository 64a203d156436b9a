import { useEffect, useMemo, useState } from 'react';
import { groundDifference, type Relief } from '@quarry/core/terrain';
import { formatPlates } from '@quarry/core/grid';
import type { Scene } from '@quarry/core/document';
import { useView } from '../../data/view.ts';
import { useDerived, type CompiledGround } from '../../workers/derived.tsx';

/** What the board shows: the scene now, or the kept one, with the changes since. */
export function useBefore(display: string, scene: Scene, ground: CompiledGround | null) {
  const { before, showsBefore } = useView();
  const core = useDerived(({ core }) => core);
  const kept = before?.display === display && showsBefore ? before : null;
  const [old, setOld] = useState<{ of: Scene; ground: CompiledGround } | null>(null);
  const oldScene = old?.of ?? null;
  useEffect(() => {
    if (!kept || !core || oldScene === kept.scene) return;
    let wanted = true;
    void core.groundOf(kept.scene).then((ground) => wanted && setOld({ of: kept.scene, ground }));
    return () => {
      wanted = false;
    };
  }, [kept, core, oldScene]);
  const difference = useMemo(
    () => (kept && old?.of === kept.scene && ground ? sentence(old.ground.relief, ground.relief) : null),
    [kept, old, ground],
  );
  if (!kept || old?.of !== kept.scene) return { scene, ground, before: false, words: null };
  return {
    scene: kept.scene,
    ground: old.ground,
    before: true,
    words: `${kept.kept}. ${difference ?? ''}`,
  };
}

/** How many studs have been raised and lowered since, and by how much ground in all. */
function sentence(old: Relief, now: Relief): string {
  const difference = groundDifference(old, now);
  if (!difference) return 'The footprint has changed since.';
  const { raised, lowered, volume } = difference;
  if (raised === 0 && lowered === 0) return 'The ground is the same now.';
  const sign = volume >= 0 ? '+' : '−';
  const all = `${sign}${Math.abs(volume).toLocaleString('en')} stud-plates`;
  return `Since then ${raised.toLocaleString('en')} studs raised, ${lowered.toLocaleString('en')} lowered: ${all}, ${formatPlates(Math.round(Math.abs(volume) / (raised + lowered)))} on average.`;
}
