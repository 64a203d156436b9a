import { z } from 'zod';
import { money, name, reference, text } from '../fields.ts';
import { linesField } from '../partLines.ts';
import { defineKind } from '../kind.ts';

export const LIST_USES = ['need', 'kit'] as const;
export const LIST_PURPOSES = ['building', 'figures', 'ground', 'planting', 'lights', 'other'] as const;

/** A list of parts: what a building, a cast or a corner needs, or what a kit holds. */
export const partListKind = defineKind({
  schema: z.strictObject({
    name,
    use: z.enum(LIST_USES).default('need'),
    purpose: z.enum(LIST_PURPOSES).default('building'),
    section: reference.default(null),
    /** Of needs: the building it is the list of; it then takes the place of what is estimated of that building. */
    plot: reference.default(null),
    /** How many of it: buildings of a kind, copies of a kit. */
    copies: z.int().min(1).max(1000).default(1),
    /** Of kits: whose, and what one cost. */
    owner: reference.default(null),
    price: money.default(0),
    /** Of needs: may only be built from kits. */
    kitsOnly: z.boolean().default(false),
    lines: linesField,
    notes: text.default(''),
  }),
  group: 'partLists',
  word: 'parts list',
  refs: { plot: 'plot', section: 'section', owner: 'person' },
});
