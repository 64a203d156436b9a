import { z } from 'zod';
import { millimetres, mmSize, name, placeField } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const TABLE_KINDS = ['table', 'shelf', 'floor'] as const;

export const tableKind = defineKind({
  schema: z.strictObject({
    name,
    x: millimetres,
    y: millimetres,
    w: mmSize,
    d: mmSize,
    height: z.number().min(0).max(3000).default(740),
    ratedKg: z.number().min(0).max(5000).nullable().default(null),
    place: placeField,
    kind: z.enum(TABLE_KINDS).default('table'),
    /** Leaves along its longer side, and the gap between two of them, mm. */
    leaves: z.int().min(1).max(12).default(1),
    leafGap: z.number().min(0).max(500).default(0),
  }),
  group: 'tables',
  word: 'table',
  refs: { place: 'place' },
  inRoom: true,
});
