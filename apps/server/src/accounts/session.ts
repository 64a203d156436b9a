import {
  HttpStatus,
  Inject,
  Injectable,
  createParamDecorator,
  type CanActivate,
  type ExecutionContext,
} from '@nestjs/common';
import { parseCookie } from 'cookie';
import type { Request, Response } from 'express';
import { ApiError } from '../http/errors.ts';
import { noteRequester, requesterOf } from '../http/requester.ts';
import { AccountsService, type User } from './accounts.service.ts';

const COOKIE = 'quarry_session';

export function sessionToken(request: Request): string | null {
  return parseCookie(request.headers.cookie ?? '')[COOKIE] ?? null;
}

function setSessionCookie(request: Request, response: Response, token: string, maxAge: number): void {
  response.cookie(COOKIE, token, {
    httpOnly: true,
    sameSite: 'strict',
    secure: request.secure,
    path: '/',
    maxAge,
  });
}

/** Starts a session for a user and sets its cookie. */
export function beginSession(
  accounts: AccountsService,
  user: User,
  request: Request,
  response: Response,
): User {
  const { token, maxAge } = accounts.startSession(user, request.get('user-agent') ?? '');
  setSessionCookie(request, response, token, maxAge);
  return user;
}

export function clearSessionCookie(response: Response): void {
  response.clearCookie(COOKIE, { path: '/' });
}

/** Lets signed-in people through; everybody else gets 401. */
@Injectable()
export class SignedInGuard implements CanActivate {
  constructor(@Inject(AccountsService) private readonly accounts: AccountsService) {}

  canActivate(context: ExecutionContext): boolean {
    const request = context.switchToHttp().getRequest<Request>();
    const token = sessionToken(request);
    const user = token ? this.accounts.userOf(token) : null;
    if (!user)
      throw new ApiError(
        HttpStatus.UNAUTHORIZED,
        'signed-out',
        'Sign in first; your session may have ended.',
      );
    noteRequester(request, user);
    return true;
  }
}

/** The signed-in user of a route behind `SignedInGuard`. */
export const CurrentUser = createParamDecorator((_: unknown, context: ExecutionContext): User => {
  const user = requesterOf(context.switchToHttp().getRequest<Request>());
  if (!user) throw new ApiError(HttpStatus.UNAUTHORIZED, 'signed-out', 'Sign in first.');
  return user;
});
