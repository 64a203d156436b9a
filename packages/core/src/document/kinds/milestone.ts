import { z } from 'zod';
import { name } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const milestoneKind = defineKind({
  schema: z.strictObject({
    name,
    date: z.iso.date(),
    /** A day on which the display is shown. */
    show: z.boolean().default(false),
  }),
  group: 'milestones',
  word: 'milestone',
});
