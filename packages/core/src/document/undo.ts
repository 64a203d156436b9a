import { dequal } from 'dequal/lite';
import type { Change } from './change.ts';
import { keyOf, labelOf, type Scene } from './scene.ts';

/** What can be taken back: the inverse of a batch, and what its fields held when the batch had landed. */
export interface Undoable {
  label: string;
  inverse: Change[];
  /** The entities the batch left behind, by `keyOf`; null where it removed one. */
  after: Record<string, Record<string, unknown> | null>;
}

/** Remembers how to take a batch back, from the scene it led to. */
export function undoable(label: string, inverse: Change[], after: Scene): Undoable {
  const left: Undoable['after'] = {};
  for (const { kind, id } of inverse)
    left[keyOf(kind, id)] = Object.hasOwn(after[kind], id) ? { ...after[kind][id] } : null;
  return { label, inverse, after: left };
}

/**
 * The inverse of a batch as changes against the scene as it stands now. It is refused, in a sentence, when
 * a field that it would restore, or an entity that it would remove, has changed since.
 */
export function takeBack(
  scene: Scene,
  { inverse, after }: Undoable,
): { ok: true; changes: Change[] } | { ok: false; sentence: string } {
  const changes: Change[] = [];
  /** What an earlier step of the way back has brought again: nobody can have changed it since. */
  const again = new Set<string>();
  for (const change of inverse) {
    const { kind, id } = change;
    if (change.op !== 'add' && again.has(keyOf(kind, id))) {
      changes.push(change);
      continue;
    }
    const left = after[keyOf(kind, id)];
    const current: Record<string, unknown> | undefined = Object.hasOwn(scene[kind], id)
      ? { ...scene[kind][id] }
      : undefined;
    const fail = (what: string) => ({
      ok: false as const,
      sentence: `This cannot be taken back: ${labelOf(scene, kind, id)} ${what}.`,
    });
    if (change.op === 'add') {
      if (current) return fail('is there again');
      again.add(keyOf(kind, id));
      changes.push(change);
      continue;
    }
    const v = scene[kind][id]?.v;
    if (!current || v === undefined) return fail('has been removed since');
    const fields =
      change.op === 'patch' ? Object.keys(change.set) : Object.keys(current).filter((key) => key !== 'v');
    const moved = fields.find((key) => !dequal(current[key], left?.[key]));
    if (moved) return fail(`has had its ${moved} changed since`);
    changes.push({ ...change, v });
  }
  return { ok: true, changes: renumber(changes, scene) };
}

/** A batch may change one entity twice: each later change names the version that the earlier one leads to. */
function renumber(changes: Change[], scene: Scene): Change[] {
  const next = new Map<string, number>();
  return changes.map((change) => {
    const key = keyOf(change.kind, change.id);
    if (change.op === 'add') {
      next.set(key, (scene.removed[key] ?? 0) + 1);
      return change;
    }
    const v = next.get(key) ?? scene[change.kind][change.id].v;
    next.set(key, v + 1);
    return { ...change, v };
  });
}
