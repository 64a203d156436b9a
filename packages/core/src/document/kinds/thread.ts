import { z } from 'zod';
import {
  bounded,
  idSchema,
  instant,
  line,
  mentionsField,
  message,
  position,
  prose,
  reference,
} from '../fields.ts';
import { defineKind } from '../kind.ts';

export const THREAD_STATES = ['open', 'accepted', 'declined', 'resolved'] as const;
export type ThreadState = (typeof THREAD_STATES)[number];

export const THREAD_USES = ['advice', 'wish', 'handover'] as const;

/** The most changes one proposal carries. */
export const MAX_PROPOSED = 200;

/** How deep the changes of a proposal may be nested, and how long they may be as JSON. */
const MAX_PROPOSAL_NESTING = 12;

const MAX_PROPOSAL_LETTERS = 200_000;

/** Advice or a wish of followers pinned to a thing, a place or a finding; or a section handed over with its open matters. */
export const threadKind = defineKind({
  schema: z.strictObject({
    title: line().trim().min(1, 'say in a few words what it is about').max(120),
    text: message,
    by: reference,
    at: instant,
    use: z.enum(THREAD_USES).default('advice'),
    /** How many followers asked for it: of a wish. */
    askedBy: z.int().min(1).max(1_000_000).default(1),
    mentions: mentionsField,
    /** The thing it is about; it may be gone by now. */
    about: z
      .strictObject({ kind: z.string().max(20), id: idSchema })
      .nullable()
      .default(null),
    /** The finding it is about, by its key. */
    finding: z.string().max(200).nullable().default(null),
    /** Where on the plan, studs. */
    x: position.nullable().default(null),
    y: position.nullable().default(null),
    section: reference.default(null),
    state: z.enum(THREAD_STATES).default('open'),
    /** Why it was taken or declined, and by whom. */
    reason: prose().trim().max(500).default(''),
    answeredBy: reference.default(null),
    /** Changes that can be taken over as they are: read with `proposalOf`. */
    proposal: bounded(
      z
        .array(z.record(z.string().max(40), z.unknown()))
        .max(MAX_PROPOSED, `a proposal has at most ${MAX_PROPOSED} changes`),
      'a proposal',
      { nesting: MAX_PROPOSAL_NESTING, letters: MAX_PROPOSAL_LETTERS },
    ).default([]),
  }),
  group: 'threads',
  word: 'advice',
  label: ({ title }) => `“${title}”`,
  refs: { section: 'section', by: 'person' },
});
