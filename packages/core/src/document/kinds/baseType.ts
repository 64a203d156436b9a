import { z } from 'zod';
import { money, wholeSize } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const baseTypeKind = defineKind({
  schema: z.strictObject({
    w: wholeSize,
    d: wholeSize,
    price: money,
    stock: z.int().min(0).max(10_000),
    /** The most that can be had in all; null: as many as one buys. */
    max: z.int().min(0).max(10_000).nullable().default(null),
  }),
  group: 'bases',
  word: 'base size',
  label: ({ w, d }) => `base ${w}×${d}`,
});
