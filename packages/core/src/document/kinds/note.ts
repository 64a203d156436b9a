import { z } from 'zod';
import { name, spotFields, text } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const noteKind = defineKind({
  schema: z.strictObject({ name, ...spotFields, text: text.default('') }),
  group: 'notes',
  word: 'note',
  outline: 20,
});
