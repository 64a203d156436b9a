import { z } from 'zod';
import { clockTime, line, name } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const personKind = defineKind({
  schema: z.strictObject({
    name,
    initials: line().trim().min(1).max(3),
    town: line().max(80).default(''),
    /** Whether they help to set up at the show, and since when that day; null: from the first minute. */
    comes: z.boolean().default(true),
    arrives: clockTime.nullable().default(null),
    /** Helps on the evening before already, where the hall is open then. */
    eve: z.boolean().default(true),
    /** The most that they carry, kg; null: as the lift index of a task says. */
    carriesKg: z.number().min(0).max(100).nullable().default(null),
  }),
  group: 'people',
  word: 'person',
});
