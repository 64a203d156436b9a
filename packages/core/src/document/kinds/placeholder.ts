import { z } from 'zod';
import { date, position, reference, text } from '../fields.ts';
import { colourField, partField, quantity } from '../partLines.ts';
import { defineKind } from '../kind.ts';
import { ofPart } from '../partLines.ts';

/** Built in with what was at hand; to be swapped when the right one comes. */
export const placeholderKind = defineKind({
  schema: z.strictObject({
    /** What it should be. */
    part: partField,
    colour: colourField,
    qty: quantity.min(1).default(1),
    /** The colour it stands in. */
    stands: colourField,
    section: reference.default(null),
    x: position,
    y: position,
    built: date.default(null),
    swapped: date.default(null),
    notes: text.default(''),
  }),
  group: 'placeholders',
  word: 'placeholder',
  label: (of) => `placeholder${ofPart(of)}`,
  refs: { section: 'section' },
  ownBy: ['section'],
});
