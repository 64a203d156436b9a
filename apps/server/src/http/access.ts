import {
  HttpStatus,
  Inject,
  Injectable,
  SetMetadata,
  createParamDecorator,
  type CanActivate,
  type ExecutionContext,
} from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Request } from 'express';
import { isAtLeast, type Actor, type Role } from '@quarry/core/document';
import type { User } from '@quarry/protocol/accounts';
import { AccountsService } from '../accounts/accounts.service.ts';
import { sessionToken } from '../accounts/session.ts';
import { DisplaysService } from '../displays/displays.service.ts';
import { ApiError } from './errors.ts';
import { actorOf, noteActor, noteRequester, requesterOf } from './requester.ts';

// Who may use a route. Every route declares it; one that declares nothing is closed to everybody.

/** Metadata key of a route's access. */
export const ACCESS = 'access';
export type Access = { to: 'anyone' } | { to: 'signed-in' } | { to: 'display'; least: Role; purpose: string };

/** A route for everybody, signed in or not. */
export const Anyone = () => SetMetadata<string, Access>(ACCESS, { to: 'anyone' });
/** A route for signed-in users. */
export const SignedIn = () => SetMetadata<string, Access>(ACCESS, { to: 'signed-in' });
/**
 * A route on the display of the path's `id`, for its members.
 * @param least lowest role that may use it
 * @param purpose what the route does, for the sentence of a refusal: “invite people”
 */
export const OnDisplay = (least: Role = 'viewer', purpose = 'do this') =>
  SetMetadata<string, Access>(ACCESS, { to: 'display', least, purpose });

/** The subject of a refusal, by the lowest role that a route is for. */
const ONLY: Readonly<Record<Role, string>> = {
  owner: 'Only an owner',
  planner: 'Only owners and planners',
  builder: 'Only owners, planners and builders',
  viewer: 'Only members',
};

/**
 * Lets a request through by its route's declared access and notes who asks.
 * @throws ApiError 401 without a session, 404 for strangers to a display, 403 for too low a role or no declaration
 */
@Injectable()
export class AccessGuard implements CanActivate {
  constructor(
    @Inject(Reflector) private readonly reflector: Reflector,
    @Inject(AccountsService) private readonly accounts: AccountsService,
    @Inject(DisplaysService) private readonly displays: DisplaysService,
  ) {}

  canActivate(context: ExecutionContext): boolean {
    const access = this.reflector.getAllAndOverride<Access | undefined>(ACCESS, [
      context.getHandler(),
      context.getClass(),
    ]);
    if (!access) throw new ApiError(HttpStatus.FORBIDDEN, 'forbidden', 'This address is open to nobody.');
    if (access.to === 'anyone') return true;
    const request = context.switchToHttp().getRequest<Request>();
    const user = this.signedIn(request);
    noteRequester(request, user);
    if (access.to === 'display') {
      const actor = this.displays.actor(String(request.params.id), user);
      if (!isAtLeast(actor.role, access.least))
        throw new ApiError(HttpStatus.FORBIDDEN, 'forbidden', `${ONLY[access.least]} may ${access.purpose}.`);
      noteActor(request, actor);
    }
    return true;
  }

  private signedIn(request: Request): User {
    const token = sessionToken(request);
    const user = token ? this.accounts.userOf(token) : null;
    if (user) return user;
    throw new ApiError(HttpStatus.UNAUTHORIZED, 'signed-out', 'Sign in first; your session may have ended.');
  }
}

/** The signed-in user of a route that is not for anyone. */
export const CurrentUser = createParamDecorator((_: unknown, context: ExecutionContext): User => {
  const user = requesterOf(context.switchToHttp().getRequest<Request>());
  if (!user) throw new ApiError(HttpStatus.UNAUTHORIZED, 'signed-out', 'Sign in first.');
  return user;
});

/** Role and person of the user on the display of an `@OnDisplay` route. */
export const CurrentActor = createParamDecorator((_: unknown, context: ExecutionContext): Actor => {
  const actor = actorOf(context.switchToHttp().getRequest<Request>());
  if (!actor) throw new TypeError('CurrentActor needs a route with @OnDisplay');
  return actor;
});
