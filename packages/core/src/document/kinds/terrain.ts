import { z } from 'zod';
import { GROUND_REFS, groundField, levelFields, name, plates, studArea, text } from '../fields.ts';
import { defineKind } from '../kind.ts';

/** The most samples of one imported ground, a side; a larger one comes in parts. */
export const MAX_SAMPLES = 512;

/** Ground from a height file: samples of 16 bits, row by row from the north-west, spread from `low` to `high`. */
export const terrainKind = defineKind({
  schema: z.strictObject({
    name,
    ...studArea,
    ...levelFields,
    low: plates.default(0),
    high: plates.default(30),
    ground: groundField.default('grass'),
    columns: z.int().min(2).max(MAX_SAMPLES),
    rows: z.int().min(2).max(MAX_SAMPLES),
    /** Little-endian unsigned 16-bit samples as base64. */
    samples: z
      .string()
      .max(700_000)
      .regex(/^[A-Za-z0-9+/]*={0,2}$/, 'samples are base64'),
    /** Samples of 0 stand for no height: those studs stay as they are, and `low` begins at 1. */
    gaps: z.boolean().default(false),
    notes: text.default(''),
  }),
  group: 'terrains',
  word: 'imported ground',
  public: true,
  refs: { level: 'level', ...GROUND_REFS },
  outline: 8,
  relief: 'land',
  plannersOnly: true,
});
