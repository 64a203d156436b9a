import { createStore, del, entries, get, set } from 'idb-keyval';
import { z } from 'zod';
import { batchSchema, rowSchema, type Batch } from '@quarry/core/document';
import { roleSchema } from '@quarry/protocol/displays';
import type { BaseValues } from './conflicts.ts';
import { documents } from './documentStore.ts';

/**
 * What the browser keeps for when the server cannot be reached: batches that were not acknowledged, and each display
 * as it was last seen. They survive a reload and a dead battery. One key a batch, so that two tabs never write over
 * each other's; each with its author, so that no user sends another's batch.
 */
const outbox = createStore('open-quarry', 'outbox');
const waitingSchema = z.object({
  order: z.number(),
  user: z.string().default(''),
  batch: batchSchema,
  was: z.record(z.string(), z.record(z.string(), z.unknown())).default({}),
});
export interface WaitingBatch {
  batch: Batch;
  was: BaseValues;
}
let last = 0;

export async function keepWaiting(
  displayId: string,
  user: string,
  { batch, was }: WaitingBatch,
): Promise<void> {
  last = Math.max(Date.now(), last + 1);
  await set(`${displayId} ${batch.id}`, { order: last, user, batch, was }, outbox);
}

export async function dropWaiting(displayId: string, batchId: string): Promise<void> {
  await del(`${displayId} ${batchId}`, outbox);
}

/** A user's unsent batches of a display, oldest first. Unreadable ones are left out. */
export async function waitingFor(displayId: string, user: string): Promise<WaitingBatch[]> {
  const all = await entries<IDBValidKey, unknown>(outbox);
  return all
    .filter(([key]) => String(key).startsWith(`${displayId} `))
    .flatMap(([, value]) => {
      const read = waitingSchema.safeParse(value);
      return read.success && (read.data.user === user || read.data.user === '') ? [read.data] : [];
    })
    .sort((a, b) => a.order - b.order)
    .map(({ batch, was }) => ({ batch, was }));
}

const keptSchema = z.object({
  epoch: z.int().default(0),
  seq: z.int(),
  actor: z.object({
    role: roleSchema,
    person: z.string().nullable(),
  }),
  rows: z.array(rowSchema),
});
export type KeptDocument = z.infer<typeof keptSchema>;

/** Keeps a display as it stands, for a start without the server. */
export async function keepDocument(displayId: string, user: string, document: KeptDocument): Promise<void> {
  await set(`${displayId} ${user}`, document, documents);
}

export async function keptDocument(displayId: string, user: string): Promise<KeptDocument | null> {
  const read = keptSchema.safeParse(await get<unknown>(`${displayId} ${user}`, documents));
  return read.success ? read.data : null;
}
