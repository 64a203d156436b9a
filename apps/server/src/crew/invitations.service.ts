import { randomBytes, randomUUID } from 'node:crypto';
import { HttpStatus, Inject, Injectable } from '@nestjs/common';
import { and, desc, eq, exists, gt, isNull, sql } from 'drizzle-orm';
import { displayOf, type Change } from '@quarry/core/document';
import type { User } from '@quarry/protocol/accounts';
import type { InvitationLine, Invited, MadeInvitation } from '@quarry/protocol/crew';
import { digest } from '../accounts/accounts.service.ts';
import { WriterService } from '../changes/writer.service.ts';
import { STORE } from '../config.ts';
import { DisplaysService } from '../displays/displays.service.ts';
import { ApiError, notFound } from '../http/errors.ts';
import { initialsOf } from '../http/initials.ts';
import { LettersService } from '../letters/letters.service.ts';
import { transact, type Store } from '../store/database.ts';
import { displays, invitations, members, users } from '../store/tables.ts';
import { CrewService } from './crew.service.ts';

type InvitedRole = (typeof invitations.$inferSelect)['role'];
const DAY_MS = 24 * 3_600_000;

/** Links by which people join, each once and for a while. */
@Injectable()
export class InvitationsService {
  constructor(
    @Inject(STORE) private readonly store: Store,
    @Inject(CrewService) private readonly crew: CrewService,
    @Inject(DisplaysService) private readonly displaysService: DisplaysService,
    @Inject(WriterService) private readonly writer: WriterService,
    @Inject(LettersService) private readonly letters: LettersService,
  ) {}

  /** @returns the token of the link; only its digest is kept, so it is shown this once */
  make(
    displayId: string,
    user: User,
    { role, person, days, note }: { role: InvitedRole; person: string | null; days: number; note: string },
  ): MadeInvitation {
    if (person !== null) {
      if (!Object.hasOwn(this.displaysService.load(displayId).scene.person, person)) throw notFound('person');
      this.crew.freePerson(displayId, person, null);
    }
    const token = randomBytes(24).toString('base64url');
    const createdAt = Date.now();
    const id = randomUUID();
    const expiresAt = createdAt + days * DAY_MS;
    this.store.db
      .insert(invitations)
      .values({
        ...{ id, displayId, role, note, createdAt, expiresAt },
        ...{ tokenHash: digest(token), personId: person, madeBy: user.id },
      })
      .run();
    return { id, token, expiresAt };
  }

  list(displayId: string): InvitationLine[] {
    const now = Date.now();
    return this.store.db
      .select()
      .from(invitations)
      .where(eq(invitations.displayId, displayId))
      .orderBy(desc(invitations.createdAt))
      .limit(100)
      .all()
      .map(({ id, role, personId, note, createdAt, expiresAt, usedAt, usedBy, revokedAt }) => ({
        ...{ id, role, person: personId, note, createdAt, expiresAt, usedBy },
        state: usedAt ? 'used' : revokedAt ? 'revoked' : expiresAt < now ? 'expired' : 'open',
      }));
  }

  revoke(displayId: string, id: string): void {
    const { changes } = this.store.db
      .update(invitations)
      .set({ revokedAt: Date.now() })
      .where(and(eq(invitations.id, id), eq(invitations.displayId, displayId), isNull(invitations.usedAt)))
      .run();
    if (changes === 0) throw notFound('open invitation');
  }

  /** @throws ApiError 404 with the same words for a link that never was, is used, taken back or too old */
  look(token: string): Invited {
    const row = this.store.db
      .select({
        display: displays.name,
        role: invitations.role,
        by: users.name,
        note: invitations.note,
        expiresAt: invitations.expiresAt,
      })
      .from(invitations)
      .innerJoin(displays, eq(displays.id, invitations.displayId))
      .leftJoin(users, eq(users.id, invitations.madeBy))
      .where(this.open(token))
      .get();
    if (!row) throw noInvitation();
    return { ...row, by: row.by ?? 'somebody who has left' };
  }

  /**
   * Joins by a link: uses it up, makes the person of the display if there is none, all in one transaction.
   * @param insert creates a new account, called only when joining succeeds
   * @returns the display's id
   */
  async join(token: string, user: User, insert: () => void = () => undefined): Promise<string> {
    const found = this.openOne(token);
    const { displayId, role, personId, madeBy } = found;
    const membership = this.displaysService.list(user).find(({ id }) => id === displayId);
    if (membership)
      throw new ApiError(
        HttpStatus.CONFLICT,
        'on-it',
        `You are on “${membership.name}” already, as ${membership.role}; the link stays good for somebody else.`,
      );
    const { scene } = this.displaysService.load(displayId);
    const known = personId !== null && Object.hasOwn(scene.person, personId) ? personId : null;
    const person = known ?? `person-${randomUUID().slice(0, 13)}`;
    const enter = () => {
      // Whoever comes second finds it used. All that can be refused is asked before anything is written.
      this.openOne(token);
      this.crew.freePerson(displayId, person, null);
      insert();
      this.store.db
        .update(invitations)
        .set({ usedAt: Date.now(), usedBy: user.name })
        .where(eq(invitations.id, found.id))
        .run();
      this.displaysService.join(displayId, user.id, role, person);
      this.letters.put({
        ...{ userId: madeBy, displayId, at: Date.now(), about: 'crew', body: '' },
        ...{ link: `/d/${displayId}/crew` },
        subject: `${user.name} joined ${displayOf(scene).name} as ${role}`,
      });
    };
    if (known) transact(this.store.db, enter);
    else {
      const add: Change = {
        ...{ op: 'add', kind: 'person', id: person },
        data: { name: user.name, initials: initialsOf(user.name) },
      };
      const batch = { id: randomUUID(), label: `joined as ${role}`, changes: [add] };
      await this.writer.write(displayId, user, { role: 'planner', person: null }, batch, { also: enter });
    }
    return displayId;
  }

  /** @throws ApiError 404 when no such link is open */
  private openOne(token: string) {
    const found = this.store.db.select().from(invitations).where(this.open(token)).get();
    if (!found) throw noInvitation();
    return found;
  }

  /** Condition of a valid link: unused, not revoked, not expired, and its creator is still an owner. */
  private open(token: string) {
    return and(
      eq(invitations.tokenHash, digest(token)),
      isNull(invitations.usedAt),
      isNull(invitations.revokedAt),
      gt(invitations.expiresAt, Date.now()),
      exists(
        this.store.db
          .select({ one: sql`1` })
          .from(members)
          .where(
            and(
              eq(members.displayId, invitations.displayId),
              eq(members.userId, invitations.madeBy),
              eq(members.role, 'owner'),
            ),
          ),
      ),
    );
  }
}

const noInvitation = () =>
  new ApiError(
    HttpStatus.NOT_FOUND,
    'no-invitation',
    'This invitation is not open: it has been used, taken back or is too old. Ask for another.',
  );
