import type { z } from 'zod';
import { boundsOf } from '../grid/index.ts';
import type { Change } from './change.ts';
import { MAX_FOOTPRINT } from './fields.ts';
import { isFixedGround } from './customGrounds.ts';
import { DISPLAY_ID, KINDS, REFERENCES, maxCount, specOf, type Entity, type Kind } from './schema.ts';
import { keyOf, labelOf, listOf, type Scene } from './scene.ts';

/** Why a batch did not land. `stale` carries the entity as it stands, so that a page can show both. */
export interface Refusal {
  reason: 'stale' | 'unknown' | 'duplicate' | 'invalid' | 'in-use' | 'forbidden';
  sentence: string;
  /** Which change of the batch, from 0. */
  index: number;
  current?: Entity<Kind>;
}

/** The scene after a batch and the changes that take it back, or why nothing changed. */
export type Reduction = { ok: true; scene: Scene; inverse: Change[] } | { ok: false; refusal: Refusal };

/** A scene that is being made: its groups may be written. */
export type Groups = { [K in Kind]: Record<string, Entity<K>> } & { removed: Record<string, number> };

/**
 * Applies a batch: the one place where a scene changes, shared by browser, server and shell.
 * The scene passed in is never touched; groups that do not change are shared with the new one.
 * @returns the new scene and the inverse changes (last first), or the first refusal; whole or not at all
 */
export function reduce(scene: Scene, changes: readonly Change[]): Reduction {
  return drain(reduceSteps(scene, changes));
}

/** Drives what pauses to its end without a pause. */
export function drain<T>(steps: Generator<undefined, T>): T {
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
  }
}

/** Changes that are applied between two pauses of `reducing`. */
const BETWEEN_PAUSES = 100;

/**
 * `reduce` in steps: pauses now and then, so that a long batch need not hold up what else is to be done.
 * @param forbids reason why the change at an index may not be applied to the scene before it, or null; that scene is still
 *   being changed, and must be neither kept nor listed
 */
export function* reduceSteps(
  scene: Scene,
  changes: readonly Change[],
  forbids: (step: Scene, index: number) => string | null = () => null,
): Generator<undefined, Reduction> {
  const next: Groups = { ...scene };
  const copied = new Set<Kind | 'removed'>();
  const inverse: Change[] = [];
  /** Entities by kind, counted once a batch: a batch may add thousands. */
  const counts = new Map<Kind, number>();
  const own = <K extends Kind | 'removed'>(kind: K): Groups[K] => {
    if (!copied.has(kind)) {
      next[kind] = { ...next[kind] };
      copied.add(kind);
    }
    return next[kind];
  };
  for (const [index, change] of changes.entries()) {
    const { kind, id } = change;
    const refuse = (reason: Refusal['reason'], sentence: string, current?: Entity<Kind>): Reduction => ({
      ok: false,
      refusal: { reason, sentence, index, ...(current ? { current } : {}) },
    });
    if (index % BETWEEN_PAUSES === BETWEEN_PAUSES - 1) yield;
    const no = forbids(next, index);
    if (no !== null) return refuse('forbidden', no);
    const word = KINDS[kind].word;
    const current: Entity<Kind> | undefined = Object.hasOwn(next[kind], id) ? next[kind][id] : undefined;

    if (change.op === 'add') {
      if (current) return refuse('duplicate', `There is already a ${word} with the id “${id}”.`, current);
      if (kind === 'display' && id !== DISPLAY_ID)
        return refuse('invalid', `A scene has one display, called “${DISPLAY_ID}”.`);
      const ids = specOf(kind).ids;
      if (ids && !ids.includes(id))
        return refuse('invalid', `The id of a ${word} is one of ${ids.join(', ')}; “${id}” is not.`);
      const count = counts.get(kind) ?? Object.keys(next[kind]).length;
      if (count >= maxCount(kind))
        return refuse(
          'invalid',
          `A scene holds at most ${maxCount(kind).toLocaleString('en')} of a kind; this would be one ${word} more.`,
        );
      const read = KINDS[kind].schema.safeParse(change.data);
      if (!read.success) return refuse('invalid', explainIssue(word, id, read.error));
      const v = (next.removed[keyOf(kind, id)] ?? 0) + 1;
      put(own(kind), { ...read.data, id, v });
      counts.set(kind, count + 1);
      inverse.push({ op: 'remove', kind, id, v });
      continue;
    }
    if (!current)
      return refuse('unknown', `The ${word} “${id}” is not in this display; it may have been removed.`);
    if (current.v !== change.v)
      return refuse(
        'stale',
        `${capital(labelOf(next, kind, id))} was changed meanwhile (yours was made against version ${change.v}, it stands at ${current.v}).`,
        current,
      );
    if (change.op === 'remove') {
      if (kind === 'display')
        return refuse('invalid', 'The display entity cannot be removed from its scene.');
      const { id: _id, v: _v, ...data } = current;
      delete own(kind)[id];
      counts.delete(kind);
      own('removed')[keyOf(kind, id)] = current.v;
      inverse.push({ op: 'add', kind, id, data });
      continue;
    }
    const { id: _id, v: _v, ...data } = current;
    const before: Record<string, unknown> = {};
    const known: Record<string, unknown> = data;
    for (const key of Object.keys(change.set)) {
      if (!Object.hasOwn(known, key)) return refuse('invalid', `A ${word} has no “${key}”.`);
      before[key] = known[key];
    }
    const read = KINDS[kind].schema.safeParse({ ...data, ...change.set });
    if (!read.success) return refuse('invalid', explainIssue(word, id, read.error));
    put(own(kind), { ...read.data, id, v: current.v + 1 });
    inverse.push({ op: 'patch', kind, id, v: current.v + 1, set: before });
  }
  const dangling = danglingReference(next, changes);
  if (dangling)
    return { ok: false, refusal: { reason: 'in-use', sentence: dangling, index: changes.length - 1 } };
  const index = changes.findLastIndex(({ kind }) => kind === 'footprint');
  const wide = index < 0 ? null : tooWide(next);
  if (wide) return { ok: false, refusal: { reason: 'invalid', sentence: wide, index } };
  return { ok: true, scene: next, inverse: inverse.reverse() };
}

