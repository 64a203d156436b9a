import { z } from 'zod';
import { STAND_REFS, line, name, spotFields, standFields } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const FIGURE_STATES = ['idea', 'planned', 'built', 'placed'] as const;

export const figureKind = defineKind({
  schema: z.strictObject({
    name,
    ...spotFields,
    /** How many figures play in it. */
    cast: z.int().min(1).max(500).default(1),
    ...standFields,
    story: line().max(200).default(''),
    state: z.enum(FIGURE_STATES).default('idea'),
  }),
  group: 'figures',
  word: 'small scene',
  refs: STAND_REFS,
  outline: 16,
});
