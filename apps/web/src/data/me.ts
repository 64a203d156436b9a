import { ApiProblem, api, keys, queryClient, userSchema, type User } from './api.ts';
import { patient } from './call.ts';
import { forgetDocuments } from './outbox.ts';

/** Who is signed in, also when the server cannot be asked: then whoever it was last in this browser. */

const KEY = 'quarry-me';

export async function rememberedMe(): Promise<User> {
  const known = localStorage.getItem(KEY);
  try {
    const me = await (known === null ? api.me() : patient(api.me()));
    localStorage.setItem(KEY, JSON.stringify(me));
    return me;
  } catch (error) {
    if (error instanceof ApiProblem && error.status === 0 && known !== null) {
      const read = userSchema.safeParse(JSON.parse(known));
      if (read.success) return read.data;
    }
    if (error instanceof ApiProblem && error.status === 401) localStorage.removeItem(KEY);
    throw error;
  }
}

/** Somebody has signed in: what the last one saw is not shown to them. */
export function signedIn(user: User): void {
  localStorage.setItem(KEY, JSON.stringify(user));
  queryClient.removeQueries({ queryKey: keys.displays });
  queryClient.setQueryData(keys.me, user);
}

/** Signs out and forgets what this browser kept for a start without the server. Changes that wait are kept. */
export async function signOut(): Promise<void> {
  await api.signOut();
  await signedOut();
}

/** Nobody is signed in here any more: what was seen is forgotten, and whoever asks is asked who they are. */
export async function signedOut(): Promise<void> {
  localStorage.removeItem(KEY);
  await forgetDocuments().catch(() => undefined);
  queryClient.removeQueries({ predicate: ({ queryKey }) => queryKey[0] !== keys.me[0] });
  await queryClient.resetQueries({ queryKey: keys.me });
}
