import { z } from 'zod';
import { name } from '../fields.ts';
import { defineKind } from '../kind.ts';

/** A piece that a rule card asks for, and how many of it stand already. */
export const requirementKind = defineKind({
  schema: z.strictObject({
    name,
    count: z.int().min(1).max(1000).default(1),
    placed: z.int().min(0).max(1000).default(0),
  }),
  group: 'requirements',
  word: 'required piece',
});
