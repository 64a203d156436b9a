import { z } from 'zod';
import { batchSchema, changeSchema, idSchema, kindSchema } from '@quarry/core/document';

// The log as it grows: requests and answers of `/api/displays/:id/batches` and `/here`, events of `/stream`.

/** A batch as it stands in the log and goes down the stream; `at` in ms since the epoch. */
export const committedBatchSchema = batchSchema.extend({ seq: z.int(), author: z.string(), at: z.number() });
export type CommittedBatch = z.infer<typeof committedBatchSchema>;

/** Answer to a batch; `changes` only where the server set authorship stamps in them. */
export const acknowledgedSchema = z.object({ seq: z.int(), changes: changeSchema.array().optional() });
export type Acknowledged = z.infer<typeof acknowledgedSchema>;

const after = z.coerce.number().int().min(0).catch(0);
export const sinceQuerySchema = z.object({ after });
/** Query of the stream. Unreadable values do not refuse a reader: epoch −1 is unknown and forces no reload. */
export const streamQuerySchema = z.object({
  after,
  epoch: z.coerce.number().int().min(0).catch(-1),
  client: z.uuid().catch(''),
});

/** Where a window is: page, section, selected entities. */
export const whereaboutsSchema = z.strictObject({
  page: z.string().max(20),
  section: idSchema.nullable(),
  picked: z.array(z.strictObject({ kind: kindSchema, id: idSchema })).max(20),
});
export type Whereabouts = z.infer<typeof whereaboutsSchema>;

export const hereSchema = whereaboutsSchema.extend({ client: z.uuid() });

/** A window that has the display open. */
export const presentSchema = whereaboutsSchema.extend({
  client: z.string(),
  name: z.string(),
  person: z.string().nullable(),
});
export type Present = z.infer<typeof presentSchema>;

/** Windows that came or moved, and those that have gone. */
export const movedSchema = z.object({ here: presentSchema.array(), gone: z.array(z.string()) });

/**
 * Named events of the stream: `here` lists all windows, `moved` changes of them; `membership-changed` after a change of
 * the reader's role, `behind` when too much was missed to send, `gone` before the server ends the stream for good.
 * Committed batches come as unnamed events.
 */
export type StreamEvent = 'here' | 'moved' | 'membership-changed' | 'behind' | 'gone';
