import { z } from 'zod';
import { areaFields, name, plates, size } from '../fields.ts';
import { LEAF_SEASONS } from '../vocabulary.ts';
import { defineKind } from '../kind.ts';

const plant = z.strictObject({
  name,
  /** Parts of the mix. */
  share: z.number().min(0).max(1000).default(1),
  low: plates.min(1).default(6),
  high: plates.min(1).default(12),
  /** Width of the crown, studs. */
  crown: size.max(64).default(2),
  /** The season its leaves show. */
  season: z.enum(LEAF_SEASONS).default('any'),
});

export const plantingKind = defineKind({
  schema: z.strictObject({
    name,
    ...areaFields,
    /** Plants to 100 studs. */
    density: z.number().min(0).max(100).default(2),
    mix: z.array(plant).min(1, 'a mix needs one plant').max(24),
    seed: z.int().min(0).max(1_000_000).default(1),
  }),
  group: 'plantings',
  word: 'planting',
  public: true,
  outline: 14,
  relief: 'top',
  beyond: ({ mix }) => Math.max(0, ...mix.map(({ crown }) => crown)) / 2 + 1,
});
