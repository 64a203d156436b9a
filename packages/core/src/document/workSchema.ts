import { z } from 'zod';
import { date, idSchema, line, MAX_STUDS, name, reference, text } from './fields.ts';
import { METHODS } from './terrainSchema.ts';

// Who works when, on what, and what it took.

/** What a section goes through, from the first to the last. */
export const STAGES = [
  'planned',
  'supported',
  'ground',
  'structures',
  'dressed',
  'lit',
  'peopled',
  'done',
] as const;
export type Stage = (typeof STAGES)[number];

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
  where: line().trim().max(80).default(''),
  note: text.default(''),
});

/** What dries before work goes on. */
export const DRYINGS = ['glue', 'sealant', 'decals', 'paint'] as const;
export type Drying = (typeof DRYINGS)[number];

/** A piece of work that can be finished. */
export const taskSchema = z.strictObject({
  name,
  section: reference.default(null),
  /** The stage it belongs to; null: any. */
  stage: z.enum(STAGES).nullable().default(null),
  work,
  owner: reference.default(null),
  /** What it was made from, such as `finding:…` or `marker:…`; empty: typed by a person. */
  source: line().max(220).default(''),
  /** Three guesses, hours: at best, most likely, at worst; null: not guessed. */
  low: hours.nullable().default(null),
  likely: hours.nullable().default(null),
  high: hours.nullable().default(null),
  pieces: pieces.nullable().default(null),
  /** Tasks that come before it. */
  after: z.array(idSchema).max(20).default([]),
  /** The day its parts are there; null: they are. */
  parts: date.default(null),
  /** The day by which it is to be done; null: none. */
  due: date.default(null),
  /** Drying time after the task, hours, and its cause: successors wait, other work goes on. */
  rests: hours.default(0),
  drying: z.enum(DRYINGS).nullable().default(null),
  done: date.default(null),
});

const clockTime = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'a time of day is told as 19:30');

/** Whether a clock's zone is known; empty: unknown. */
export function isZone(zone: string): boolean {
  if (zone === '') return true;
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}

/** When a person can build: hours on each day of the week from Monday, days away, and where their clock stands. */
export const calendarSchema = z.strictObject({
  person: reference,
  weekly: z.array(z.number().min(0).max(24)).length(7),
  /** When a session begins, by their own clock. */
  from: clockTime.default('19:00'),
  /** When it begins on a day of the week, from Monday; null: as on the others. */
  starts: z.array(clockTime.nullable()).length(7).default([null, null, null, null, null, null, null]),
  away: z
    .array(z.strictObject({ from: z.iso.date(), to: z.iso.date() }))
    .max(60)
    .default([]),
  /** A zone by its IANA name; empty: unknown. */
  zone: z
    .string()
    .max(60)
    .refine(isZone, {
      error: ({ input }) => `«${String(input)}» is no zone: it is told by its IANA name, such as Europe/Oslo`,
    })
    .default(''),
});

/** A place and a direction from which the display is photographed again and again. */
export const photoSchema = z.strictObject({
  /** The picture among the display's files: the SHA-256 of what is kept. */
  file: z.string().regex(/^[0-9a-f]{64}$/, 'a photo is told by the digest of its file'),
  /** Of the kept picture, px. */
  width: z.int().min(1).max(4096),
  height: z.int().min(1).max(4096),
  section: reference.default(null),
  /** Where the camera stood, or what it looks at from nearby: studs. */
  x: z.number().min(-MAX_STUDS).max(MAX_STUDS).nullable().default(null),
  y: z.number().min(-MAX_STUDS).max(MAX_STUDS).nullable().default(null),
  /** Viewing direction, degrees clockwise from north; null: unknown. */
  bearing: z.int().min(0).max(359).nullable().default(null),
  taken: z.iso.datetime(),
  by: reference.default(null),
  /** It may be on the public page; set only by the person who took it. */
  published: z.boolean().default(false),
  note: text.default(''),
});

/** A part of a day that is boxed in time: what is planned for it and what it took. */
export const slotSchema = z.strictObject({
  name,
  day: z.iso.date(),
  /** Its turn in the day, from 0. */
  order: z.int().min(0).max(1000).default(0),
  minutes: z.int().min(1).max(1440, 'a slot has at most 1,440 minutes'),
  section: reference.default(null),
  /** What may be dropped when time runs out: nothing (must), or by its worth, 1 the least. */
  must: z.boolean().default(false),
  worth: z.int().min(1).max(10).default(5),
  work,
  /** It goes on by itself while others are worked on (drying), and what for. */
  unattended: z.boolean().default(false),
  drying: z.enum(DRYINGS).nullable().default(null),
  /** The slot that must be over before it begins; null: the turn decides. */
  after: reference.default(null),
  /** Minutes it really took, overriding the clock; null: as clocked. */
  took: z.int().min(0).max(1440).nullable().default(null),
  began: z.iso.datetime().nullable().default(null),
  ended: z.iso.datetime().nullable().default(null),
  dropped: z.boolean().default(false),
});
