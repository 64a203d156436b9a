import { z } from 'zod';
import type { Change } from './change.ts';
import { KINDS, KIND_NAMES, idSchema, kindSchema } from './schema.ts';
import { emptyScene, keyOf, listOf, type Scene } from './scene.ts';
import { put, reduce, type Groups } from './reduce.ts';

/** An entity as a row: how scenes are stored and sent. `data` is null for a removed one, whose last version is kept. */
export const rowSchema = z.strictObject({
  kind: kindSchema,
  id: idSchema,
  v: z.int().min(1),
  data: z.record(z.string(), z.unknown()).nullable(),
});
export type EntityRow = z.infer<typeof rowSchema>;

/** A scene from rows as text. @throws z.ZodError when it is no list of rows */
export const readScene = (text: string): Scene => fromRows(rowSchema.array().parse(JSON.parse(text)));

/** A scene as rows, removed entities included. */
export function toRows(scene: Scene): EntityRow[] {
  const standing = KIND_NAMES.flatMap((kind) =>
    listOf(scene, kind).map(({ id, v, ...data }): EntityRow => ({ kind, id, v, data })),
  );
  const gone = KIND_NAMES.flatMap((kind) =>
    Object.keys(scene.removed)
      .filter((key) => key.startsWith(keyOf(kind, '')))
      .sort()
      .map((key): EntityRow => ({
        kind,
        id: key.slice(keyOf(kind, '').length),
        v: scene.removed[key],
        data: null,
      }))
      .filter(({ id }) => !Object.hasOwn(scene[kind], id)),
  );
  return [...standing, ...gone];
}

/**
 * A scene from rows. Each row passes its kind's schema, which also fills in fields newer than the row.
 * @throws Error naming the row that does not fit
 */
export function fromRows(rows: readonly EntityRow[]): Scene {
  // An entity at version v is one that is added after its version v − 1 was removed.
  const before = Object.fromEntries(rows.map(({ kind, id, v }) => [keyOf(kind, id), v - 1]));
  const changes = rows.flatMap(({ kind, id, data }): Change[] =>
    data === null ? [] : [{ op: 'add', kind, id, data }],
  );
  const reduction = reduce({ ...emptyScene(), removed: before }, changes);
  if (!reduction.ok) throw new Error(reduction.refusal.sentence);
  const removed = Object.fromEntries(
    rows.filter(({ data }) => data === null).map(({ kind, id, v }) => [keyOf(kind, id), v]),
  );
  return { ...reduction.scene, removed };
}

/**
 * A part of a scene from some of its rows, for reading only: what they refer to need not be among them.
 * @throws z.ZodError when a row does not fit its kind
 */
export function partFromRows(rows: readonly EntityRow[]): Scene {
  const scene: Groups = emptyScene();
  for (const { kind, id, v, data } of rows)
    if (data !== null) put(scene[kind], { ...KINDS[kind].schema.parse(data), id, v });
  return scene;
}
