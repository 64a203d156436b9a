import { z } from 'zod';
import { millimetres, mmSize, name, placeField } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const obstacleKind = defineKind({
  schema: z.strictObject({
    name,
    place: placeField,
    x: millimetres,
    y: millimetres,
    w: mmSize,
    d: mmSize,
    height: mmSize.default(2000),
  }),
  group: 'obstacles',
  word: 'obstacle',
  refs: { place: 'place' },
  inRoom: true,
});
