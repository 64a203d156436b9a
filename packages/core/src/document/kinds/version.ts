import { z } from 'zod';
import { bounded, line, name, reference } from '../fields.ts';
import { defineKind } from '../kind.ts';

/** One of several ways in which a display is shown: another season, another story. The base is no version. */
export const versionKind = defineKind({
  schema: z.strictObject({
    name,
    note: line().max(200).default(''),
  }),
  group: 'versions',
  word: 'version',
  max: 40,
});

export const DIFFERENCES = ['added', 'changed', 'gone'] as const;

/** How deep what differs may be nested, and how long it may be as JSON. */
const MAX_DIFFERENCE_NESTING = 10;
const MAX_DIFFERENCE_LETTERS = 100_000;

/** What of one thing is otherwise in a version than in the base. */
export const differenceKind = defineKind({
  schema: z.strictObject({
    /** The version; null: of none any more, so that it counts for nothing. */
    version: reference,
    /** The kind and id of the thing. */
    of: line().min(1).max(40),
    thing: z.string().min(1).max(64),
    how: z.enum(DIFFERENCES),
    /** All fields of a thing that is added; those that are changed; none of one that is gone. */
    fields: bounded(z.record(z.string().max(40), z.unknown()), 'a difference', {
      nesting: MAX_DIFFERENCE_NESTING,
      letters: MAX_DIFFERENCE_LETTERS,
    }).default({}),
  }),
  group: 'differences',
  word: 'difference of a version',
  label: ({ version, of, thing }, fieldOf) =>
    `“${fieldOf(of, thing, 'name') ?? of}” in “${fieldOf('version', version, 'name') ?? 'a version that is gone'}”`,
  refs: { version: 'version' },
  max: 20_000,
});
