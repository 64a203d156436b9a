import type { z } from 'zod';
import { ApiProblem, api, displaysSchema, keys, queryClient } from './api.ts';
import { userSchema, type User } from '@quarry/protocol/accounts';
import { patient } from './call.ts';

// What a start without the server needs to know: who is signed in, and which displays they have.

/** Where this browser keeps them. */
export const ME = 'quarry-me';
export const DISPLAYS = 'quarry-displays';

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
