import { z } from 'zod';
import { millimetres, mmSize, name, placeField } from '../fields.ts';
import { defineKind } from '../kind.ts';

/** An extension lead in a room: where its outlets lie, and how far its lead goes. */
export const extensionKind = defineKind({
  schema: z.strictObject({
    name,
    place: placeField,
    x: millimetres,
    y: millimetres,
    leadMm: mmSize.default(3000),
    outlets: z.int().min(1).max(20).default(3),
  }),
  group: 'extensions',
  word: 'extension lead',
  refs: { place: 'place' },
  inRoom: true,
});
