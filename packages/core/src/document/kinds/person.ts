import { z } from 'zod';
import { line, name } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const personKind = defineKind({
  schema: z.strictObject({
    name,
    initials: line().trim().min(1).max(3),
    town: line().max(80).default(''),
  }),
  group: 'people',
  word: 'person',
});
