import { z } from 'zod';
import { name, plates } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const FURNITURE_USES = ['seat', 'table', 'counter', 'doorway'] as const;
export type FurnitureUse = (typeof FURNITURE_USES)[number];

export const furnishingKind = defineKind({
  schema: z.strictObject({
    name,
    use: z.enum(FURNITURE_USES),
    /** Height as built, plates: of the seat, the top, or the clear opening. */
    height: plates.min(1),
  }),
  group: 'furnishings',
  word: 'furnishing',
});
