import { z } from 'zod';
import { line, reference } from '../fields.ts';
import { colourField, partField, quantity } from '../partLines.ts';
import { defineKind } from '../kind.ts';
import { ofPart } from '../partLines.ts';

/** Pieces of one part and colour in one place of one person. */
export const lotKind = defineKind({
  schema: z.strictObject({
    part: partField,
    colour: colourField,
    qty: quantity,
    owner: reference.default(null),
    /** The drawer or crate. */
    place: line().trim().max(80).default(''),
    /** Donated: it is not returned. */
    bulk: z.boolean().default(false),
    /** Scratched or yellowed: good enough where it is not seen. */
    worn: z.boolean().default(false),
  }),
  group: 'lots',
  word: 'stock',
  label: (of) => `stock${ofPart(of)}`,
  refs: { owner: 'person' },
  ownBy: ['owner'],
  max: 20_000,
});
