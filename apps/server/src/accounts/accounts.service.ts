import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { HttpStatus, Inject, Injectable } from '@nestjs/common';
import { hash, verify } from '@node-rs/argon2';
import { and, count, eq, gt, lt, ne, sql } from 'drizzle-orm';
import { present } from '@quarry/core/grid';
import type { SessionLine, User } from '@quarry/protocol/accounts';
import { STORE } from '../config.ts';
import { ApiError } from '../http/errors.ts';
import { transact, type Store } from '../store/database.ts';
import { displays, members, resets, sessions, users } from '../store/tables.ts';

const SESSION_MS = 30 * 24 * 3_600_000;
/** Idle lifetime of a session. */
const IDLE_MS = 14 * 24 * 3_600_000;
/** Letters of a session's digest by which its owner names it. */
const SESSION_ID = 12;
/** How long a code for a new password can be used. */
const RESET_MS = 24 * 3_600_000;
/** Resolution of a session's last-seen time: writing it on every request would cost too much. */
const SEEN_MS = 300_000;
/** What a secret is called in the store and on the hub: never the token or code itself. */
export const digest = (token: string) => createHash('sha256').update(token).digest('base64url');

/** Accounts and their sessions. */
@Injectable()
export class AccountsService {
  /** The code printed at the first start; null once there is an account. */
  private setupCode: string | null = null;
  /** A hash of nothing anybody knows: checking it takes as long as checking a real one. */
  private readonly decoy = hash(randomBytes(16).toString('hex'));

  /** Asked with every request, so prepared once. */
  private readonly findSession;

  constructor(@Inject(STORE) private readonly store: Store) {
    this.findSession = store.db
      .select({
        id: users.id,
        login: users.login,
        name: users.name,
        expiresAt: sessions.expiresAt,
        seenAt: sessions.seenAt,
        createdAt: sessions.createdAt,
      })
      .from(sessions)
      .innerJoin(users, eq(users.id, sessions.userId))
      .where(eq(sessions.tokenHash, sql.placeholder('tokenHash')))
      .prepare();
    this.store.db.delete(sessions).where(lt(sessions.expiresAt, Date.now())).run();
  }

  /** The one-time code for the first account, made when there is none; null once an account exists. */
  openSetup(): string | null {
    const [row] = this.store.db.select({ total: count() }).from(users).all();
    this.setupCode =
      present(row, 'the count of accounts').total > 0 ? null : randomBytes(5).toString('hex').toUpperCase();
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
    const user = await this.create(login, name, password, true);
    this.setupCode = null;
    return user;
  }

  /** @throws ApiError 409 when the sign-in name is taken */
  async create(login: string, name: string, password: string, keeper = false): Promise<User> {
    const { user, insert } = await this.prepare(login, name, password, keeper);
    insert();
    return user;
  }

  /**
   * Makes an account ready: the slow hashing is done, and nothing is written before `insert`, which may be part of a
   * larger transaction. @throws ApiError 409 from `insert` when the sign-in name is taken
   */
  async prepare(
    login: string,
    name: string,
    password: string,
    keeper = false,
  ): Promise<{ user: User; insert: () => void }> {
    const user = { id: randomUUID(), login, name };
    const passwordHash = await hash(password);
    const insert = () => {
      if (this.byLogin(login))
        throw new ApiError(
          HttpStatus.CONFLICT,
          'login-taken',
          `“${login}” cannot be had as a sign-in name; choose another.`,
        );
      this.store.db
        .insert(users)
        .values({ ...user, passwordHash, createdAt: Date.now(), keeper })
        .run();
    };
    return { user, insert };
  }

  isKeeper(userId: string): boolean {
    return (
      this.store.db.select({ keeper: users.keeper }).from(users).where(eq(users.id, userId)).get()?.keeper ??
      false
    );
  }

  /** @throws ApiError 403 when the password is not the user's */
  async checkPassword(user: User, password: string): Promise<void> {
    const row = this.store.db
      .select({ passwordHash: users.passwordHash })
      .from(users)
      .where(eq(users.id, user.id))
      .get();
    if (!row || !(await verify(row.passwordHash, password)))
      throw new ApiError(
        HttpStatus.FORBIDDEN,
        'wrong-password',
        'This is not your password; nothing was changed.',
      );
  }

  /** Sets a password and ends every session but the given one. */
  async setPassword(userId: string, password: string, keepSession: string | null): Promise<void> {
    const passwordHash = await hash(password);
    transact(this.store.db, (tx) => {
      tx.update(users).set({ passwordHash }).where(eq(users.id, userId)).run();
      tx.delete(resets).where(eq(resets.userId, userId)).run();
      tx.delete(sessions)
        .where(and(eq(sessions.userId, userId), ne(sessions.tokenHash, keepSession ?? '')))
        .run();
    });
  }

