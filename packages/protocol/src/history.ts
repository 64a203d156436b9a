import { z } from 'zod';
import { changeSchema, idSchema, rowSchema, zoneSchema } from '@quarry/core/document';

// The log of a display: read, looked back through, reverted. Times are ms since the epoch.

/** A sequence number or a time in an address. */
export const countSchema = z.coerce.number().int().min(0).max(1e15);

export const historyFilterSchema = z.object({
  before: countSchema.optional(),
  after: countSchema.optional(),
  author: z.string().max(80).optional(),
  section: idSchema.optional(),
  kind: z.string().max(20).optional(),
  from: countSchema.optional(),
  to: countSchema.optional(),
  limit: z.coerce.number().int().min(1).max(500).default(60),
});
export type HistoryFilter = z.output<typeof historyFilterSchema>;
export const momentQuerySchema = z.object({ at: countSchema });
export const restoreSchema = z.strictObject({ id: z.uuid() });

/** One change as a sentence, with the entity and its section. */
export const descriptionSchema = z.object({
  kind: z.string(),
  id: z.string(),
  sentence: z.string(),
  section: z.string().nullable(),
});
/** One batch of the log; `mine` when the reader made it. */
const historyLineSchema = z.object({
  seq: z.int(),
  id: z.string(),
  author: z.string(),
  mine: z.boolean(),
  at: z.number(),
  label: z.string(),
  descriptions: z.array(descriptionSchema),
});
export type HistoryLine = z.infer<typeof historyLineSchema>;
/** Lines of the log, newest first; past states are available from `begins` on. */
export const historyPageSchema = z.object({
  lines: z.array(historyLineSchema),
  begins: z.object({ seq: z.int(), at: z.number() }),
  seq: z.int(),
  authors: z.array(z.string()),
});
export type HistoryPage = z.infer<typeof historyPageSchema>;

export const momentSchema = z.object({ seq: z.int() });
/** The rows of the display after a sequence number. */
export const pastSchema = z.object({ seq: z.int(), at: z.number(), rows: z.array(rowSchema) });
export type Past = z.infer<typeof pastSchema>;

/** The changes that revert a batch, or the later batches that depend on it. */
export const takingBackSchema = z.union([
  z.object({ ok: z.literal(true), changes: z.array(changeSchema) }),
  z.object({
    ok: z.literal(false),
    sentence: z.string(),
    later: z.array(z.object({ seq: z.int(), label: z.string(), author: z.string() })),
  }),
]);
export const countedOpsSchema = z.object({ add: z.int(), patch: z.int(), remove: z.int() });
/** Sequence number of the restoring batch; null: nothing differed. */
export const restoredSchema = z.object({ seq: z.int().nullable() });
export type Restored = z.infer<typeof restoredSchema>;
/** In which zone days end; empty: UTC. */
export const sharesQuerySchema = z.object({ zone: zoneSchema });
/** Shares of sections done, 0 to 1, on the days on which one changed. */
export const sharesSchema = z.array(z.object({ date: z.string(), done: z.record(z.string(), z.number()) }));
