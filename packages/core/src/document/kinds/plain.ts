import { z } from 'zod';
import { MAX_STUDS, name } from '../fields.ts';
import { defineKind } from '../kind.ts';

const stud = z.int().min(-MAX_STUDS).max(MAX_STUDS);
const length = z.int().min(1).max(MAX_STUDS);

/** Ground whose cover nobody sees: it is laid in any colour, without tones and accents, where the house rules leave hidden colours free. */
export const plainKind = defineKind({
  schema: z.strictObject({
    name,
    areas: z
      .array(z.strictObject({ x: stud, y: stud, w: length, d: length }))
      .min(1, 'plain ground needs one area')
      .max(200, 'plain ground has at most 200 areas'),
  }),
  group: 'plains',
  word: 'plain ground',
  plannersOnly: true,
});
