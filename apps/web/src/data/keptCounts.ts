import { clear, del, get, set, update } from 'idb-keyval';
import { z } from 'zod';
import type { KeptBlock, KeptCounts } from '@quarry/core/masonry';
import { computedStore } from './computedStore.ts';
import { forgetAnswers } from './keptAnswers.ts';

// Counts of ground that the browser keeps, so that a reload shows needs at once. They hold for the program that made
// them: every build has a digest of its computing code, and counts of another are not read.

const store = computedStore;
/** Displays whose counts are kept, the last used ones: about 2 MB for one of 480 × 320 studs. */
const MAX_DISPLAYS = 6;
const INDEX = 'index';

const blockSchema = z.object({
  // Written by the same build, so that only its presence is checked.
  count: z.custom<KeptBlock['count']>((value) => typeof value === 'object' && value !== null),
  grams: z.instanceof(Float32Array),
  moment: z.instanceof(Float32Array),
});
const keptSchema = z.object({ build: z.string(), blocks: z.map(z.string(), blockSchema) });
const indexSchema = z.array(z.string()).catch([]);

/** The counts kept of a display; empty when there are none, or only of another build. */
export async function keptCounts(displayId: string, build: string): Promise<KeptCounts> {
  const read = keptSchema.safeParse(await get<unknown>(displayId, store));
  return read.success && read.data.build === build ? read.data.blocks : new Map();
}

/** Keeps the counts of a display, and lets those go that were used longest ago. */
export async function keepCounts(displayId: string, build: string, blocks: KeptCounts): Promise<void> {
  await set(displayId, { build, blocks }, store);
  let gone: string[] = [];
  await update<unknown>(
    INDEX,
    (before) => {
      const index = [displayId, ...indexSchema.parse(before).filter((id) => id !== displayId)];
      gone = index.slice(MAX_DISPLAYS);
      return index.slice(0, MAX_DISPLAYS);
    },
    store,
  );
  for (const id of gone) {
    await del(id, store);
    await forgetAnswers(id);
  }
}

/** Forgets all counts: they belong to displays that the next user of this browser may not see. */
export const forgetCounts = async (): Promise<void> => clear(store);
