import { z } from 'zod';
import { name, plates } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const levelKind = defineKind({
  schema: z.strictObject({ name, height: plates }),
  group: 'levels',
  word: 'level',
  public: true,
});
