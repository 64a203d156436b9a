import { z } from 'zod';
import { idSchema, line, pieceCount, reference, text, workField } from '../fields.ts';
import { METHODS } from '../vocabulary.ts';
import { defineKind } from '../kind.ts';

/** Somebody at the table, once: started and stopped, or typed later. */
export const sessionKind = defineKind({
  schema: z.strictObject({
    person: reference,
    section: reference.default(null),
    start: z.iso.datetime(),
    /** Null while it runs. */
    minutes: z.int().min(0).max(1440, 'a session has at most 1,440 minutes').nullable().default(null),
    work: workField,
    method: z.enum(METHODS).nullable().default(null),
    /** Pieces placed; null: not counted. */
    pieces: pieceCount.nullable().default(null),
    /** Tasks that were finished in it. */
    ticked: z.array(idSchema).max(50).default([]),
    where: line().trim().max(80).default(''),
    note: text.default(''),
  }),
  group: 'sessions',
  word: 'session',
  label: ({ person }, fieldOf) => `session of ${fieldOf('person', person, 'name') ?? person ?? 'somebody'}`,
  refs: { ticked: 'task', section: 'section', person: 'person' },
  ownBy: ['person'],
});
