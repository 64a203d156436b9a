import { z } from 'zod';

// Photos of a display.

/** SHA-256 of a stored photo: its name in addresses. */
export const digestSchema = z.string().regex(/^[0-9a-f]{64}$/, 'a photo is named by the digest of its file');
/** A stored photo: its digest and its size in pixels. */
export const keptPhotoSchema = z.object({ file: z.string(), width: z.int(), height: z.int() });
export type KeptPhoto = z.infer<typeof keptPhotoSchema>;
/** `small` present, with any value: the reduced picture. */
export const photoQuerySchema = z.object({ small: z.string().max(20).optional() });
