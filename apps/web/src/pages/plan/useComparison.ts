import { useMemo } from 'react';
import { groundDifference, type Relief } from '@quarry/core/terrain';
import { formatPlates } from '@quarry/core/grid';
import { differencesBetween, type Scene } from '@quarry/core/document';
import { useDisplay, useLink } from '../../data/useDisplay.tsx';
import { sceneOfVersion, versionName } from '../../data/versions.ts';
import { useView, type Comparison } from '../../data/view.ts';
import type { CompiledGround } from '../../workers/useDerived.ts';
import { useGroundOf } from '../../workers/useGroundOf.ts';

/** What the plan is compared with. */
export interface Compared {
  comparison: Comparison;
  /** How the other scene is called, and this one. */
  other: string;
  own: string;
  scene: Scene;
  /** Null while it is compiled. */
  ground: CompiledGround | null;
  /** What differs, in words; null while it is worked out. */
  words: string | null;
}

/** Another scene that the plan of a display is compared with; null: none. */
export function useComparison(scene: Scene, ground: CompiledGround | null): Compared | null {
  const { id: display } = useLink();
  const { before, comparison: wanted } = useView();
  const base = useDisplay((state) => state.base);
  const shown = useDisplay(({ version }) => version?.id ?? null);
  const comparison = wanted?.display === display && canCompare(wanted, shown, base, before) ? wanted : null;
  const isMoment = comparison?.with === 'moment';
  const version = comparison?.with === 'version' ? comparison.version : undefined;
  const other = useMemo((): Scene | null => {
    if (isMoment) return before?.scene ?? null;
    return version === undefined ? null : sceneOfVersion(base, version);
  }, [isMoment, version, before, base]);
  const otherGround = useGroundOf(other);
  const words = useMemo(
    () =>
      other && otherGround && ground
        ? differenceWords({ scene: other, relief: otherGround.relief }, { scene, relief: ground.relief })
        : null,
    [other, otherGround, scene, ground],
  );
  if (!comparison || !other) return null;
  return {
    comparison,
    other: comparison.with === 'moment' ? (before?.kept ?? '') : versionName(base, comparison.version),
    own: comparison.with === 'moment' ? 'Now' : versionName(base, shown),
    scene: other,
    ground: otherGround,
    words,
  };
}

/** Whether what is to be compared with is there and another than what is shown. */
function canCompare(
  comparison: Comparison,
  shown: string | null,
  base: Pick<Scene, 'version'>,
  before: { display: string } | null,
): boolean {
  if (comparison.with === 'moment') return before?.display === comparison.display;
  const { version } = comparison;
  return version !== shown && (version === null || Object.hasOwn(base.version, version));
}

interface Compiled {
  scene: Scene;
  relief: Relief;
}

/** What differs: things that are added, gone or otherwise, and by how much the ground is higher or lower. */
function differenceWords(other: Compiled, own: Compiled): string {
  const differences = differencesBetween(other.scene, own.scene).length;
  const things =
    differences === 0
      ? 'Nothing of the plan differs.'
      : `${differences.toLocaleString('en')} ${differences === 1 ? 'thing differs' : 'things differ'}.`;
  const ground = groundDifference(other.relief, own.relief);
  if (!ground) return `${things} The footprints differ.`;
  const { raised, lowered, volume } = ground;
  if (raised === 0 && lowered === 0) return `${things} The heights are the same.`;
  const all = `${volume >= 0 ? '+' : '−'}${Math.abs(volume).toLocaleString('en')} stud-plates`;
  return `${things} ${raised.toLocaleString('en')} studs higher, ${lowered.toLocaleString('en')} lower: ${all}, ${formatPlates(Math.round(Math.abs(volume) / (raised + lowered)))} on average.`;
}
