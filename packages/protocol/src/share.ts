import { z } from 'zod';

// The public page of a display.

/** Whether a public page is open, by its token, and whether it names people. */
export const shareStateSchema = z.object({ token: z.string().nullable(), names: z.boolean() });
export type ShareState = z.infer<typeof shareStateSchema>;
/** @param fresh whether the page gets another address */
export const setShareSchema = z.strictObject({
  names: z.boolean().default(false),
  fresh: z.boolean().default(false),
});

/** The contents of the public page; `done` are shares from 0 to 1, `plan` is an SVG text, `at` ms since the epoch. */
export const publicPageSchema = z.object({
  name: z.string(),
  kind: z.string(),
  ratio: z.number(),
  showName: z.string(),
  showDate: z.string().nullable(),
  done: z.number(),
  sections: z.array(
    z.object({
      letter: z.string(),
      name: z.string(),
      stage: z.string(),
      done: z.number(),
      owner: z.string().nullable(),
    }),
  ),
  totals: z.array(
    z.object({ word: z.string(), count: z.number(), unit: z.enum(['km', 'm', 'h']).optional() }),
  ),
  /** The small scenes of the story, in its order. */
  story: z.array(
    z.object({ order: z.int(), name: z.string(), story: z.string(), cast: z.array(z.string()) }),
  ),
  /** What visitors may look for. */
  finds: z.array(z.object({ word: z.string(), count: z.int() })),
  /** The versions in which the display is shown; of each what it tells otherwise. */
  versions: z.array(
    z.object({
      name: z.string(),
      stands: z.boolean(),
      totals: z.array(z.object({ word: z.string(), base: z.number(), count: z.number() })),
    }),
  ),
  plan: z.string(),
  reports: z.array(z.object({ name: z.string(), at: z.string().nullable(), text: z.string() })),
  photos: z.array(
    z.object({
      file: z.string(),
      width: z.int(),
      height: z.int(),
      taken: z.string(),
      section: z.string().nullable(),
    }),
  ),
  at: z.number(),
});
export type PublicPage = z.infer<typeof publicPageSchema>;
