import { z } from 'zod';
import { ROLES } from '@quarry/core/document';
import {
  invitationSchema,
  invitedSchema,
  joinedSchema,
  madeInvitationSchema,
  marksSchema,
  memberSchema,
  resetCodeSchema,
  type inviteSchema,
  type setMemberSchema,
} from '@quarry/protocol/crew';
import {
  countedOpsSchema,
  historyPageSchema,
  momentSchema,
  pastSchema,
  restoredSchema,
  sharesSchema,
  takingBackSchema,
  type HistoryFilter,
} from '@quarry/protocol/history';
import { keptPhotoSchema } from '@quarry/protocol/photos';
import { shareStateSchema } from '@quarry/protocol/share';
import { call, callForFile, queryOf, type PaperQuery } from './call.ts';

// Requests about members, history and the public page.

const nothing = z.unknown();
export const INVITED_ROLES = ROLES.filter((role) => role !== 'owner');

const query = (filter: Partial<HistoryFilter>) =>
  new URLSearchParams(
    Object.entries(filter).flatMap(([key, value]) => (value === undefined ? [] : [[key, String(value)]])),
  ).toString();

export const crewApi = {
  members: (id: string) => call('GET', `/displays/${id}/members`, z.array(memberSchema)),
  setMember: (id: string, userId: string, set: z.input<typeof setMemberSchema>) =>
    call('PATCH', `/displays/${id}/members/${userId}`, nothing, set),
  removeMember: (id: string, userId: string) => call('DELETE', `/displays/${id}/members/${userId}`, nothing),
  resetCode: (id: string, userId: string) =>
    call('POST', `/displays/${id}/members/${userId}/reset`, resetCodeSchema),
  makeOwner: (id: string, userId: string) => call('PUT', `/displays/${id}/owner`, nothing, { userId }),
  invitations: (id: string) => call('GET', `/displays/${id}/invitations`, z.array(invitationSchema)),
  invite: (id: string, body: z.input<typeof inviteSchema>) =>
    call('POST', `/displays/${id}/invitations`, madeInvitationSchema, body),
  revoke: (id: string, invitation: string) =>
    call('DELETE', `/displays/${id}/invitations/${invitation}`, nothing),
  invited: (token: string) => call('GET', `/join/${token}`, invitedSchema),
  join: (token: string, body: { login: string; name: string; password: string } | null) =>
    call('POST', `/join/${token}`, joinedSchema, body ?? {}),

  marks: (id: string) => call('GET', `/displays/${id}/marks`, marksSchema),
  mark: (id: string, what: string, upTo: number) =>
    call('PUT', `/displays/${id}/marks`, nothing, { what, upTo }),

  history: (id: string, filter: Partial<HistoryFilter>) =>
    call('GET', `/displays/${id}/history?${query(filter)}`, historyPageSchema),
  /** Uploads a photo; the server re-encodes it. */
  keepPhoto: (id: string, picture: Blob) => call('POST', `/displays/${id}/photos`, keptPhotoSchema, picture),
  /** @param zone in which days end */
  shares: (id: string, zone: string) =>
    call('GET', `/displays/${id}/shares?${new URLSearchParams({ zone }).toString()}`, sharesSchema),
  moment: (id: string, at: number) => call('GET', `/displays/${id}/moment?at=${at}`, momentSchema),
  past: (id: string, seq: number) => call('GET', `/displays/${id}/history/${seq}`, pastSchema),
  takingBack: (id: string, seq: number) =>
    call('GET', `/displays/${id}/history/${seq}/back`, takingBackSchema),
  restoring: (id: string, seq: number) =>
    call('GET', `/displays/${id}/history/${seq}/restoring`, countedOpsSchema),
  restore: (id: string, seq: number) =>
    call('POST', `/displays/${id}/history/${seq}/restore`, restoredSchema, {
      id: crypto.randomUUID(),
    }),
  reportSheet: (id: string, report: object, paper: PaperQuery) =>
    callForFile(`/displays/${id}/sheets/report.pdf?${queryOf(paper)}`, report),

  share: (id: string) => call('GET', `/displays/${id}/share`, shareStateSchema),
  setShare: (id: string, set: { names: boolean; fresh: boolean }) =>
    call('PUT', `/displays/${id}/share`, shareStateSchema, set),
  shareOff: (id: string) => call('DELETE', `/displays/${id}/share`, nothing),
};
export const photoUrl = (id: string, file: string, small = false) =>
  `/api/displays/${id}/photos/${file}${small ? '?small' : ''}`;
