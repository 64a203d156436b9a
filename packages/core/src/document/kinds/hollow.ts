import { z } from 'zod';
import { GROUND_REFS, plates, risingFields } from '../fields.ts';
import { defineKind } from '../kind.ts';

/** A hollow is dug from its level to `depth` below it; where the ground is lower already, that stays. */
export const hollowKind = defineKind({
  schema: z.strictObject({ ...risingFields, depth: plates.min(1) }),
  group: 'hollows',
  word: 'hollow',
  public: true,
  refs: { level: 'level', ...GROUND_REFS },
  outline: 5,
  relief: 'land',
});
