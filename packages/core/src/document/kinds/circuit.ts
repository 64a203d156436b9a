import { z } from 'zod';
import { name, position, reference } from '../fields.ts';
import { defineKind } from '../kind.ts';

/** Copper of common wires, mm². */
export const WIRES = [0.05, 0.08, 0.14, 0.25, 0.34, 0.5, 0.75, 1, 1.5] as const;

/** One cable from a supply to what it feeds, with its branches. */
export const circuitKind = defineKind({
  schema: z.strictObject({
    name,
    supply: reference.default(null),
    /** Copper of each of its two wires, mm². */
    wire: z.literal(WIRES).default(0.14),
    /** What is cut longer than the route on the plan, percent (a default of ours, no source). */
    slack: z.number().min(0).max(200).default(15),
    /** The most that the voltage may fall on the way, percent (a default of ours, no source). */
    maxDrop: z.number().min(1).max(50).default(10),
    /** Where it can be parted: on the sides of modules. */
    connectors: z
      .array(z.strictObject({ x: position, y: position }))
      .max(60)
      .default([]),
    /** It stays on when something must be turned off. */
    essential: z.boolean().default(false),
  }),
  group: 'circuits',
  word: 'circuit',
  refs: { supply: 'supply' },
  ownBy: [],
});
