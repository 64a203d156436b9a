import type { Request } from 'express';

/** An account, as far as a request needs to know it. */
export interface Requester {
  id: string;
  login: string;
  name: string;
}

const askers = new WeakMap<Request, Requester>();

/** Notes who asks, once it is known. */
export const noteRequester = (request: Request, asker: Requester): void => void askers.set(request, asker);
/** Who asks; undefined before anybody has signed in. */
export const requesterOf = (request: Request): Requester | undefined => askers.get(request);
