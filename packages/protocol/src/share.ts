import { z } from 'zod';

// Whether a display has a page for the public.

/** Whether a public page is open, by its token, and whether it names people. */
export const shareStateSchema = z.object({ token: z.string().nullable(), names: z.boolean() });
export type ShareState = z.infer<typeof shareStateSchema>;
/** @param fresh whether the page gets another address */
export const setShareSchema = z.strictObject({
  names: z.boolean().default(false),
  fresh: z.boolean().default(false),
});
