import { z } from 'zod';
import { idSchema, money, name, plates, wholeSize, wholeStud } from './fields.ts';

// How the scene is divided for carrying: base sizes, modules, and what is agreed about the seams between them.

export const baseTypeSchema = z.strictObject({
  w: wholeSize,
  d: wholeSize,
  price: money,
  stock: z.int().min(0).max(10_000),
  /** The most that can be had in all; null: as many as one buys. */
  max: z.int().min(0).max(10_000).nullable().default(null),
});

export const moduleSchema = z.strictObject({
  name,
  x: wholeStud,
  y: wholeStud,
  w: wholeSize,
  d: wholeSize,
  bases: z.array(z.strictObject({ x: wholeStud, y: wholeStud, w: wholeSize, d: wholeSize })).max(2000),
  /** A locked module is kept when the rest is cut again. */
  locked: z.boolean().default(false),
});

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
export const seamSchema = z.strictObject({
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
});
