import { z } from 'zod';
import { millimetres, name, placeField } from '../fields.ts';
import { defineKind } from '../kind.ts';

/** The line that keeps the public off the display. */
export const barrierKind = defineKind({
  schema: z.strictObject({
    name,
    place: placeField,
    x1: millimetres,
    y1: millimetres,
    x2: millimetres,
    y2: millimetres,
  }),
  group: 'barriers',
  word: 'barrier',
  refs: { place: 'place' },
  inRoom: true,
});
