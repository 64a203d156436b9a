import {
  changesInVersion,
  type Change,
  type Difference,
  type Scene,
  type versionKeeper,
} from '@quarry/core/document';

/** The version that a window shows, and where its changes go. */
export interface ShownVersion {
  id: string;
  scope: 'version' | 'all';
  /** Differences that do not fit the base any more. */
  lost: readonly Difference[];
}

/** The display as a window shows it; a version that there is no longer is the base. */
export function asShown(
  base: Scene,
  shown: Omit<ShownVersion, 'lost'> | null,
  inVersion: ReturnType<typeof versionKeeper>,
): { scene: Scene; base: Scene; version: ShownVersion | null } {
  const inIt = shown && base.version[shown.id] ? inVersion(base, shown.id) : null;
  return {
    scene: inIt?.scene ?? base,
    base,
    version: shown && inIt ? { ...shown, lost: inIt.lost } : null,
  };
}

/** Changes of what is shown as changes of the display. */
export const changesInBase = (
  base: Scene,
  version: ShownVersion | null,
  changes: Change[],
): ReturnType<typeof changesInVersion> =>
  version ? changesInVersion(base, version.id, changes, version.scope) : { ok: true, changes };
