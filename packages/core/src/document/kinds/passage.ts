import { z } from 'zod';
import { mmSize, name, placeField, reference } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const PASSAGE_KINDS = ['door', 'corner', 'stair', 'lift', 'vehicle'] as const;

const inside = z.number().min(0).max(40_000).default(0);

/** One step of the way from the workshop to the place. */
export const passageKind = defineKind({
  schema: z.strictObject({
    name,
    /** Clear width and height; for a corner or a stair with a turn, the width before it. */
    width: mmSize,
    height: mmSize,
    place: placeField,
    kind: z.enum(PASSAGE_KINDS).default('door'),
    order: z.int().min(0).max(100_000).default(0),
    /** Clear width after a right-angled turn; null: as before it, and for a stair none. */
    width2: mmSize.nullable().default(null),
    /** Pitch of a stair, degrees. */
    pitch: z.number().min(0).max(60).default(0),
    /** Room inside a lift or a vehicle; null: not known, taken as no limit. */
    insideW: mmSize.nullable().default(null),
    insideD: mmSize.nullable().default(null),
    insideH: mmSize.nullable().default(null),
    /** What a vehicle may be loaded with, kg; null: not known, taken as no limit. */
    maxKg: z.number().min(1).max(40_000).nullable().default(null),
    /** Wheel arches at both sides of a vehicle's load space: from the door, and their size; 0: none. */
    archFrom: inside,
    archW: inside,
    archD: inside,
    archH: inside,
    /** How many times a vehicle goes. */
    trips: z.int().min(1).max(20, 'a vehicle goes 20 times at most').default(1),
    /** Who drives a vehicle. */
    driver: reference.default(null),
  }),
  group: 'passages',
  word: 'passage',
  refs: { place: 'place', driver: 'person' },
  inRoom: true,
});
