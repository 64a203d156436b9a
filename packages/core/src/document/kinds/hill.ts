import { z } from 'zod';
import { GROUND_REFS, methodField, plates, risingFields } from '../fields.ts';
import { defineKind } from '../kind.ts';

/** A hill rises from its level to `height` above it; where the ground is higher already, that stays. */
export const hillKind = defineKind({
  schema: z.strictObject({ ...risingFields, height: plates.min(1), method: methodField }),
  group: 'hills',
  word: 'hill',
  public: true,
  refs: { level: 'level', ...GROUND_REFS },
  outline: 4,
  relief: 'land',
});
