import { z } from 'zod';
import { FAMILY_NAMES } from '../../catalogue/index.ts';
import { line, money } from '../fields.ts';
import { colourField } from '../partLines.ts';
import { defineKind } from '../kind.ts';

/** What a builder knows of a part, listed or their own: its id is the part's. */
export const partTypeKind = defineKind({
  schema: z.strictObject({
    name: line().trim().max(80).default(''),
    family: z.enum(FAMILY_NAMES),
    /** One piece as weighed, grams; null: by its volume. */
    grams: z.number().positive().max(5000).nullable().default(null),
    price: money.nullable().default(null),
    /** Colours it is known to come in; empty: not known. */
    colours: z.array(colourField).max(100).default([]),
    /** Bought over the count, percent; null: the display's or the family's. */
    spares: z.number().min(0).max(100).nullable().default(null),
  }),
  group: 'partTypes',
  word: 'part',
  ownBy: [],
});
