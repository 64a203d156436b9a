import { z } from 'zod';
import { instant, line, reference } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const INCIDENT_USES = ['visitors', 'broke', 'lent', 'change'] as const;

/** What is noted at the show: visitors of an hour, what broke, what was lent, what to change for the next show. */
export const incidentKind = defineKind({
  schema: z.strictObject({
    use: z.enum(INCIDENT_USES),
    what: line().trim().min(1).max(160),
    /** When it was noted; of visitors the beginning of their hour. */
    at: z.iso.datetime(),
    /** Visitors counted. */
    count: z.int().min(0).max(1_000_000).default(0),
    /** The thing among what is loaded that it is about; empty: none. */
    piece: line().max(160).default(''),
    /** To whom something is lent. */
    to: line().max(80).default(''),
    /** When it was mended or came back. */
    ended: instant,
    by: reference.default(null),
    photo: reference.default(null),
    /** The task that came of it. */
    task: reference.default(null),
  }),
  group: 'incidents',
  word: 'note of the show',
  label: ({ what }) => `note “${what}”`,
  refs: { by: 'person', photo: 'photo', task: 'task' },
  max: 2000,
  ownBy: [],
});
