import { z } from 'zod';
import { line, mmSize, name, spotFields } from '../fields.ts';
import { defineKind } from '../kind.ts';
import { volts } from './device.ts';

export const SUPPLY_TYPES = ['adapter', 'usb', 'battery'] as const;

/** What feeds cables with extra-low voltage: a mains adapter, a USB port, a battery. */
export const supplyKind = defineKind({
  schema: z.strictObject({
    name,
    /** Where it lies, seen from above: beside the display too. */
    ...spotFields,
    type: z.enum(SUPPLY_TYPES).default('adapter'),
    /** How far below the table top it lies, mm. */
    belowMm: z.number().min(0).max(3000).default(0),
    volts: volts.default(5),
    /** Its rating, mA; null: not known, taken as no limit. */
    milliamps: z.number().min(1).max(60_000).nullable().default(1000),
    /** The plug at its low-voltage side, by a name of one's own; empty: bare wires. */
    plug: line().max(40).default(''),
    /** The lead of an adapter to its socket, mm. */
    leadMm: mmSize.default(1500),
    /** What one charge of a battery holds, mAh, and how many charged ones are brought. */
    capacity: z.number().min(1).max(200_000).default(2500),
    sets: z.int().min(1).max(100).default(1),
  }),
  group: 'supplies',
  word: 'power supply',
  outline: 19,
});
