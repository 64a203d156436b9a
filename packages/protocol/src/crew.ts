import { z } from 'zod';
import { idSchema, line } from '@quarry/core/document';
import { roleSchema } from './displays.ts';

// Members of a display, invitations and read markers. Times are ms since the epoch.

export const memberSchema = z.object({
  userId: z.string(),
  name: z.string(),
  login: z.string().nullable(),
  role: roleSchema,
  person: z.string().nullable(),
  here: z.boolean(),
  seenAt: z.number().nullable(),
  mayReset: z.boolean(),
});
export type Member = z.infer<typeof memberSchema>;

export const setMemberSchema = z.strictObject({
  role: roleSchema.optional(),
  person: idSchema.nullable().optional(),
});
export const ownerSchema = z.strictObject({ userId: z.string().max(60) });
export const resetCodeSchema = z.object({ code: z.string(), expiresAt: z.number() });
export type ResetCode = z.infer<typeof resetCodeSchema>;

export const invitedRoleSchema = roleSchema.exclude(['owner']);
export const inviteSchema = z.strictObject({
  role: invitedRoleSchema,
  person: idSchema.nullable().default(null),
  days: z.int().min(1).max(60).default(14),
  note: line().trim().max(200).default(''),
});
export const madeInvitationSchema = z.object({ id: z.string(), token: z.string(), expiresAt: z.number() });
export type MadeInvitation = z.infer<typeof madeInvitationSchema>;
/** An invitation as owners see it. */
export const invitationSchema = z.object({
  id: z.string(),
  role: invitedRoleSchema,
  person: z.string().nullable(),
  note: z.string(),
  createdAt: z.number(),
  expiresAt: z.number(),
  state: z.enum(['open', 'used', 'revoked', 'expired']),
  usedBy: z.string().nullable(),
});
export type InvitationLine = z.infer<typeof invitationSchema>;
/** What an invitation shows to those who have its link. */
export const invitedSchema = z.object({
  display: z.string(),
  role: invitedRoleSchema,
  by: z.string(),
  note: z.string(),
  expiresAt: z.number(),
});
export type Invited = z.infer<typeof invitedSchema>;
export const joinedSchema = z.object({ display: z.string() });
export type Joined = z.infer<typeof joinedSchema>;

/** Read markers: of the log by sequence number, of threads by their stamps. */
export const marksSchema = z.record(z.string(), z.number());
export const markSchema = z.strictObject({
  what: z.union([z.literal('log'), idSchema]),
  upTo: z.int().min(0).max(1e9),
});
