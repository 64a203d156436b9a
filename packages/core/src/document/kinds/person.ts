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
  }),
  group: 'people',
  word: 'person',
});
