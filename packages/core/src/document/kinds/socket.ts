import { z } from 'zod';
import { millimetres, name, placeField } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const socketKind = defineKind({
  schema: z.strictObject({ name, place: placeField, x: millimetres, y: millimetres }),
  group: 'sockets',
  word: 'socket',
  refs: { place: 'place' },
  inRoom: true,
});