/** Sets an entity in its group. The schema has just vouched for the shape that belongs to the kind. */
export function put(group: Record<string, Entity<Kind>>, entity: Entity<Kind>): void {
  group[entity.id] = entity;
}

/** The first field that names what is not there, as a sentence. Looks only where the changes can have made one. */
function danglingReference(scene: Scene, changes: readonly Change[]): string | null {
  for (const { kind, field, to } of REFERENCES) {
    const concerned = changes.some((change) =>
      change.op === 'remove' ? change.kind === to : change.kind === kind,
    );
    for (const entity of concerned ? listOf(scene, kind) : []) {
      const fields: Readonly<Record<string, unknown>> = { ...entity };
      const value = fields[field];
      const named: readonly unknown[] = Array.isArray(value) ? value : [value];
      const gone = named.find(
        (name) =>
          typeof name === 'string' &&
          !Object.hasOwn(scene[to], name) &&
          // A ground of every display names nothing.
          !(to === 'customGround' && isFixedGround(name)),
      );
      if (typeof gone === 'string')
        return `${capital(labelOf(scene, kind, entity.id))} still names the ${KINDS[to].word} “${gone}” as its ${field}; give it another first.`;
    }
  }
  return null;
}

/** Why a footprint is larger than a scene is worked out for; null when it is not. */
function tooWide(scene: Scene): string | null {
  const parts = Object.values(scene.footprint);
  if (parts.length === 0) return null;
  const { w, d } = boundsOf(parts);
  return w * d <= MAX_FOOTPRINT
    ? null
    : `The footprint spans ${w} × ${d} = ${(w * d).toLocaleString('en')} studs; the most is ${MAX_FOOTPRINT.toLocaleString('en')}.`;
}

/** One sentence from the first complaint of a schema: the thing, the field, the value's fault. */
export function explainIssue(word: string, id: string, error: z.ZodError): string {
  const issue = error.issues[0];
  const field = issue.path.length > 0 ? `, field “${issue.path.join('.')}”` : '';
  const more = error.issues.length > 1 ? ` (and ${error.issues.length - 1} more)` : '';
  return `The ${word} “${id}”${field}: ${issue.message}${more}.`;
}

const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);
