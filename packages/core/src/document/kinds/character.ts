import { z } from 'zod';
import { line, name, reference } from '../fields.ts';
import { defineKind } from '../kind.ts';
import { colourField, partField } from '../partLines.ts';
import { PLANT_SEASONS } from '../vocabulary.ts';

export const CHARACTER_FORMS = ['figure', 'animal', 'vehicle'] as const;
export type CharacterForm = (typeof CHARACTER_FORMS)[number];
export const CHARACTER_SOURCES = ['own', 'lent', 'buy', 'assemble'] as const;
export const CHARACTER_STATES = ['ready', 'wanted', 'broken', 'lost'] as const;
export const ROLE_LENGTH = 40;

/** A figure with a name of its own, a group of them, an animal or a vehicle: who plays in small scenes. */
export const characterKind = defineKind({
  schema: z.strictObject({
    name,
    form: z.enum(CHARACTER_FORMS).default('figure'),
    /** So many alike that stand together: a queue of twelve. */
    count: z.int().min(1).max(500).default(1),
    /** What it may play; a stand-in has the same. */
    role: line().trim().max(ROLE_LENGTH).default(''),
    source: z.enum(CHARACTER_SOURCES).default('own'),
    /** Whose it is, or who lends, buys or assembles it. */
    owner: reference.default(null),
    state: z.enum(CHARACTER_STATES).default('ready'),
    /** The season that its clothes suit. */
    season: z.enum(PLANT_SEASONS).default('any'),
    /** What one of them wears and holds. */
    wears: z
      .array(z.strictObject({ part: partField, colour: colourField }))
      .max(12)
      .default([]),
    /** The vehicle it rides in, so that it is where that is. */
    crewOf: reference.default(null),
    /** What it looks like, so that it is found in the box. */
    photo: reference.default(null),
    /** What visitors are told to look for, such as “cats”; empty: they are not. */
    seek: line().trim().max(ROLE_LENGTH).default(''),
    /** Its name may be read by the public. */
    named: z.boolean().default(false),
  }),
  group: 'characters',
  word: 'character',
  refs: { owner: 'person', crewOf: 'character', photo: 'photo' },
  ownBy: ['owner'],
});
