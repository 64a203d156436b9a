import { z } from 'zod';
import { name, plates, spotFields } from '../fields.ts';
import { WINDS } from '../vocabulary.ts';
import { defineKind } from '../kind.ts';

export const flagKind = defineKind({
  schema: z.strictObject({
    name,
    ...spotFields,
    /** Where it points: downwind. */
    heading: z.enum(WINDS).default('e'),
    height: plates.min(1).default(24),
  }),
  group: 'flags',
  word: 'flag',
  public: true,
  outline: 17,
});
