import { z } from 'zod';
import { name } from '../fields.ts';
import { defineKind } from '../kind.ts';

/** The longest picture, characters: a drawing of about 1,600 × 1,200 px re-encoded. */
export const MAX_PICTURE = 1_400_000;

/** A picture under the plan, to draw after. */
export const pictureKind = defineKind({
  schema: z.strictObject({
    name,
    x: z.number().min(-4096).max(4096),
    y: z.number().min(-4096).max(4096),
    w: z.number().min(0.5).max(4096),
    d: z.number().min(0.5).max(4096),
    /** How much of it shows, percent. */
    shows: z.int().min(5).max(100).default(50),
    /** JPEG, PNG or WebP, as a data address. */
    image: z
      .string()
      .max(MAX_PICTURE, 'the picture is too large')
      .regex(/^data:image\/(jpeg|png|webp);base64,[A-Za-z0-9+/]+={0,2}$/, 'a picture is JPEG, PNG or WebP'),
  }),
  group: 'pictures',
  word: 'picture',
  outline: 21,
  plannersOnly: true,
});
