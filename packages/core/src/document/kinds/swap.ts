import { z } from 'zod';
import { instant, line } from '../fields.ts';
import { defineKind } from '../kind.ts';

/** What is known of one step of a swap between two versions: whether it is done, and how long it took. */
export const swapKind = defineKind({
  schema: z.strictObject({
    /** Its key, such as `first-snow in tree/larch`. */
    step: line().trim().min(1).max(160),
    /** Minutes that it took the last time; null: not known. */
    minutes: z.int().min(1).max(600).nullable().default(null),
    /** When it was done in the swap that goes on. */
    done: instant,
  }),
  group: 'swaps',
  word: 'step of a swap',
  label: ({ step }) => `step “${step}”`,
  max: 20_000,
  ownBy: [],
});
