import { centreOf, containsPoint } from '../grid/index.ts';
import { changeSchema, type Change } from './change.ts';
import { placeIn } from './place.ts';
import { isPlanKind, kindSchema, type Entity, type Kind, type Reply, type Thread } from './schema.ts';
import { keyOf, labelOf, listOf, type Scene } from './scene.ts';

// Advice, and the sections that things belong to.

/** The section a thing belongs to: the one it names, or the one its middle lies in; null: none. */
export function sectionOfEntity(scene: Scene, kind: Kind, id: string): string | null {
  if (kind === 'section') return Object.hasOwn(scene.section, id) ? id : null;
  if (kind === 'reply') return scene.thread[scene.reply[id]?.thread ?? '']?.section ?? null;
  const entity: Entity<Kind> | undefined = scene[kind][id];
  if (!entity) return null;
  if ('section' in entity && typeof entity.section === 'string') return entity.section;
  const place = isPlanKind(kind) ? placeIn(scene, kind, id) : null;
  return place ? sectionAt(scene, centreOf(place)) : null;
}

/** The first section that holds a point of the plan, studs. */
export function sectionAt(scene: Scene, { x, y }: { x: number; y: number }): string | null {
  return listOf(scene, 'section').find((section) => containsPoint(section, x, y))?.id ?? null;
}

/** The changes a thread proposes; none when it has no proposal, or one that this program cannot read. */
export function proposalOf(thread: Pick<Thread, 'proposal'>): Change[] {
  const read = changeSchema.array().safeParse(thread.proposal);
  return read.success ? read.data : [];
}

/**
 * Changes made against an older scene, as changes against the one that stands: patches and removals name the
 * version that stands now.
 * @returns the changes, and what has changed since they were made; or the thing that is in the way
 */
export function rebase(
  scene: Scene,
  changes: readonly Change[],
): { ok: true; changes: Change[]; moved: string[] } | { ok: false; sentence: string } {
  const next = new Map<string, number | null>();
  const moved = new Set<string>();
  const fitted: Change[] = [];
  for (const change of changes) {
    const { kind, id } = change;
    const key = keyOf(kind, id);
    const known = next.get(key);
    const stands: Entity<Kind> | undefined = scene[kind][id];
    const v = known === undefined ? (stands?.v ?? null) : known;
    if (change.op === 'add') {
      if (v !== null) return { ok: false, sentence: `${labelOf(scene, kind, id)} is there already.` };
      fitted.push(change);
      next.set(key, (scene.removed[key] ?? 0) + 1);
      continue;
    }
    if (v === null) return { ok: false, sentence: `The ${kind} “${id}” is not in this display any more.` };
    if (known === undefined && v !== change.v) moved.add(labelOf(scene, kind, id));
    fitted.push({ ...change, v });
    next.set(key, change.op === 'remove' ? null : v + 1);
  }
  return { ok: true, changes: fitted, moved: [...moved] };
}

/** Answers of a thread, the first first: by when they were given, then by id. */
export const repliesOf = (scene: Scene, thread: string): Reply[] =>
  listOf(scene, 'reply')
    .filter((reply) => reply.thread === thread)
    .sort((a, b) => (a.at ?? '').localeCompare(b.at ?? '') || (a.id < b.id ? -1 : 1));

/** Read marker of a thread: a number that grows with each message and answer. */
export const stampOf = (scene: Scene, thread: Thread): number =>
  repliesOf(scene, thread.id).reduce((sum, { v }) => sum + v, thread.v);

/** Threads with messages that a person has not read; a person's own messages count as read. @param marks stamps by thread */
export function unreadThreads(
  scene: Pick<Scene, 'thread' | 'reply'>,
  person: string | null,
  marks: Readonly<Record<string, number>>,
): Set<string> {
  // The stamps of all threads in one pass over the answers: this runs again with each new message.
  const stamps = new Map(Object.values(scene.thread).map(({ id, v }) => [id, v]));
  for (const { thread, v } of Object.values(scene.reply)) stamps.set(thread, (stamps.get(thread) ?? 0) + v);
  return new Set(
    Object.values(scene.thread)
      .filter(({ id, by, v }) => (stamps.get(id) ?? 0) > (marks[id] ?? (by === person ? v : 0)))
      .map(({ id }) => id),
  );
}

/** Whom a text names with “@”: people by their whole name or the first word of it, the longest name first. */
export function mentionsIn(scene: Scene, text: string): string[] {
  const lower = text.toLowerCase();
  const named = (word: string) => {
    const at = lower.indexOf(`@${word.toLowerCase()}`);
    return at >= 0 && !/[\p{L}\p{N}]/u.test(lower.charAt(at + 1 + word.length));
  };
  return listOf(scene, 'person')
    .filter(({ name }) => named(name) || named(name.split(' ')[0]))
    .map(({ id }) => id)
    .slice(0, 20);
}

/** Reads a thing's kind and id as a thread names it; null when there is no such thing any more. */
export function thingOf(
  scene: Scene,
  about: { kind: string; id: string } | null,
): { kind: Kind; id: string } | null {
  const kind = kindSchema.safeParse(about?.kind);
  return about && kind.success && Object.hasOwn(scene[kind.data], about.id)
    ? { kind: kind.data, id: about.id }
    : null;
}
