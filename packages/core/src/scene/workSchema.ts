import { z } from 'zod';
import { date, idSchema, name, reference, text } from './fields.ts';
import { METHODS } from './landSchema.ts';

/** Who works when, on what, and what it took. */

/** Kinds of work, each with a rate of its own. */
export const WORKS = [
  'planning',
  'sorting',
  'ground',
  'structures',
  'dressing',
  'lights',
  'figures',
  'other',
] as const;
export type Work = (typeof WORKS)[number];
const work = z.enum(WORKS).default('other');
const hours = z.number().min(0, 'hours are 0 or more').max(10_000);
const pieces = z.int('pieces are counted whole').min(0).max(1_000_000);

/** Somebody at the table, once: started and stopped, or typed later. */
export const sessionSchema = z.strictObject({
  person: reference,
  section: reference.default(null),
  start: z.iso.datetime(),
  /** Null while it runs. */
  minutes: z.int().min(0).max(1440, 'a session has at most 1,440 minutes').nullable().default(null),
  work,
  method: z.enum(METHODS).nullable().default(null),
  /** Pieces placed; null: not counted. */
  pieces: pieces.nullable().default(null),
  /** Tasks that were finished in it. */
  ticked: z.array(idSchema).max(50).default([]),
  where: z.string().trim().max(80).default(''),
  note: text.default(''),
});

/** A piece of work that can be finished. */
export const taskSchema = z.strictObject({
  name,
  section: reference.default(null),
  work,
  owner: reference.default(null),
  /** Three guesses, hours: at best, most likely, at worst; null: not guessed. */
  low: hours.nullable().default(null),
  likely: hours.nullable().default(null),
  high: hours.nullable().default(null),
  pieces: pieces.nullable().default(null),
  /** Tasks that come before it. */
  after: z.array(idSchema).max(20).default([]),
  /** The day its parts are there; null: they are. */
  parts: date.default(null),
  done: date.default(null),
});

/** When somebody can build: hours on each day of the week from Monday, days away, and where their clock stands. */
export const calendarSchema = z.strictObject({
  person: reference,
  weekly: z.array(z.number().min(0).max(24)).length(7),
  away: z
    .array(z.strictObject({ from: z.iso.date(), to: z.iso.date() }))
    .max(60)
    .default([]),
  /** A zone by its IANA name; empty: not said. */
  zone: z
    .string()
    .max(60)
    .regex(/^([A-Za-z]+(\/[A-Za-z0-9_+-]+)*)?$/, 'a zone is told by its IANA name, such as Europe/Oslo')
    .default(''),
});
