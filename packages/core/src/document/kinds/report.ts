import { z } from 'zod';
import { instant, name, prose, reference } from '../fields.ts';
import { defineKind } from '../kind.ts';

/** A published report: the log between two sequence numbers, with its author's text. */
export const reportKind = defineKind({
  schema: z.strictObject({
    name,
    section: reference.default(null),
    /** The log after `from` up to and with `upto`. */
    from: z.int().min(0),
    upto: z.int().min(0),
    fromAt: instant,
    at: instant,
    by: reference.default(null),
    /** Markdown: the edited first lines of the report. */
    text: prose().max(20_000).default(''),
    /** On the share page for everybody to read. */
    published: z.boolean().default(false),
  }),
  group: 'reports',
  word: 'report',
  refs: { section: 'section' },
});
