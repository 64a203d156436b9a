import { api, keys, queryClient } from './api.ts';
import { forgetCounts } from './keptCounts.ts';
import { DISPLAYS, ME } from './me.ts';
import { forgetDocuments } from './documentStore.ts';

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
