import { z } from 'zod';
import { date, idSchema, line, name, reference, studArea, text } from '../fields.ts';
import { COLOUR_POLICIES, METHODS, STAGES } from '../vocabulary.ts';
import { defineKind } from '../kind.ts';

export const sectionKind = defineKind({
  schema: z.strictObject({
    letter: line().trim().min(1).max(2),
    name,
    ...studArea,
    owner: reference.default(null),
    /** Who else builds here: they may do what its owner may. */
    helpers: z.array(idSchema).max(20).default([]),
    stage: z.enum(STAGES).default('planned'),
    /** Share of the current stage that is done, percent. */
    stageDone: z.int().min(0).max(100).default(0),
    /** Guess of its total work, hours; null: not guessed. */
    hours: z.number().min(0).max(100_000).nullable().default(null),
    /** How its ground is filled; null: as the display's. */
    method: z.enum(METHODS).nullable().default(null),
    /** The day its parts are needed; null: by the show. */
    partsBy: date.default(null),
    /** A colour policy of its own; null: the house rules'. */
    colour: z.enum(COLOUR_POLICIES).nullable().default(null),
    notes: text.default(''),
  }),
  group: 'sections',
  word: 'section',
  label: (section) => `section ${section.letter}, ${section.name}`,
  public: true,
  refs: { owner: 'person', helpers: 'person' },
  outline: 1,
  plannersOnly: true,
});
