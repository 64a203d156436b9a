import { z } from 'zod';
import { STAND_REFS, line, name, plates, spotFields, standFields } from '../fields.ts';
import { defineKind } from '../kind.ts';
import { colourField } from '../partLines.ts';

export const MOUNTS_OF_SIGNBOARDS = ['post', 'wall'] as const;

/** A board with one line of letters: over a shop, on a post, with the name of a station. */
export const signboardKind = defineKind({
  schema: z.strictObject({
    name,
    /** Middle of its foot. */
    ...spotFields,
    /** Where its letters look, degrees clockwise from north. */
    facing: z.int().min(0).max(359).default(180),
    /** Of the board, studs and plates. */
    w: z.int().min(1).max(96).default(6),
    height: plates.min(1).max(120).default(6),
    /** From what it stands on to the lower edge of the board, plates. */
    up: plates.min(0).default(12),
    /** What carries it over that: a post of its own, or the wall behind it. */
    on: z.enum(MOUNTS_OF_SIGNBOARDS).default('post'),
    /** What is written on it; empty: its name. */
    text: line().trim().max(60).default(''),
    /** Height of its capital letters, mm; null: as large as the board lets them. */
    letters: z.number().min(0.5).max(300).nullable().default(null),
    colour: colourField.default('slate'),
    ink: colourField.default('chalk'),
    ...standFields,
  }),
  group: 'signboards',
  word: 'signboard',
  public: true,
  refs: STAND_REFS,
  outline: 17.5,
  beyond: ({ w }) => w / 2,
});
