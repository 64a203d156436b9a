import { useMemo, useState } from 'react';
import { listOf, sceneInVersion, type Scene } from '@quarry/core/document';
import { useDisplay } from './useDisplay.tsx';

/** A version of a display; null: its base. */
export type VersionId = string | null;

/** How a version is called. */
export const versionName = ({ version }: Pick<Scene, 'version'>, id: VersionId): string =>
  id === null ? 'Base' : (version[id]?.name ?? 'Base');

/** The base and all versions of a display but one. */
export const otherVersions = (
  base: Pick<Scene, 'version'>,
  shown: VersionId,
): { id: VersionId; name: string }[] =>
  [null, ...listOf(base, 'version').map(({ id }) => id)]
    .filter((id) => id !== shown)
    .map((id) => ({ id, name: versionName(base, id) }));

/** What a display shows in a version. */
export const sceneOfVersion = (base: Scene, id: VersionId): Scene =>
  id === null ? base : sceneInVersion(base, id).scene;

/** Values of the choice of a version to be seen beside the one that is shown. */
const NONE = 'none';
const BASE = 'base';
const keyOf = (id: VersionId) => (id === null ? BASE : `version ${id}`);

/** Another version that is seen beside the one that is shown, chosen by hand. */
export function useVersionBeside() {
  const base = useDisplay((state) => state.base);
  const shown = useDisplay(({ version }) => version?.id ?? null);
  const [chosen, choose] = useState(NONE);
  const others = otherVersions(base, shown);
  const other = others.find(({ id }) => keyOf(id) === chosen) ?? null;
  const id = other?.id;
  const scene = useMemo(() => (id === undefined ? null : sceneOfVersion(base, id)), [base, id]);
  return {
    /** Null: none is seen. */
    beside: other && scene ? { name: other.name, id: other.id, scene } : null,
    /** How the version that is shown is called. */
    own: versionName(base, shown),
    /** Fields of a choice; empty where there is no other version. */
    options:
      others.length === 0
        ? []
        : [
            { value: NONE, word: 'nothing' },
            ...others.map((one) => ({ value: keyOf(one.id), word: one.name })),
          ],
    value: other ? chosen : NONE,
    choose,
  };
}
