import { z } from 'zod';
import { name, studArea, text } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const reservedKind = defineKind({
  schema: z.strictObject({ name, ...studArea, notes: text.default('') }),
  group: 'reserved',
  word: 'reserved ground',
  outline: 19,
});
