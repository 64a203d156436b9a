import { z } from 'zod';
import { MAX_STUDS, name } from '../fields.ts';
import { defineKind } from '../kind.ts';
import { SIDES } from '../vocabulary.ts';

const stud = z.int().min(-MAX_STUDS).max(MAX_STUDS);
const length = z.int().min(1).max(MAX_STUDS);
const area = { x: stud, y: stud, w: length, d: length };

/** Most stretches of faces that plain ground has. */
export const MAX_PLAIN_FACES = 400;

/**
 * Ground of which nobody sees the cover, or faces of cliffs and edges: there it is laid in any colour, without tones and
 * accents, where the house rules leave hidden colours free.
 */
export const plainKind = defineKind({
  schema: z.strictObject({
    name,
    areas: z.array(z.strictObject(area)).max(200, 'plain ground has at most 200 areas').default([]),
    /** Studs whose face to one side nobody sees. */
    faces: z
      .array(z.strictObject({ ...area, side: z.enum(SIDES) }))
      .max(MAX_PLAIN_FACES, `plain ground has at most ${MAX_PLAIN_FACES} stretches of faces`)
      .default([]),
  }),
  group: 'plains',
  word: 'plain ground',
  plannersOnly: true,
});
