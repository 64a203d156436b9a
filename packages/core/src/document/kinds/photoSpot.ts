import { z } from 'zod';
import { name, spotFields } from '../fields.ts';
import { defineKind } from '../kind.ts';

/** A place that photos are to be taken from, chosen before the first of them: what is seen from there is known at once. */
export const photoSpotKind = defineKind({
  schema: z.strictObject({
    name,
    ...spotFields,
    /** Where the camera looks, degrees clockwise from north. */
    bearing: z.int().min(0).max(359).default(0),
    /** Of the camera over the floor, mm; null: an adult’s eyes. */
    eye: z.int().min(1).max(10_000).nullable().default(null),
  }),
  group: 'photoSpots',
  word: 'photo spot',
  outline: 19,
});
