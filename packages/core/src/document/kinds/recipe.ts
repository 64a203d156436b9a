import { z } from 'zod';
import { GROUND_REFS, name, plates, reference } from '../fields.ts';
import { colourField, partField, tonesField } from '../partLines.ts';
import { GROUNDS } from '../vocabulary.ts';
import { defineKind } from '../kind.ts';

/** How ground looks: tones of its cover, and what lies on it in even, unpatterned scatter. */
export const recipeKind = defineKind({
  schema: z.strictObject({
    name,
    ground: z.enum(GROUNDS),
    /** Where it holds; null: wherever no section has its own. */
    section: reference.default(null),
    /**
     * It holds for ground at least so high above the datum, plates: snow on the tops. Of several that hold the highest counts;
     * null: at any height.
     */
    above: plates.nullable().default(null),
    /** The cover's colours by parts of the whole; the first is the base. */
    tones: tonesField('a recipe needs one tone'),
    /** The colour of the sides that show under it; null: its base. */
    side: colourField.nullable().default(null),
    /** Laid on the cover: percent of its studs, in groups, no nearer to each other than `apart` studs. */
    accents: z
      .array(
        z.strictObject({
          part: partField.default('plate-1x1'),
          colour: colourField,
          percent: z.number().min(0).max(60),
          group: z.int().min(1).max(5).default(1),
          apart: z.number().min(0).max(64).default(0),
        }),
      )
      .max(12)
      .default([]),
    /** How far it may bend to what is in stock, percent of the whole. */
    bend: z.number().min(0).max(100).default(0),
    seed: z.int().min(0).max(1_000_000).default(1),
  }),
  group: 'recipes',
  word: 'recipe',
  refs: { section: 'section', ...GROUND_REFS },
});
