import { z } from 'zod';
import { idSchema, name, plates, wholeStud } from '../fields.ts';
import { defineKind } from '../kind.ts';

/** The two sides of a seam: a lies west or north of it, b east or south. */
export const SEAM_SIDES = ['a', 'b'] as const;
export type SeamSide = (typeof SEAM_SIDES)[number];

const heights = z.array(plates).max(4096);

/** What is along one seam: stud by stud the height of the ground on both sides, and what the ground is. */
export const edgeSchema = z.strictObject({
  /** Studs of the seam's beginning; it runs south or east from there. */
  x: wholeStud,
  y: wholeStud,
  upright: z.boolean(),
  heights: z.strictObject({ a: heights, b: heights }),
  grounds: z.strictObject({
    a: z.array(z.string().max(20)).max(4096),
    b: z.array(z.string().max(20)).max(4096),
  }),
});

/** What two builders agree about the seam between their modules, and what stands there. */
export const seamKind = defineKind({
  schema: z.strictObject({
    /** The modules on both sides, by id. */
    a: idSchema,
    b: idSchema,
    /** How far rough ground may differ from what is agreed, plates; streets, ways and tracks never may. */
    tolerance: z.int().min(0).max(30).default(1),
    agreed: edgeSchema.nullable().default(null),
    /** Who signed for which side, and when. */
    signs: z
      .array(
        z.strictObject({
          side: z.enum(SEAM_SIDES),
          person: idSchema.nullable(),
          by: name,
          at: z.iso.datetime(),
        }),
      )
      .max(2)
      .default([]),
    /** What stands, read at the table: the height at a stud of one side. */
    readings: z
      .array(z.strictObject({ side: z.enum(SEAM_SIDES), at: wholeStud, height: plates }))
      .max(8192)
      .default([]),
  }),
  group: 'seams',
  word: 'seam',
  label: ({ a, b }, fieldOf) =>
    `seam ${fieldOf('module', a, 'name') ?? a}–${fieldOf('module', b, 'name') ?? b}`,
});
