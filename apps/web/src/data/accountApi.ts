import { z } from 'zod';
import { letterSchema, sessionLineSchema, userSchema } from '@quarry/protocol/accounts';
import { call } from './call.ts';

const nothing = z.unknown();

/** Requests about the account of the user. */
export const accountApi = {
  sessions: () => call('GET', '/sessions', z.array(sessionLineSchema)),
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
