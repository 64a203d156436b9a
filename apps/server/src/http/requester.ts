import type { Request } from 'express';
import type { Actor } from '@quarry/core/document';
import type { User } from '@quarry/protocol/accounts';

// Who sends a request: noted by the access guard, read by routes and by the log of refusals.

const requesters = new WeakMap<Request, User>();
const actors = new WeakMap<Request, Actor>();

export const noteRequester = (request: Request, user: User): void => void requesters.set(request, user);
/** The user of a request; undefined without a session, or on a route for anyone. */
export const requesterOf = (request: Request): User | undefined => requesters.get(request);

export const noteActor = (request: Request, actor: Actor): void => void actors.set(request, actor);
/** The user's role and person on the display of a request; undefined on other routes. */
export const actorOf = (request: Request): Actor | undefined => actors.get(request);
