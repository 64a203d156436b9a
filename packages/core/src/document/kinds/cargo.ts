import { z } from 'zod';
import { mmSize, name } from '../fields.ts';
import { defineKind } from '../kind.ts';

/** When something is needed at the place. */
export const NEEDED = ['first', 'with', 'last'] as const;

/** What is brought along beside the display: tables, cloths, tools, signs. */
export const cargoKind = defineKind({
  schema: z.strictObject({
    name,
    count: z.int().min(1).max(60).default(1),
    /** Its size as it travels, and the mass of one, kg. */
    w: mmSize,
    d: mmSize,
    h: mmSize,
    kg: z.number().min(0).max(1000).default(1),
    /** What it bears on top, kg; 0: nothing may stand on it. */
    bearsKg: z.number().min(0).max(2000).default(0),
    /** Needed before the modules, with what stands on them, or last of all. */
    needed: z.enum(NEEDED).default('first'),
  }),
  group: 'cargoes',
  word: 'load',
  max: 100,
  inRoom: true,
});
