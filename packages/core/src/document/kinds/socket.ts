import { z } from 'zod';
import { millimetres, name, placeField } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const socketKind = defineKind({
  schema: z.strictObject({
    name,
    place: placeField,
    x: millimetres,
    y: millimetres,
    /** How many plugs go in. */
    outlets: z.int().min(1).max(20).default(2),
  }),
  group: 'sockets',
  word: 'socket',
  refs: { place: 'place' },
  inRoom: true,
});
