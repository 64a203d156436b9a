import { parseCookie } from 'cookie';
import type { Request, Response } from 'express';
import type { User } from '@quarry/protocol/accounts';
import type { AccountsService } from './accounts.service.ts';

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
