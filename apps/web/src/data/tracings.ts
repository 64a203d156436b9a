import { createStore, del, get, set } from 'idb-keyval';
import { z } from 'zod';
import { TRACING_WIDE } from '@quarry/core/structures';

// Photographs below elevations: kept in this browser and sent nowhere.

const tracingSchema = z.strictObject({
  image: z.string().startsWith('data:image/'),
  wide: z.number().min(TRACING_WIDE.min).max(TRACING_WIDE.max),
  tall: z.number().positive(),
  left: z.number(),
  up: z.number(),
});
/** A photograph with where it lies. */
export type KeptTracing = z.output<typeof tracingSchema>;

const store = () => createStore('quarry-tracings', 'fronts');

/** The photograph below a front; null: none, or none that can be read. @param front of one side of one building */
export async function loadTracing(front: string): Promise<KeptTracing | null> {
  try {
    const read = tracingSchema.safeParse(await get(front, store()));
    return read.success ? read.data : null;
  } catch {
    return null;
  }
}

/** Keeps the photograph below a front. @param tracing null: none */
export const putTracing = async (front: string, tracing: KeptTracing | null): Promise<void> =>
  tracing ? set(front, tracing, store()) : del(front, store());
