import { dequal } from 'dequal/lite';
import { KIND_NAMES, type Entity, type Kind } from './schema.ts';
import type { Scene } from './scene.ts';

/** What differs between two scenes, entity by entity: how a worker's copy of a scene is kept up without sending all of it. */
export interface Delta {
  kind: Kind;
  id: string;
  /** Null when it is gone. */
  entity: Entity<Kind> | null;
}

/** The entities that are not the same in two scenes; groups that are the same object are not looked into. */
export function deltaOf(before: Scene, after: Scene): Delta[] {
  return KIND_NAMES.flatMap((kind): Delta[] => {
    const [old, fresh]: Readonly<Record<string, Entity<Kind>>>[] = [before[kind], after[kind]];
    if (old === fresh) return [];
    const gone = Object.keys(old).filter((id) => !Object.hasOwn(fresh, id));
    return [
      ...gone.map((id) => ({ kind, id, entity: null })),
      ...Object.keys(fresh).flatMap((id) =>
        isSame(old[id], fresh[id]) ? [] : [{ kind, id, entity: fresh[id] }],
      ),
    ];
  });
}

/** An acknowledged change comes back from the server as another object with equal content. */
const isSame = (a: Entity<Kind> | undefined, b: Entity<Kind>): boolean =>
  a === b || (a?.v === b.v && dequal(a, b));

/** The scene with a difference applied; groups that do not change are shared. Versions of what was removed are not kept. */
export function withDelta(scene: Scene, delta: readonly Delta[]): Scene {
  const next: Record<Kind, Record<string, Entity<Kind>>> & Pick<Scene, 'removed'> = { ...scene };
  for (const kind of new Set(delta.map((entry) => entry.kind))) {
    const group = { ...next[kind] };
    for (const { kind: of, id, entity } of delta)
      if (of === kind) {
        if (entity) group[id] = entity;
        else delete group[id];
      }
    next[kind] = group;
  }
  return sceneOf(next);
}

/** Each group holds entities of its kind: they came from a scene and went back under the same kind. */
function sceneOf(groups: object): Scene {
  if (!isScene(groups)) throw new Error('a scene lacks one of its groups');
  return groups;
}
const isScene = (groups: object): groups is Scene => KIND_NAMES.every((kind) => kind in groups);
