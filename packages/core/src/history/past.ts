import { dequal } from 'dequal/lite';
import {
  deltaOf,
  listOf,
  keyOf,
  reduce,
  takeBack,
  undoable,
  type Change,
  type Entity,
  type Kind,
  type Scene,
} from '../document/index.ts';
import type { Entry } from './sentences.ts';

// What the log makes possible: the scene as it was, a batch taken back, a whole display brought back.

/** The scene that a part of the log leads to. @throws when an entry does not fit, which only a damaged log makes */
export function replay(from: Scene, entries: readonly Pick<Entry, 'seq' | 'changes'>[]): Scene {
  let scene = from;
  for (const { seq, changes } of entries) {
    const reduction = reduce(scene, changes);
    if (!reduction.ok)
      throw new Error(`Change ${seq} of the log does not fit: ${reduction.refusal.sentence}`);
    scene = reduction.scene;
  }
  return scene;
}

/** How a batch can be taken back now, or what later batch stands in the way. */
export type TakingBack =
  | { ok: true; changes: Change[] }
  | { ok: false; sentence: string; later: { seq: number; label: string; author: string }[] };

/**
 * Takes a batch of the log back.
 * @param before the scene it was made in
 * @param batch the batch itself
 * @param since the batches after it, in order
 * @param now the scene as it stands
 */
export function takeBackBatch(
  before: Scene,
  batch: Pick<Entry, 'label' | 'changes'>,
  since: readonly Entry[],
  now: Scene,
): TakingBack {
  const reduction = reduce(before, batch.changes);
  if (!reduction.ok) return { ok: false, sentence: reduction.refusal.sentence, later: [] };
  const back = takeBack(now, undoable(batch.label, reduction.inverse, reduction.scene));
  const fits = back.ok ? reduce(now, back.changes) : null;
  if (back.ok && fits?.ok) return { ok: true, changes: back.changes };
  const touched = new Set(batch.changes.map(({ kind, id }) => keyOf(kind, id)));
  const added = new Set(batch.changes.filter(({ op }) => op === 'add').map(({ id }) => id));
  // A later batch depends on it when it touches the same thing, or names one that this batch brought.
  const depends = ({ changes }: Entry) =>
    changes.some(
      (change) =>
        touched.has(keyOf(change.kind, change.id)) || (change.op !== 'remove' && names(change, added)),
    );
  return {
    ok: false,
    sentence: back.ok && fits && !fits.ok ? fits.refusal.sentence : back.ok ? '' : back.sentence,
    later: since.filter(depends).map(({ seq, label, author }) => ({ seq, label, author })),
  };
}

const names = (change: Exclude<Change, { op: 'remove' }>, ids: ReadonlySet<string>): boolean =>
  Object.values(change.op === 'add' ? change.data : change.set).some(
    (value) => typeof value === 'string' && ids.has(value),
  );

/** What stays as it is when a display is brought back: advice is not unsaid, and reports went out. */
const KEPT: readonly Kind[] = ['thread', 'reply', 'report'];

/**
 * The changes that bring a display back to what it was, against the scene as it stands: new changes, nothing erased.
 * Advice, answers and reports given since stay, as do the people they name.
 */
export function restoring(now: Scene, then: Scene): Change[] {
  const changes: Change[] = [];
  for (const { kind, id, entity } of deltaOf(now, then)) {
    if (KEPT.includes(kind)) continue;
    const stands: Entity<Kind> | undefined = now[kind][id];
    if (!entity) {
      if (stands && kind !== 'person') changes.push({ op: 'remove', kind, id, v: stands.v });
      continue;
    }
    const { id: _id, v: _v, ...data } = entity;
    if (!stands) {
      changes.push({ op: 'add', kind, id, data });
      continue;
    }
    const standing: Readonly<Record<string, unknown>> = { ...stands };
    const set = Object.fromEntries(
      Object.entries(data).filter(([key, value]) => !dequal(standing[key], value)),
    );
    if (Object.keys(set).length > 0) changes.push({ op: 'patch', kind, id, v: stands.v, set });
  }
  return [...changes, ...sectionsKept(now, changes)];
}

/** Advice about a section that the restored display does not have is kept, about no section. */
function sectionsKept(now: Scene, changes: readonly Change[]): Change[] {
  const gone = new Set(
    changes.filter(({ op, kind }) => op === 'remove' && kind === 'section').map(({ id }) => id),
  );
  type About = { id: string; v: number; section: string | null };
  const loose = (kind: 'thread' | 'report', list: readonly About[]) =>
    list
      .filter(({ section }) => section !== null && gone.has(section))
      .map(({ id, v }): Change => ({ op: 'patch', kind, id, v, set: { section: null } }));
  return [...loose('thread', listOf(now, 'thread')), ...loose('report', listOf(now, 'report'))];
}

/** How many things a restoring adds, changes and removes, for the words before it is done. */
export function countOps(changes: readonly Change[]): Record<Change['op'], number> {
  const count = { add: 0, patch: 0, remove: 0 };
  for (const { op } of changes) count[op]++;
  return count;
}
