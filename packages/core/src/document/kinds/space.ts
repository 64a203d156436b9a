import { z } from 'zod';
import { metres, name, reference } from '../fields.ts';
import { defineKind } from '../kind.ts';

/** A room or yard the scene needs, with its true size inside, and the plot it is given. */
export const spaceKind = defineKind({
  schema: z.strictObject({
    name,
    w: metres,
    d: metres,
    plot: reference.default(null),
    /** Thickness of its walls, studs; 0 for a yard. */
    wall: z.number().multipleOf(0.5).min(0).max(16).default(1),
  }),
  group: 'spaces',
  word: 'room or yard',
  refs: { plot: 'plot' },
});
