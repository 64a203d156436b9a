import { z } from 'zod';
import { date, idSchema, line, name, pieceCount, reference, workField } from '../fields.ts';
import { DRYINGS, STAGES } from '../vocabulary.ts';
import { defineKind } from '../kind.ts';

const hours = z.number().min(0, 'hours are 0 or more').max(10_000);

/** A piece of work that can be finished. */
export const taskKind = defineKind({
  schema: z.strictObject({
    name,
    section: reference.default(null),
    /** The stage it belongs to; null: any. */
    stage: z.enum(STAGES).nullable().default(null),
    work: workField,
    owner: reference.default(null),
    /** What it was made from, such as `finding:…` or `marker:…`; empty: typed by a person. */
    source: line().max(220).default(''),
    /** Three guesses, hours: at best, most likely, at worst; null: not guessed. */
    low: hours.nullable().default(null),
    likely: hours.nullable().default(null),
    high: hours.nullable().default(null),
    pieces: pieceCount.nullable().default(null),
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
  }),
  group: 'tasks',
  word: 'task',
  refs: { after: 'task', section: 'section', owner: 'person' },
  ownBy: ['owner', 'section'],
});
