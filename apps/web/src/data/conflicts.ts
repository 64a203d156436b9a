import { dequal } from 'dequal/lite';
import {
  keyOf,
  rebase,
  type Batch,
  type Change,
  type Entity,
  type Kind,
  type Scene,
} from '@quarry/core/document';

/** One field of a conflict: the base value, mine, and theirs. */
export interface ConflictField {
  kind: Kind;
  id: string;
  field: string;
  was: unknown;
  mine: unknown;
  theirs: unknown;
  /** Others changed this field too; otherwise mine can be committed without loss. */
  clash: boolean;
}

/** Own batches that were refused as stale, with the fields to decide. */
export interface Conflict {
  label: string;
  sentence: string;
  changes: Change[];
  fields: ConflictField[];
  /** The batches in the outbox that it is made of: they are kept there until it is decided. */
  waiting: string[];
}

/** What the fields of the things a batch patches held when it was made: by `keyOf`. */
export type BaseValues = Record<string, Record<string, unknown>>;

export function baseValuesOf(scene: Scene, changes: readonly Change[]): BaseValues {
  const was: BaseValues = {};
  for (const change of changes) {
    const stands: Entity<Kind> | undefined = scene[change.kind][change.id];
    if (change.op !== 'patch' || !stands) continue;
    const known: Readonly<Record<string, unknown>> = { ...stands };
    const key = keyOf(change.kind, change.id);
    for (const field of Object.keys(change.set)) was[key] = { [field]: known[field], ...was[key] };
  }
  return was;
}

/**
 * A refused batch and those after it that touch the same things, as one matter to decide.
 * @param stands the scene without them
 * @param was what is remembered of the fields as they were; a batch from an older page remembers nothing
 */
export function conflictOf(
  stands: Scene,
  batches: readonly Batch[],
  was: BaseValues,
  sentence: string,
): Conflict {
  const changes = merged(batches.flatMap((batch) => batch.changes));
  const fields = changes.flatMap((change) => {
    const entity: Entity<Kind> | undefined = stands[change.kind][change.id];
    if (change.op !== 'patch' || !entity || entity.v === change.v) return [];
    const now: Readonly<Record<string, unknown>> = { ...entity };
    const { kind, id } = change;
    return Object.entries(change.set).map(([field, mine]): ConflictField => {
      const before = was[keyOf(kind, id)];
      const theirs = now[field];
      const clash = !dequal(mine, theirs) && !(before && field in before && dequal(before[field], theirs));
      return { kind, id, field, was: before?.[field], mine, theirs, clash };
    });
  });
  return {
    label: batches[0]?.label ?? '',
    sentence,
    changes,
    fields,
    waiting: batches.map(({ id }) => id),
  };
}

/** Patches of one thing put together, the later value winning; the first version that was named stays. */
function merged(changes: readonly Change[]): Change[] {
  const all: Change[] = [];
  for (const change of changes) {
    const at = all.findIndex((one) => one.op === 'patch' && one.kind === change.kind && one.id === change.id);
    const known = all[at];
    if (change.op === 'patch' && known?.op === 'patch')
      all[at] = { ...known, set: { ...known.set, ...change.set } };
    else all.push(change);
  }
  return all;
}

/** A field as choices name it. */
export const choiceKey = ({ kind, id, field }: Pick<ConflictField, 'kind' | 'id' | 'field'>) =>
  `${keyOf(kind, id)} ${field}`;

/**
 * The changes that are left to make when it is decided which fields stay as the others have them.
 * @param theirs keys of those fields, by `choiceKey`
 */
export function threeWayMerge(
  scene: Scene,
  { changes }: Conflict,
  theirs: ReadonlySet<string>,
): { ok: true; changes: Change[] } | { ok: false; sentence: string } {
  const kept = changes.flatMap((change): Change[] => {
    if (change.op !== 'patch') return [change];
    const set = Object.fromEntries(
      Object.entries(change.set).filter(([field]) => !theirs.has(choiceKey({ ...change, field }))),
    );
    return Object.keys(set).length > 0 ? [{ ...change, set }] : [];
  });
  return rebase(scene, kept);
}
