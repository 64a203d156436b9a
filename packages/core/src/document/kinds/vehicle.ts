import { z } from 'zod';
import { metres, name, size } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const vehicleKind = defineKind({
  schema: z.strictObject({
    name,
    count: z.int().min(1).max(1000).default(1),
    /** Length and width as built, studs, and the true length, m. */
    length: size,
    width: size,
    trueLength: metres,
  }),
  group: 'vehicles',
  word: 'vehicle',
});
