import { z } from 'zod';
import { name, size } from '../fields.ts';
import { CUSTOM_GROUNDS } from '../vocabulary.ts';
import { customGroundKind } from './customGround.ts';
import { defineKind } from '../kind.ts';

/** Things kept together to be set out again: a whole yard, a stall with its figures. */
export const pieceKind = defineKind({
  schema: z.strictObject({
    name,
    w: size,
    d: size,
    /** Kind and data of each thing, placed from the piece's north-west corner. */
    things: z
      .array(z.strictObject({ kind: z.string().max(20), data: z.record(z.string().max(40), z.unknown()) }))
      .min(1)
      .max(200),
    /** The descriptions of custom grounds that its things have, so that they can be set out in another display. */
    grounds: z
      .array(customGroundKind.schema.extend({ id: z.enum(CUSTOM_GROUNDS) }))
      .max(CUSTOM_GROUNDS.length)
      .default([]),
  }),
  group: 'pieces',
  word: 'piece',
});
