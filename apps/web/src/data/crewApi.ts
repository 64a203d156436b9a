import { z } from 'zod';
import { ROLES, changeSchema, rowSchema } from '@quarry/core/document';
import { roleSchema, userSchema } from './api.ts';
import { call, callForFile, queryOf, type PaperQuery } from './call.ts';

// Requests about members, history, the public page and the user's account.

const nothing = z.unknown();
const memberSchema = z.object({
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

const invitedRole = roleSchema.exclude(['owner']);
export const INVITED_ROLES = ROLES.filter((role) => role !== 'owner');
const invitationSchema = z.object({
  id: z.string(),
  role: invitedRole,
  person: z.string().nullable(),
  note: z.string(),
  createdAt: z.number(),
  expiresAt: z.number(),
  state: z.enum(['open', 'used', 'revoked', 'expired']),
  usedBy: z.string().nullable(),
});
const shareSchema = z.object({ token: z.string().nullable(), names: z.boolean() });
const codeSchema = z.object({ code: z.string(), expiresAt: z.number() });

const descriptionSchema = z.object({
  kind: z.string(),
  id: z.string(),
  sentence: z.string(),
  section: z.string().nullable(),
});
const historyLineSchema = z.object({
  seq: z.int(),
  id: z.string(),
  author: z.string(),
  mine: z.boolean(),
  at: z.number(),
  label: z.string(),
  descriptions: z.array(descriptionSchema),
});
export type HistoryLine = z.infer<typeof historyLineSchema>;
const historySchema = z.object({
  lines: z.array(historyLineSchema),
  begins: z.object({ seq: z.int(), at: z.number() }),
  seq: z.int(),
  authors: z.array(z.string()),
});
export interface HistoryFilter {
  before?: number;
  after?: number;
  author?: string;
  section?: string;
  kind?: string;
  from?: number;
  to?: number;
  limit?: number;
}
const backSchema = z.union([
  z.object({ ok: z.literal(true), changes: z.array(changeSchema) }),
  z.object({
    ok: z.literal(false),
    sentence: z.string(),
    later: z.array(z.object({ seq: z.int(), label: z.string(), author: z.string() })),
  }),
]);
const opsSchema = z.object({ add: z.int(), patch: z.int(), remove: z.int() });

const sharePageSchema = z.object({
  name: z.string(),
  kind: z.string(),
  ratio: z.number(),
  showName: z.string(),
  showDate: z.string().nullable(),
  done: z.number(),
  sections: z.array(
    z.object({
      letter: z.string(),
      name: z.string(),
      stage: z.string(),
      done: z.number(),
      owner: z.string().nullable(),
    }),
  ),
  figures: z.array(z.object({ word: z.string(), count: z.number() })),
  plan: z.string(),
  reports: z.array(z.object({ name: z.string(), at: z.string().nullable(), text: z.string() })),
  photos: z.array(
    z.object({
      file: z.string(),
      width: z.int(),
      height: z.int(),
      taken: z.string(),
      section: z.string().nullable(),
    }),
  ),
  at: z.number(),
});

const photoSchema = z.object({ file: z.string(), width: z.int(), height: z.int() });
const sessionSchema = z.object({
  id: z.string(),
  agent: z.string(),
  createdAt: z.number(),
  seenAt: z.number(),
  here: z.boolean(),
});
const letterSchema = z.object({
  id: z.int(),
  displayId: z.string().nullable(),
  at: z.number(),
  about: z.string(),
  subject: z.string(),
  body: z.string(),
  link: z.string(),
  readAt: z.number().nullable(),
});

const query = (filter: HistoryFilter) =>
  new URLSearchParams(
    Object.entries(filter).flatMap(([key, value]) => (value === undefined ? [] : [[key, String(value)]])),
  ).toString();

export const crewApi = {
  members: (id: string) => call('GET', `/displays/${id}/members`, z.array(memberSchema)),
  setMember: (id: string, userId: string, set: { role?: Member['role']; person?: string | null }) =>
    call('PATCH', `/displays/${id}/members/${userId}`, nothing, set),
  removeMember: (id: string, userId: string) => call('DELETE', `/displays/${id}/members/${userId}`, nothing),
  resetCode: (id: string, userId: string) =>
    call('POST', `/displays/${id}/members/${userId}/reset`, codeSchema),
  makeOwner: (id: string, userId: string) => call('PUT', `/displays/${id}/owner`, nothing, { userId }),
  invitations: (id: string) => call('GET', `/displays/${id}/invitations`, z.array(invitationSchema)),
  invite: (
    id: string,
    body: { role: z.infer<typeof invitedRole>; person: string | null; days: number; note: string },
  ) =>
    call(
      'POST',
      `/displays/${id}/invitations`,
      z.object({ id: z.string(), token: z.string(), expiresAt: z.number() }),
      body,
    ),
  revoke: (id: string, invitation: string) =>
    call('DELETE', `/displays/${id}/invitations/${invitation}`, nothing),
  invited: (token: string) =>
    call(
      'GET',
      `/join/${token}`,
      z.object({
        display: z.string(),
        role: invitedRole,
        by: z.string(),
        note: z.string(),
        expiresAt: z.number(),
      }),
    ),
  join: (token: string, body: { login: string; name: string; password: string } | null) =>
    call('POST', `/join/${token}`, z.object({ display: z.string() }), body ?? {}),

  marks: (id: string) => call('GET', `/displays/${id}/marks`, z.record(z.string(), z.number())),
  mark: (id: string, what: string, upTo: number) =>
    call('PUT', `/displays/${id}/marks`, nothing, { what, upTo }),

  history: (id: string, filter: HistoryFilter) =>
    call('GET', `/displays/${id}/history?${query(filter)}`, historySchema),
  /** Uploads a photo; the server re-encodes it. */
  keepPhoto: (id: string, picture: Blob) => call('POST', `/displays/${id}/photos`, photoSchema, picture),
  shares: (id: string) =>
    call(
      'GET',
      `/displays/${id}/shares`,
      z.array(z.object({ date: z.string(), done: z.record(z.string(), z.number()) })),
    ),
  moment: (id: string, at: number) =>
    call('GET', `/displays/${id}/moment?at=${at}`, z.object({ seq: z.int() })),
  past: (id: string, seq: number) =>
    call(
      'GET',
      `/displays/${id}/history/${seq}`,
      z.object({ seq: z.int(), at: z.number(), rows: z.array(rowSchema) }),
    ),
  takingBack: (id: string, seq: number) => call('GET', `/displays/${id}/history/${seq}/back`, backSchema),
  restoring: (id: string, seq: number) => call('GET', `/displays/${id}/history/${seq}/restoring`, opsSchema),
  restore: (id: string, seq: number) =>
    call('POST', `/displays/${id}/history/${seq}/restore`, z.object({ seq: z.int().nullable() }), {
      id: crypto.randomUUID(),
    }),
  reportSheet: (id: string, report: object, paper: PaperQuery) =>
    callForFile(`/displays/${id}/sheets/report.pdf?${queryOf(paper)}`, report),

  share: (id: string) => call('GET', `/displays/${id}/share`, shareSchema),
  setShare: (id: string, set: { names: boolean; fresh: boolean }) =>
    call('PUT', `/displays/${id}/share`, shareSchema, set),
  shareOff: (id: string) => call('DELETE', `/displays/${id}/share`, nothing),
  sharePage: (token: string) => call('GET', `/share/${token}`, sharePageSchema),

  sessions: () => call('GET', '/sessions', z.array(sessionSchema)),
  endSession: (session: string) => call('DELETE', `/sessions/${session}`, nothing),
  setPassword: (old: string, password: string) => call('PUT', '/me/password', nothing, { old, password }),
  askReset: (login: string) => call('POST', '/reset/ask', z.object({ message: z.string() }), { login }),
  reset: (login: string, code: string, password: string) =>
    call('POST', '/reset', userSchema, { login, code, password }),
  removeAccount: (password: string) => call('DELETE', '/me', nothing, { password }),
  letters: () => call('GET', '/letters', z.array(letterSchema)),
  readLetter: (id: number) => call('POST', `/letters/${id}/read`, nothing),
};
export const exportUrl = '/api/me/export';
export const photoUrl = (id: string, file: string, small = false) =>
  `/api/displays/${id}/photos/${file}${small ? '?small' : ''}`;