  /** Creates a password-reset code; an earlier one becomes void. @returns the code, of which a digest is kept */
  makeReset(userId: string, madeBy: string): { code: string; expiresAt: number } {
    const code = randomBytes(8).toString('hex').toUpperCase();
    const createdAt = Date.now();
    const expiresAt = createdAt + RESET_MS;
    transact(this.store.db, (tx) => {
      tx.delete(resets).where(eq(resets.userId, userId)).run();
      tx.insert(resets)
        .values({ codeHash: digest(code), userId, madeBy, createdAt, expiresAt })
        .run();
    });
    return { code, expiresAt };
  }

  /** Uses up a code. @returns whose it was @throws ApiError 403 with the same words whatever was wrong */
  async useReset(login: string, code: string, password: string): Promise<User> {
    const user = this.byLogin(login);
    const codeHash = digest(code.trim().toUpperCase());
    const used = this.store.db
      .delete(resets)
      .where(
        and(
          eq(resets.codeHash, codeHash),
          eq(resets.userId, user?.id ?? ''),
          gt(resets.expiresAt, Date.now()),
        ),
      )
      .run();
    if (!user || used.changes === 0)
      throw new ApiError(
        HttpStatus.FORBIDDEN,
        'wrong-code',
        'This name and code do not belong together, or the code has been used or is older than a day.',
      );
    await this.setPassword(user.id, password, null);
    return user;
  }

  sessionsOf(user: User, here: string): SessionLine[] {
    return this.store.db
      .select()
      .from(sessions)
      .where(and(eq(sessions.userId, user.id), gt(sessions.expiresAt, Date.now())))
      .all()
      .map(({ tokenHash, agent, createdAt, seenAt }) => ({
        ...{ id: tokenHash.slice(0, SESSION_ID), agent, createdAt },
        ...{ seenAt: Math.max(createdAt, seenAt), here: tokenHash === here },
      }))
      .sort((a, b) => Number(b.here) - Number(a.here) || b.seenAt - a.seenAt);
  }

  /** Ends a session of the user by a prefix of its digest. @returns the digest; null when there is none */
  endSessionById(user: User, id: string): string | null {
    const rows = this.store.db
      .select({ tokenHash: sessions.tokenHash })
      .from(sessions)
      .where(eq(sessions.userId, user.id))
      .all()
      .filter(({ tokenHash }) => tokenHash.startsWith(id));
    const [row] = rows;
    if (!row || id.length !== SESSION_ID || rows.length !== 1) return null;
    const { tokenHash } = row;
    this.store.db.delete(sessions).where(eq(sessions.tokenHash, tokenHash)).run();
    return tokenHash;
  }

  /** Displays whose only owner is this user: they need another before the account can be deleted. */
  soleOwnerOf(userId: string): { id: string; name: string; others: number }[] {
    const owners = sql<number>`(SELECT count(*) FROM members m WHERE m.displayId = ${displays.id} AND m.role = 'owner')`;
    const others = sql<number>`(SELECT count(*) FROM members m WHERE m.displayId = ${displays.id} AND m.userId <> ${userId})`;
    return this.store.db
      .select({ id: displays.id, name: displays.name, others })
      .from(members)
      .innerJoin(displays, eq(displays.id, members.displayId))
      .where(and(eq(members.userId, userId), eq(members.role, 'owner'), eq(owners, 1)))
      .all();
  }

  /** Deletes an account with its sessions and standings. What it did stays in the logs, under its name. */
  remove(userId: string): void {
    this.store.db.delete(users).where(eq(users.id, userId)).run();
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
    throw new ApiError(HttpStatus.UNAUTHORIZED, 'wrong-sign-in', 'The name or the password is not right.');
  }

  /** Starts a session. @returns the token for the cookie; only its digest is kept */
  startSession(user: User, agent: string): { token: string; maxAge: number } {
    const token = randomBytes(32).toString('base64url');
    const createdAt = Date.now();
    this.store.db
      .insert(sessions)
      .values({
        tokenHash: digest(token),
        userId: user.id,
        createdAt,
        expiresAt: createdAt + SESSION_MS,
        agent: agent.slice(0, 200),
        seenAt: createdAt,
      })
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
    const tokenHash = digest(token);
    const row = this.findSession.get({ tokenHash });
    const now = Date.now();
    if (!row || row.expiresAt <= now || now - Math.max(row.seenAt, row.createdAt) > IDLE_MS) return null;
    if (now - row.seenAt > SEEN_MS)
      this.store.db.update(sessions).set({ seenAt: now }).where(eq(sessions.tokenHash, tokenHash)).run();
    return { id: row.id, login: row.login, name: row.name };
  }
}
