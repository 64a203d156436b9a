import { z } from 'zod';
import { name, placeField, showTimes } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const milestoneKind = defineKind({
  schema: z.strictObject({
    name,
    date: z.iso.date(),
    /** A day on which the display is shown. */
    show: z.boolean().default(false),
    /** Where it is shown that day; null: not known. */
    place: placeField,
    ...showTimes,
  }),
  group: 'milestones',
  word: 'milestone',
  refs: { place: 'place' },
});
