import { z } from 'zod';
import { reference } from '../fields.ts';
import { colourField, lineSchema, partField } from '../partLines.ts';
import { defineKind } from '../kind.ts';
import { ofPart } from '../partLines.ts';

/** Pieces that may be used instead of another, in one section or always. */
export const substituteKind = defineKind({
  schema: z.strictObject({
    part: partField,
    colour: colourField,
    /** What makes one of it. */
    use: z.array(lineSchema).min(1).max(12),
    section: reference.default(null),
  }),
  group: 'substitutes',
  word: 'substitute',
  label: (of) => `substitute${ofPart(of)}`,
  refs: { section: 'section' },
});
