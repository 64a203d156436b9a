import type { Request } from 'express';

/** An account, as far as a request needs to know it. */
export interface Asker {
  id: string;
  login: string;
  name: string;
}

const askers = new WeakMap<Request, Asker>();

/** Notes who asks, once it is known. */
export const noteAsker = (request: Request, asker: Asker): void => void askers.set(request, asker);
/** Who asks; undefined before anybody has signed in. */
export const whoAsks = (request: Request): Asker | undefined => askers.get(request);
