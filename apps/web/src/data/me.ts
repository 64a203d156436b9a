import type { z } from 'zod';
import { ApiProblem, api, displaysSchema, keys, queryClient } from './api.ts';
import { userSchema, type User } from '@quarry/protocol/accounts';
import { patient } from './call.ts';
import { forgetCounts } from './keptCounts.ts';
import { forgetDocuments } from './outbox.ts';

// What a start without the server needs to know: who is signed in, and which displays they have.

const ME = 'quarry-me';
const DISPLAYS = 'quarry-displays';

/** Asks, and keeps the answer; where the server cannot be asked, what it answered last in this browser. */
async function askedOrKept<T>(key: string, schema: z.ZodType<T>, ask: () => Promise<T>): Promise<T> {
  const known = localStorage.getItem(key);
  try {
    const answer = await (known === null ? ask() : patient(ask()));
    localStorage.setItem(key, JSON.stringify(answer));
    return answer;
  } catch (error) {
    if (error instanceof ApiProblem && error.status === 0 && known !== null) {
      const read = schema.safeParse(JSON.parse(known));
      if (read.success) return read.data;
    }
    if (error instanceof ApiProblem && error.status === 401) localStorage.removeItem(key);
    throw error;
  }
}

export const rememberedMe = (): Promise<User> => askedOrKept(ME, userSchema, api.me);
export const rememberedDisplays = () => askedOrKept(DISPLAYS, displaysSchema, api.displays);

/** Somebody has signed in: what the last one saw is not shown to them. */
export function signedIn(user: User): void {
  localStorage.removeItem(DISPLAYS);
  localStorage.setItem(ME, JSON.stringify(user));
  queryClient.removeQueries({ queryKey: keys.displays });
  queryClient.setQueryData(keys.me, user);
}

/** Signs out and forgets what this browser kept for a start without the server. Changes that wait are kept. */
export async function signOut(): Promise<void> {
  await api.signOut();
  await signedOut();
}

/** Signed out: clears cached data and shows the sign-in page. */
export async function signedOut(): Promise<void> {
  localStorage.removeItem(ME);
  localStorage.removeItem(DISPLAYS);
  await forgetDocuments().catch(() => undefined);
  await forgetCounts().catch(() => undefined);
  queryClient.removeQueries({ predicate: ({ queryKey }) => queryKey[0] !== keys.me[0] });
  await queryClient.resetQueries({ queryKey: keys.me });
}
