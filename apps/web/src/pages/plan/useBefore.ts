import { useEffect, useMemo, useState } from 'react';
import { compileRelief, contoursOf } from '@quarry/core/relief';
import { formatPlates } from '@quarry/core/lattice';
import type { Scene } from '@quarry/core/scene';
import { useView } from '../../data/view.ts';
import type { Ground } from '../../workers/survey.tsx';

/** What the board shows: the scene as it is, or as it was when somebody kept it, with what has changed since. */
export function useBefore(display: string, scene: Scene, ground: Ground | null) {
  const { before, showsBefore } = useView();
  const kept = before?.display === display && showsBefore ? before : null;
  const [old, setOld] = useState<{ of: Scene; ground: Ground } | null>(null);
  useEffect(() => {
    if (!kept || old?.of === kept.scene) return;
    const relief = compileRelief(kept.scene);
    setOld({
      of: kept.scene,
      ground: { relief, tiles: [{ ...bounds(relief), contours: contoursOf(relief) }] },
    });
  }, [kept]);
  const difference = useMemo(
    () => (kept && old?.of === kept.scene && ground ? differenceOf(old.ground, ground) : null),
    [kept, old, ground],
  );
  if (!kept || old?.of !== kept.scene) return { scene, ground, before: false, words: null };
  return {
    scene: kept.scene,
    ground: old.ground,
    before: true,
    words: `As kept at ${kept.kept}. ${difference ?? ''}`,
  };
}

const bounds = ({ x, y, w, d }: Ground['relief']) => ({ x, y, w, d });

/** How many studs have been raised and lowered since, and by how much ground in all. */
function differenceOf({ relief: old }: Ground, { relief: now }: Ground): string {
  if (old.x !== now.x || old.y !== now.y || old.w !== now.w || old.d !== now.d)
    return 'The footprint has changed since.';
  let [raised, lowered, more] = [0, 0, 0];
  for (let i = 0; i < now.height.length; i++) {
    const by = now.height[i] - old.height[i];
    if (by > 0) raised++;
    if (by < 0) lowered++;
    more += by;
  }
  if (raised === 0 && lowered === 0) return 'The ground is the same now.';
  const volume = `${more >= 0 ? '+' : '−'}${Math.abs(more).toLocaleString('en')} stud-plates`;
  return `Since then ${raised.toLocaleString('en')} studs raised, ${lowered.toLocaleString('en')} lowered: ${volume}, ${formatPlates(Math.round(Math.abs(more) / Math.max(1, raised + lowered)))} on average.`;
}
