import { HttpStatus, Inject, Injectable } from '@nestjs/common';
import { and, count, eq, isNull, max, sql } from 'drizzle-orm';
import { ROLES, displayOf, type Actor, type Role } from '@quarry/core/document';
import type { User } from '@quarry/protocol/accounts';
import type { Member, ResetCode } from '@quarry/protocol/crew';
import { AccountsService } from '../accounts/accounts.service.ts';
import { HubService } from '../changes/hub.service.ts';
import { STORE } from '../config.ts';
import { DisplaysService } from '../displays/displays.service.ts';
import { ApiError, notFound } from '../http/errors.ts';
import { LettersService } from '../letters/letters.service.ts';
import { transact, type Store } from '../store/database.ts';
import { invitations, marks, members, sessions, users } from '../store/tables.ts';

/** Who is on a display and what they may do there. */
@Injectable()
export class CrewService {
  constructor(
    @Inject(STORE) private readonly store: Store,
    @Inject(DisplaysService) private readonly displays: DisplaysService,
    @Inject(AccountsService) private readonly accounts: AccountsService,
    @Inject(HubService) private readonly hub: HubService,
    @Inject(LettersService) private readonly letters: LettersService,
  ) {}

  /** The members; sign-in names only for owners. */
  list(displayId: string, user: User, { role: mine }: Actor): Member[] {
    const seen = this.store.db
      .select({ userId: sessions.userId, seenAt: max(sessions.seenAt).as('seenAt') })
      .from(sessions)
      .groupBy(sessions.userId)
      .as('seen');
    return this.store.db
      .select({
        userId: members.userId,
        name: users.name,
        login: users.login,
        role: members.role,
        person: members.personId,
        seenAt: seen.seenAt,
      })
      .from(members)
      .innerJoin(users, eq(users.id, members.userId))
      .leftJoin(seen, eq(seen.userId, members.userId))
      .where(eq(members.displayId, displayId))
      .all()
      .map((member) => ({
        ...member,
        login: mine === 'owner' ? member.login : null,
        here: this.hub.isHere(displayId, member.userId),
        mayReset: member.userId !== user.id && this.mayReset(user.id, member.userId),
      }))
      .sort((a, b) => ROLES.indexOf(a.role) - ROLES.indexOf(b.role) || (a.name < b.name ? -1 : 1));
  }

  /** Changes a member's role or person. @throws ApiError */
  change(displayId: string, user: User, userId: string, set: { role?: Role; person?: string | null }): void {
    const member = this.member(displayId, userId);
    const { scene } = this.displays.load(displayId);
    if (set.person && !Object.hasOwn(scene.person, set.person)) throw notFound('person');
    if (set.person) this.freePerson(displayId, set.person, userId);
    if (set.role && set.role !== 'owner' && member.role === 'owner') this.keepOneOwner(displayId);
    this.displays.join(
      displayId,
      userId,
      set.role ?? member.role,
      set.person === undefined ? member.person : set.person,
    );
    if (set.role && set.role !== 'owner') this.closeLinks(displayId, userId);
    if (set.role && set.role !== member.role)
      this.letters.put({
        ...{ userId, displayId, at: Date.now(), about: 'crew', link: `/d/${displayId}/crew` },
        subject: `You are ${set.role} of ${displayOf(scene).name} now`,
        body: `${user.name} changed what you may do there: from ${member.role} to ${set.role}.`,
      });
    this.hub.membershipChanged(displayId, userId);
  }

  /** Makes another member the owner; the one who gives it away becomes a planner. */
  handOver(displayId: string, user: User, { person }: Actor, userId: string): void {
    if (userId === user.id) throw new ApiError(HttpStatus.CONFLICT, 'same', 'You are its owner already.');
    const member = this.member(displayId, userId);
    transact(this.store.db, () => {
      this.displays.join(displayId, userId, 'owner', member.person);
      this.displays.join(displayId, user.id, 'planner', person);
      this.closeLinks(displayId, user.id);
      this.letters.put({
        ...{ userId, displayId, at: Date.now(), about: 'crew', link: `/d/${displayId}/crew` },
        subject: `${displayOf(this.displays.load(displayId).scene).name} is yours now`,
        body: `${user.name} made you its owner and stays on as planner.`,
      });
    });
    for (const id of [userId, user.id]) this.hub.membershipChanged(displayId, id);
  }

