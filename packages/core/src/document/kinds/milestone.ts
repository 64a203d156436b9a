import { z } from 'zod';
import { idSchema, name, placeField, showTimes } from '../fields.ts';
import { defineKind } from '../kind.ts';
import { STAGES } from '../vocabulary.ts';

/** What may be promised for a day. */
export const PROMISED = ['section', 'task', 'figure', 'thread'] as const;
export const MAX_PROMISES = 60;

export const milestoneKind = defineKind({
  schema: z.strictObject({
    name,
    date: z.iso.date(),
    /** A day on which the display is shown. */
    show: z.boolean().default(false),
    /** Where it is shown that day; null: not known. */
    place: placeField,
    ...showTimes,
    /** What is told to be done by that day; what is gone meanwhile stays told. */
    promises: z
      .array(
        z.strictObject({
          of: z.enum(PROMISED),
          thing: idSchema,
          /** The stage that a section is to stand at; of others it says nothing. */
          stage: z.enum(STAGES).default('done'),
        }),
      )
      .max(MAX_PROMISES, 'a milestone promises at most 60 things')
      .default([]),
  }),
  group: 'milestones',
  word: 'milestone',
  refs: { place: 'place' },
});
