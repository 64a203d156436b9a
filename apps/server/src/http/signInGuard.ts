import { createHash } from 'node:crypto';
import { Injectable, type ExecutionContext } from '@nestjs/common';
import { ThrottlerGuard, type ThrottlerModuleOptions } from '@nestjs/throttler';
import type { Request } from 'express';
import { z } from 'zod';

/** Attempts from one address for all accounts, for each attempt that one account has: a hall signs in from one address. */
const ADDRESS_TIMES = 20;
const namedSchema = z.object({ login: z.string().max(200) });

/** Attempts a minute: so many for one account from one address, and many times as many from that address in all. */
export const throttlers = (limit: number): ThrottlerModuleOptions => [
  { name: 'account', ttl: 60_000, limit },
  { name: 'address', ttl: 60_000, limit: limit * ADDRESS_TIMES },
];

/** Throttles password guessing: against one account from an address, or many accounts from it. */
@Injectable()
export class SignInGuard extends ThrottlerGuard {
  protected override generateKey(context: ExecutionContext, address: string, name: string): string {
    const request = context.switchToHttp().getRequest<Request>();
    const named = namedSchema.safeParse(request.body);
    const account = name === 'account' && named.success ? named.data.login.trim().toLowerCase() : '';
    const where = `${context.getClass().name} ${context.getHandler().name}`;
    return createHash('sha256').update(`${name} ${where} ${address} ${account}`).digest('hex');
  }
}