  /** Removes a member; members may remove themselves. Their contributions and messages stay. */
  leave(displayId: string, user: User, actor: Actor, userId: string): void {
    if (userId !== user.id && actor.role !== 'owner')
      throw new ApiError(HttpStatus.FORBIDDEN, 'forbidden', 'Only an owner may take others off a display.');
    if (this.member(displayId, userId).role === 'owner') this.keepOneOwner(displayId);
    transact(this.store.db, (tx) => {
      tx.delete(members)
        .where(and(eq(members.displayId, displayId), eq(members.userId, userId)))
        .run();
      tx.delete(marks)
        .where(and(eq(marks.displayId, displayId), eq(marks.userId, userId)))
        .run();
      this.closeLinks(displayId, userId);
    });
    this.hub.sendAway(displayId, userId);
  }

  /** A code for a member's new password. @throws ApiError 403 where the code would open more than its maker may */
  resetCode(displayId: string, user: User, userId: string): ResetCode {
    this.member(displayId, userId);
    if (!this.mayReset(user.id, userId))
      throw new ApiError(
        HttpStatus.FORBIDDEN,
        'forbidden',
        'You may make a code only for somebody whose every display is yours; otherwise the keeper of this server can.',
      );
    return this.accounts.makeReset(userId, user.id);
  }

  /** Somebody forgot a password: writes to those who can make a code. Answers nothing, whether the name exists or not. */
  askReset(login: string): void {
    const user = this.accounts.byLogin(login);
    if (!user) return;
    // One unread letter asks as well as many.
    const subject = `${user.name} (${user.login}) asks for a new password`;
    const ids = this.store.db.select({ id: users.id }).from(users).all();
    for (const { id } of ids)
      if (id !== user.id && this.mayReset(id, user.id) && !this.letters.hasUnread(id, 'reset', subject)) {
        const shared = this.store.db
          .select({ displayId: members.displayId })
          .from(members)
          .where(
            and(
              eq(members.userId, user.id),
              sql`${members.displayId} IN (SELECT displayId FROM members WHERE userId = ${id})`,
            ),
          )
          .limit(1)
          .get();
        this.letters.put({
          ...{ userId: id, displayId: null, at: Date.now(), about: 'reset' },
          subject,
          body: 'Make a code under People on the Crew page and hand it over in person or by telephone. Make sure that it is them who ask.',
          link: shared ? `/d/${shared.displayId}/crew` : '/',
        });
      }
  }

  /**
   * A code for a new password opens whatever its user may open. So only the keeper of the instance makes it for
   * everybody, and an owner for those who are on no display but the owner's own.
   */
  private mayReset(askerId: string, userId: string): boolean {
    if (askerId === userId) return false;
    if (this.accounts.isKeeper(askerId)) return true;
    if (this.accounts.isKeeper(userId)) return false;
    const memberships = this.store.db
      .select({ displayId: members.displayId })
      .from(members)
      .where(eq(members.userId, userId))
      .all();
    return (
      memberships.length > 0 &&
      memberships.every(
        ({ displayId }) =>
          this.store.db
            .select({ role: members.role })
            .from(members)
            .where(and(eq(members.displayId, displayId), eq(members.userId, askerId)))
            .get()?.role === 'owner',
      )
    );
  }

  private member(displayId: string, userId: string): { role: Role; person: string | null } {
    const row = this.store.db
      .select({ role: members.role, person: members.personId })
      .from(members)
      .where(and(eq(members.displayId, displayId), eq(members.userId, userId)))
      .get();
    if (!row) throw notFound('member of this display');
    return row;
  }

  /** @throws ApiError 409 when another account is that person already */
  freePerson(displayId: string, person: string, userId: string | null): void {
    const taken = this.store.db
      .select({ userId: members.userId })
      .from(members)
      .where(and(eq(members.displayId, displayId), eq(members.personId, person)))
      .get();
    if (taken && taken.userId !== userId)
      throw new ApiError(
        HttpStatus.CONFLICT,
        'person-taken',
        'Somebody else is that person on this display already.',
      );
  }

  /** An invitation is valid only while its creator may invite. */
  private closeLinks(displayId: string, userId: string): void {
    this.store.db
      .update(invitations)
      .set({ revokedAt: Date.now() })
      .where(
        and(
          eq(invitations.displayId, displayId),
          eq(invitations.madeBy, userId),
          isNull(invitations.usedAt),
          isNull(invitations.revokedAt),
        ),
      )
      .run();
  }

  private keepOneOwner(displayId: string): void {
    const row = this.store.db
      .select({ total: count() })
      .from(members)
      .where(and(eq(members.displayId, displayId), eq(members.role, 'owner')))
      .get();
    if ((row?.total ?? 0) < 2)
      throw new ApiError(
        HttpStatus.CONFLICT,
        'last-owner',
        'A display has at least one owner: make somebody else owner first.',
      );
  }
}
