import { z } from 'zod';
import { mmSize, name } from '../fields.ts';
import { defineKind } from '../kind.ts';

/** Crates, boxes, shelves or carriers of one size: things go in upright, on its floor. */
export const crateKind = defineKind({
  schema: z.strictObject({
    name,
    count: z.int().min(1).max(500).default(1),
    /** Room inside, and what its walls, floor and lid add on each side. */
    insideW: mmSize,
    insideD: mmSize,
    insideH: mmSize,
    wall: z.number().min(0).max(200).default(3),
    /** Padding about each thing in it. */
    padding: z.number().min(0).max(500).default(10),
    /** What it may hold, kg; null: not known, taken as no limit. */
    maxKg: z.number().min(0.1).max(2000).nullable().default(null),
    /** Its own mass, kg, and what it bears on its lid; 0: nothing may stand on it. */
    ownKg: z.number().min(0).max(500).default(1),
    bearsKg: z.number().min(0).max(2000).default(0),
    /** Rolls on wheels of its own where no stair is in the way. */
    wheels: z.boolean().default(false),
  }),
  group: 'crates',
  word: 'crate',
  inRoom: true,
});
