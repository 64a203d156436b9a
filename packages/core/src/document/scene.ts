import { colourName, partName } from '../catalogue/index.ts';
import { DISPLAY_ID, KINDS, type Display, type Entity, type Kind } from './schema.ts';
import { STAGES, type Stage } from './workSchema.ts';

/**
 * A display as plain data: entities by kind and id, and the last version of each removed one (by `keyOf`), so that
 * one that comes back (an undone removal) never repeats a version that a client may still hold.
 */
export type Scene = Groups & { readonly removed: Readonly<Record<string, number>> };
type Groups = { readonly [K in Kind]: Readonly<Record<string, Entity<K>>> };

/** One name for an entity: ids are unique only within their kind. */
export const keyOf = (kind: Kind, id: string): string => `${kind}/${id}`;

/** A scene without anything in it, not even a display. */
export function emptyScene(): Scene {
  return {
    display: {},
    level: {},
    footprint: {},
    table: {},
    passage: {},
    pad: {},
    plot: {},
    person: {},
    section: {},
    baseType: {},
    module: {},
    seam: {},
    acceptance: {},
    place: {},
    opening: {},
    obstacle: {},
    socket: {},
    barrier: {},
    requirement: {},
    milestone: {},
    space: {},
    vehicle: {},
    furnishing: {},
    terrain: {},
    hill: {},
    hollow: {},
    water: {},
    stream: {},
    way: {},
    track: {},
    run: {},
    repeat: {},
    planting: {},
    tree: {},
    figure: {},
    flag: {},
    marker: {},
    reserved: {},
    note: {},
    picture: {},
    piece: {},
    partType: {},
    recipe: {},
    partList: {},
    lot: {},
    loan: {},
    order: {},
    placeholder: {},
    substitute: {},
    promise: {},
    alias: {},
    thread: {},
    reply: {},
    report: {},
    session: {},
    task: {},
    calendar: {},
    photo: {},
    slot: {},
    removed: {},
  };
}

/** The display entity. @throws when the scene has none, which no reader of this core lets through. */
export function displayOf(scene: Pick<Scene, 'display'>): Display {
  const display = scene.display[DISPLAY_ID];
  if (!display) throw new Error('the scene has no display entity');
  return display;
}

/** What this display calls a stage. */
export const stageWord = (scene: Pick<Scene, 'display'>, stage: Stage): string =>
  displayOf(scene).stageNames[STAGES.indexOf(stage)] ?? stage;

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
export function padsInOrder(scene: Scene): Entity<'pad'>[] {
  return listOf(scene, 'pad').toSorted((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1));
}

const OF_PARTS = ['lot', 'loan', 'placeholder', 'substitute', 'promise'] as const;
const isOfParts = (kind: Kind): kind is (typeof OF_PARTS)[number] => OF_PARTS.some((one) => one === kind);

/** How a person calls an entity: «Upper yard», «section B», «base 48×48». */
export function labelOf(scene: Scene, kind: Kind, id: string): string {
  if (kind === 'baseType') {
    const base = scene.baseType[id];
    return base ? `base ${base.w}×${base.d}` : 'base size';
  }
  if (kind === 'section') {
    const section = scene.section[id];
    return section ? `section ${section.letter}, ${section.name}` : 'section';
  }
  if (kind === 'module') return scene.module[id] ? `module ${scene.module[id].name}` : 'module';
  if (kind === 'seam') {
    const seam = scene.seam[id];
    const name = (module: string) => scene.module[module]?.name ?? module;
    return seam ? `seam ${name(seam.a)}–${name(seam.b)}` : 'seam';
  }
  if (kind === 'acceptance') return 'accepted finding';
  if (kind === 'partType') return partName(id);
  if (kind === 'alias') return scene.alias[id] ? `alias «${scene.alias[id].word}»` : 'alias';
  if (kind === 'thread') return scene.thread[id] ? `«${scene.thread[id].title}»` : 'advice';
  if (kind === 'session' || kind === 'calendar') {
    const { person } = scene[kind][id] ?? { person: null };
    return `${KINDS[kind].word} of ${person ? (scene.person[person]?.name ?? person) : 'somebody'}`;
  }
  if (kind === 'photo') {
    const section = scene.section[scene.photo[id]?.section ?? ''];
    return section ? `photo of section ${section.letter}` : 'photo';
  }
  if (kind === 'reply') {
    const thread = scene.thread[scene.reply[id]?.thread ?? ''];
    return thread ? `answer to «${thread.title}»` : 'answer';
  }
  if (isOfParts(kind)) {
    const of = scene[kind][id];
    return of ? `${KINDS[kind].word}: ${partName(of.part)} in ${colourName(of.colour)}` : KINDS[kind].word;
  }
  const entity = scene[kind][id];
  return entity ? entity.name : KINDS[kind].word;
}
