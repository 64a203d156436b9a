import { z } from 'zod';
import { STAND_REFS, name, plates, size, spotFields, standFields } from '../fields.ts';
import { LEAF_SEASONS } from '../vocabulary.ts';
import { defineKind } from '../kind.ts';

export const treeKind = defineKind({
  schema: z.strictObject({
    name,
    ...spotFields,
    height: plates.min(1).default(24),
    crown: size.max(64).default(6),
    ...standFields,
    season: z.enum(LEAF_SEASONS).default('any'),
  }),
  group: 'trees',
  word: 'tree',
  public: true,
  refs: STAND_REFS,
  outline: 15,
  relief: 'top',
  beyond: () => 1,
});
