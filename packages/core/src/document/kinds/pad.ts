import { z } from 'zod';
import { areaFields, GROUND_REFS, groundField, levelFields, methodField, name } from '../fields.ts';
import { defineKind } from '../kind.ts';

/** How a pad ends on one side. */
export const EDGES = ['open', 'cliff', 'slope', 'wall', 'terrace'] as const;

/** The largest number in the order in which pads are laid. */
export const MAX_PAD_ORDER = 100_000;

const edge = z
  .strictObject({
    kind: z.enum(EDGES).default('open'),
    /** Studs across for each brick of height, of slopes and terraces. */
    run: z.number().min(0.25).max(64).default(2),
  })
  .prefault({});

export const padKind = defineKind({
  schema: z.strictObject({
    name,
    ...areaFields,
    ...levelFields,
    ground: groundField,
    /** Pads are laid in this order, then by id; a later one covers an earlier one. */
    order: z.int().min(0).max(MAX_PAD_ORDER).default(0),
    /** How each side of a rectangle meets the ground beyond it; slopes go no further than `reach` studs. */
    edges: z.strictObject({ n: edge, e: edge, s: edge, w: edge }).prefault({}),
    reach: z.number().min(0).max(256).default(16),
    method: methodField,
  }),
  group: 'pads',
  word: 'pad',
  public: true,
  refs: { level: 'level', ...GROUND_REFS },
  outline: 3,
  relief: 'land',
  beyond: ({ edges, reach }) =>
    Object.values(edges).some(({ kind }) => kind === 'slope' || kind === 'terrace') ? reach : 0,
});
