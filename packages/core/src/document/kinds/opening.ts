import { z } from 'zod';
import { mmSize, name, placeField } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const OPENING_USES = ['door', 'opening', 'window'] as const;

/** A door, window or open way in a wall: `wall` counts the room's sides from 0, `at` runs along it from its first corner. */
export const openingKind = defineKind({
  schema: z.strictObject({
    name,
    place: placeField,
    use: z.enum(OPENING_USES).default('door'),
    wall: z.int().min(0).max(59),
    at: z.number().min(0).max(40_000),
    width: mmSize,
    height: mmSize.default(2000),
  }),
  group: 'openings',
  word: 'opening',
  refs: { place: 'place' },
  inRoom: true,
});
