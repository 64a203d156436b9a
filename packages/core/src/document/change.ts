import { z } from 'zod';
import { line } from './fields.ts';
import { idSchema, kindSchema } from './schema.ts';

/**
 * All writing is a change. A patch or a removal names the version it was made against; a batch of changes lands
 * whole or not at all. The data of a change is checked against the kind's schema when it is applied.
 */
const fields = z.record(z.string().max(40), z.unknown());
const version = z.int().min(1);

export const changeSchema = z.discriminatedUnion('op', [
  z.strictObject({ op: z.literal('add'), kind: kindSchema, id: idSchema, data: fields }),
  z.strictObject({ op: z.literal('patch'), kind: kindSchema, id: idSchema, v: version, set: fields }),
  z.strictObject({ op: z.literal('remove'), kind: kindSchema, id: idSchema, v: version }),
]);
export type Change = z.infer<typeof changeSchema>;

/** Changes as the log keeps them. @throws z.ZodError when the text is no list of changes */
export const readChanges = (text: string): Change[] => changeSchema.array().parse(JSON.parse(text));

/** The most changes one batch may carry: a whole new cutting of a large display fits. */
export const MAX_CHANGES = 5000;

export const batchSchema = z.strictObject({
  /** Made by the client, so that a batch sent twice lands once. */
  id: z.uuid(),
  /** What the person did, for the history: “moved Upper yard”. */
  label: line().max(200).default(''),
  changes: z.array(changeSchema).min(1).max(MAX_CHANGES),
});
export type Batch = z.infer<typeof batchSchema>;
