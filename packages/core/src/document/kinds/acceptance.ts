import { z } from 'zod';
import { line, prose } from '../fields.ts';
import { defineKind } from '../kind.ts';

/** An accepted finding. It lapses when the finding's numbers change. */
export const acceptanceKind = defineKind({
  schema: z.strictObject({
    finding: z.string().min(1).max(200),
    fingerprint: z.string().max(200),
    reason: prose().trim().min(1, 'say why this finding is kept').max(500),
    by: line().max(80).default(''),
    at: z.iso.datetime().nullable().default(null),
  }),
  group: 'acceptances',
  word: 'acceptance',
  label: () => 'accepted finding',
});
