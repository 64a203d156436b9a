import { createStore, del, entries, set } from 'idb-keyval';
import { z } from 'zod';
import { batchSchema, type Batch } from '@quarry/core/scene';

/**
 * Batches that the server has not acknowledged, in IndexedDB: they survive a reload and a dead battery.
 * One key a batch, so that two tabs never write over each other's.
 */
const store = createStore('open-quarry', 'outbox');
const waitingSchema = z.object({ order: z.number(), batch: batchSchema });
let last = 0;

export async function keepWaiting(displayId: string, batch: Batch): Promise<void> {
  last = Math.max(Date.now(), last + 1);
  await set(`${displayId} ${batch.id}`, { order: last, batch }, store);
}

export async function dropWaiting(displayId: string, batchId: string): Promise<void> {
  await del(`${displayId} ${batchId}`, store);
}

/** What is still waiting for a display, oldest first. What cannot be read is left out. */
export async function waitingFor(displayId: string): Promise<Batch[]> {
  const all = await entries<IDBValidKey, unknown>(store);
  return all
    .filter(([key]) => String(key).startsWith(`${displayId} `))
    .flatMap(([, value]) => {
      const read = waitingSchema.safeParse(value);
      return read.success ? [read.data] : [];
    })
    .sort((a, b) => a.order - b.order)
    .map(({ batch }) => batch);
}
