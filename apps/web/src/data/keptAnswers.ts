import { del, get, set } from 'idb-keyval';
import { z } from 'zod';
import type { CarriedStanding } from '@quarry/core/stability';
import type { LoadPlan } from '@quarry/core/transport';
import type { Sight } from '@quarry/core/visibility';
import { computedStore } from './computedStore.ts';

// What took long to compute of a display, kept so that a reload does not do it again.

const NAMES = ['standings', 'sight', 'load'] as const;
const keyOf = (name: (typeof NAMES)[number], displayId: string) => `${name} ${displayId}`;

/** A store that a page just left still holds may answer late: then it is computed as if nothing were kept, ms. */
const READ_MS = 1500;
const nothingAfter = (ms: number) => new Promise<null>((resolve) => setTimeout(() => resolve(null), ms));

/** Answers of one kind: one a display, of the last content that was asked about. */
function keptAnswer<T extends object>(name: (typeof NAMES)[number]) {
  const schema = z.object({
    build: z.string(),
    digest: z.string(),
    // Written by the same build, so that only its presence is checked.
    answer: z.custom<T>((value) => typeof value === 'object' && value !== null),
  });
  return {
    /** The answer about this content by this build; null when there is none. */
    async read(displayId: string, build: string, digest: string): Promise<T | null> {
      const kept = get<unknown>(keyOf(name, displayId), computedStore);
      const read = schema.safeParse(await Promise.race([kept, nothingAfter(READ_MS)]));
      return read.success && read.data.build === build && read.data.digest === digest
        ? read.data.answer
        : null;
    },
    /** Keeps an answer in place of the one before it. */
    async keep(displayId: string, build: string, digest: string, answer: T): Promise<void> {
      await set(keyOf(name, displayId), { build, digest, answer }, computedStore);
    },
  };
}

/** How the modules of a display stand. */
export const keptStandings = keptAnswer<CarriedStanding[]>('standings');
/** What the public sees of a display. */
export const keptSight = keptAnswer<Sight>('sight');

/** How a display is loaded. */
export const keptLoad = keptAnswer<LoadPlan>('load');

/** Forgets all answers about a display. */
export async function forgetAnswers(displayId: string): Promise<void> {
  for (const name of NAMES) await del(keyOf(name, displayId), computedStore);
}
