import { get, set } from 'idb-keyval';
import { z } from 'zod';
import type { CarriedStanding } from '@quarry/core/stability';
import { computedStore } from './keptCounts.ts';

// How the modules of a display stand, kept so that a reload does not judge them again.

const keyOf = (displayId: string) => `standings ${displayId}`;
const keptSchema = z.object({
  build: z.string(),
  digest: z.string(),
  // Written by the same build, so that only its presence is checked.
  standings: z.array(z.custom<CarriedStanding>((value) => typeof value === 'object' && value !== null)),
});

/** What was judged of a scene of this content by this build; null when nothing was. */
export async function keptStandings(
  displayId: string,
  build: string,
  digest: string,
): Promise<CarriedStanding[] | null> {
  const read = keptSchema.safeParse(await get<unknown>(keyOf(displayId), computedStore));
  return read.success && read.data.build === build && read.data.digest === digest
    ? read.data.standings
    : null;
}

/** Keeps what was judged of a display, in place of what was kept of it before. */
export const keepStandings = (
  displayId: string,
  build: string,
  digest: string,
  standings: readonly CarriedStanding[],
): Promise<void> => set(keyOf(displayId), { build, digest, standings: [...standings] }, computedStore);
