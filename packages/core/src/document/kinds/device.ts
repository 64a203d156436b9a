import { z } from 'zod';
import { STAND_REFS, line, mmSize, name, plates, reference, spotFields, standFields } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const DEVICE_USES = ['light', 'motor', 'controller'] as const;

/** The most volts that are planned here: extra-low voltage ends at 50 V of alternating current (IEC 61140, from memory). */
export const MAX_VOLTS = 50;

export const volts = z
  .number()
  .min(0.5)
  .max(MAX_VOLTS, `above ${MAX_VOLTS} V is no extra-low voltage: a qualified person plans that`);

/** A light, motor or controller of the display. */
export const deviceKind = defineKind({
  schema: z.strictObject({
    name,
    ...spotFields,
    use: z.enum(DEVICE_USES).default('light'),
    /** Over what it stands on, plates. */
    height: plates.min(0).default(0),
    /** Set into what it stands on, plates under its top: to shine up through clear pieces. */
    below: plates.min(0).max(60).default(0),
    ...standFields,
    /** How many of them are at this spot. */
    count: z.int().min(1).max(500).default(1),
    /** What one of them is made for and takes: V and mA. */
    volts: volts.default(5),
    milliamps: z.number().min(0).max(20_000).default(20),
    /** The plug at the end of its lead, by a name of one's own; empty: bare wires. */
    plug: line().max(40).default(''),
    /** The cable it hangs on; null: none yet. */
    circuit: reference.default(null),
    /** Its own lead down to the cable, mm, measured; null: its height over the table. */
    leadMm: mmSize.nullable().default(null),
  }),
  group: 'devices',
  word: 'light or motor',
  refs: { ...STAND_REFS, circuit: 'circuit' },
  outline: 18,
});
