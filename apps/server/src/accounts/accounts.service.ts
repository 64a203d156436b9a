import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { HttpStatus, Inject, Injectable, Logger } from '@nestjs/common';
import { hash, verify } from '@node-rs/argon2';
import { count, eq, lt, sql } from 'drizzle-orm';
import { STORE } from '../config.ts';
import { ApiError } from '../http/errors.ts';
import type { Store } from '../store/database.ts';
import { sessions, users } from '../store/tables.ts';

export interface User {
  id: string;
  login: string;
  name: string;
}

const SESSION_MS = 30 * 24 * 3_600_000;
const digest = (token: string) => createHash('sha256').update(token).digest('base64url');

/** Accounts and their sessions. */
@Injectable()
export class AccountsService {
  private readonly log = new Logger('accounts');
  /** The code printed at the first start; null once there is an account. */
  private setupCode: string | null = null;
  /** A hash of nothing anybody knows: checking it takes as long as checking a real one. */
  private readonly decoy = hash(randomBytes(16).toString('hex'));

  /** Asked with every request, so prepared once. */
  private readonly findSession;

  constructor(@Inject(STORE) private readonly store: Store) {
    this.findSession = store.db
      .select({ id: users.id, login: users.login, name: users.name, expiresAt: sessions.expiresAt })
      .from(sessions)
      .innerJoin(users, eq(users.id, sessions.userId))
      .where(eq(sessions.tokenHash, sql.placeholder('tokenHash')))
      .prepare();
    this.store.db.delete(sessions).where(lt(sessions.expiresAt, Date.now())).run();
  }

  /** The one-time code for the first account, made when there is none; null when somebody has an account. */
  openSetup(): string | null {
    const [{ total }] = this.store.db.select({ total: count() }).from(users).all();
    this.setupCode = total > 0 ? null : randomBytes(5).toString('hex').toUpperCase();
    return this.setupCode;
  }

  setupNeeded(): boolean {
    return this.setupCode !== null;
  }

  async setUp(code: string, login: string, name: string, password: string): Promise<User> {
    if (this.setupCode === null)
      throw new ApiError(HttpStatus.CONFLICT, 'set-up', 'This instance has its first account already.');
    if (code.trim().toUpperCase() !== this.setupCode)
      throw new ApiError(
        HttpStatus.FORBIDDEN,
        'wrong-code',
        'This is not the code that the server printed when it started.',
      );
    const user = await this.create(login, name, password);
    this.setupCode = null;
    return user;
  }

  async create(login: string, name: string, password: string): Promise<User> {
    const user = { id: randomUUID(), login, name };
    this.store.db
      .insert(users)
      .values({ ...user, passwordHash: await hash(password), createdAt: Date.now() })
      .run();
    return user;
  }

  byLogin(login: string): User | undefined {
    return this.store.db
      .select({ id: users.id, login: users.login, name: users.name })
      .from(users)
      .where(eq(users.login, login))
      .get();
  }

  /** @throws ApiError 401 with the same words and delay whether the account exists or not */
  async signIn(login: string, password: string): Promise<User> {
    const row = this.store.db.select().from(users).where(eq(users.login, login)).get();
    const right = await verify(row?.passwordHash ?? (await this.decoy), password);
    if (row && right) return { id: row.id, login: row.login, name: row.name };
    this.log.warn('a sign-in failed');
    throw new ApiError(HttpStatus.UNAUTHORIZED, 'wrong-sign-in', 'The name or the password is not right.');
  }

  /** Starts a session. @returns the token for the cookie; only its digest is kept */
  startSession(user: User): { token: string; maxAge: number } {
    const token = randomBytes(32).toString('base64url');
    const createdAt = Date.now();
    this.store.db
      .insert(sessions)
      .values({ tokenHash: digest(token), userId: user.id, createdAt, expiresAt: createdAt + SESSION_MS })
      .run();
    return { token, maxAge: SESSION_MS };
  }

  endSession(token: string): void {
    this.store.db
      .delete(sessions)
      .where(eq(sessions.tokenHash, digest(token)))
      .run();
  }

  userOf(token: string): User | null {
    const row = this.findSession.get({ tokenHash: digest(token) });
    return row && row.expiresAt > Date.now() ? { id: row.id, login: row.login, name: row.name } : null;
  }
}
