import { partName } from '../catalogue/index.ts';
import {
  DISPLAY_ID,
  KIND_NAMES,
  kindSchema,
  specOf,
  type Display,
  type Entity,
  type Kind,
} from './schema.ts';
import { mapKeys } from './unsafe.ts';
import { STAGES, type Stage } from './vocabulary.ts';

/**
 * A display as plain data: entities by kind and id, and the last version of each removed one (by `keyOf`), so that
 * one that comes back (an undone removal) never repeats a version that a client may still hold.
 */
export type Scene = Groups & { readonly removed: Readonly<Record<string, number>> };
type Groups = { readonly [K in Kind]: Readonly<Record<string, Entity<K>>> };

/** One name for an entity: ids are unique only within their kind. */
export const keyOf = (kind: Kind, id: string): string => `${kind}/${id}`;

/** A scene without anything in it, not even a display. */
export const emptyScene = (): Scene => ({ ...mapKeys(KIND_NAMES, () => ({})), removed: {} });

/** The display entity. @throws when the scene has none, which no reader of this core lets through. */
export function displayOf(scene: Pick<Scene, 'display'>): Display {
  const display = scene.display[DISPLAY_ID];
  if (!display) throw new Error('the scene has no display entity');
  return display;
}

/** What this display calls a stage. */
export const stageWord = (scene: Pick<Scene, 'display'>, stage: Stage): string =>
  displayOf(scene).stageNames[STAGES.indexOf(stage)] ?? stage;

/** An entity by kind and id. @returns undefined when the scene has none of it */
export function entityOf<K extends Kind>(scene: Pick<Scene, K>, kind: K, id: string): Entity<K> | undefined {
  const groups: Pick<Groups, K> = scene;
  return groups[kind][id];
}

/** All entities of a kind in a stable order: by id; the same list for the same group. */
export function listOf<K extends Kind>(scene: Pick<Scene, K>, kind: K): readonly Entity<K>[] {
  const groups: Pick<Groups, K> = scene;
  const known: WeakMap<Groups[K], readonly Entity<K>[]> = lists;
  const group = groups[kind];
  let list = known.get(group);
  if (!list) {
    list = Object.keys(group)
      .sort()
      .map((id) => group[id]);
    known.set(group, list);
  }
  return list;
}
/** Groups never change, so that each is put in order once. */
const lists = new WeakMap();

/** Pads in the order they are laid: `order`, then id. */
export function padsInOrder(scene: Pick<Scene, 'pad'>): Entity<'pad'>[] {
  return listOf(scene, 'pad').toSorted((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1));
}

/** What things are called together: the one by its label, several by how many they are. */
export const labelOfAll = (scene: Scene, things: readonly { kind: Kind; id: string }[]): string => {
  const [only, second] = things;
  return only && !second ? labelOf(scene, only.kind, only.id) : `${things.length} things`;
};

/** How a person calls an entity: “Upper yard”, “section B”, “base 48×48”; of one that is gone the word of its kind. */
export function labelOf(scene: Scene, kind: Kind, id: string): string {
  const entity: Entity<Kind> | undefined = scene[kind][id];
  // A part is called by its id, also where nothing is known of it.
  if (kind === 'partType') return partName(id);
  const { label, word } = specOf(kind);
  if (!entity) return word;
  if (label) return label(entity, (other, otherId, field) => textOf(scene, other, otherId, field));
  return 'name' in entity ? entity.name : word;
}

function textOf(scene: Scene, kind: string, id: string | null, field: string): string | null {
  const read = kindSchema.safeParse(kind);
  if (!read.success || id === null) return null;
  const entity: Readonly<Record<string, unknown>> | undefined = scene[read.data][id];
  const value = entity?.[field];
  return typeof value === 'string' ? value : null;
}
