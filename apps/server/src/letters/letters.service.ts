import { HttpStatus, Inject, Injectable, type OnModuleDestroy, type OnModuleInit } from '@nestjs/common';
import { and, count, desc, eq, gt, isNull, ne } from 'drizzle-orm';
import { displayOf, type Batch, type Scene } from '@quarry/core/document';
import type { Letter, User } from '@quarry/protocol/accounts';
import { STORE } from '../config.ts';
import { ApiError } from '../http/errors.ts';
import type { Store } from '../store/database.ts';
import { batches, displays, letters, marks, members } from '../store/tables.ts';

type Draft = Omit<typeof letters.$inferInsert, 'id' | 'readAt'>;

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
/** The most letters one is shown. */
const MAX_SHOWN = 200;

/** Mail that this instance would send. It sends none: there is no mail server to reach; everybody reads it here. */
@Injectable()
export class LettersService implements OnModuleInit, OnModuleDestroy {
  private timer: NodeJS.Timeout | undefined;

  constructor(@Inject(STORE) private readonly store: Store) {}

  onModuleInit(): void {
    this.timer = setInterval(() => this.writeDigests(Date.now()), HOUR_MS);
    this.timer.unref();
  }
  onModuleDestroy(): void {
    clearInterval(this.timer);
  }

  put(letter: Draft): void {
    this.store.db.insert(letters).values(letter).run();
  }

  of(user: User): Letter[] {
    return this.store.db
      .select()
      .from(letters)
      .where(eq(letters.userId, user.id))
      .orderBy(desc(letters.id))
      .limit(MAX_SHOWN)
      .all()
      .map(({ userId: _, ...letter }) => letter);
  }

  hasUnread(userId: string, about: Letter['about'], subject: string): boolean {
    return (
      this.store.db
        .select({ id: letters.id })
        .from(letters)
        .where(
          and(
            eq(letters.userId, userId),
            eq(letters.about, about),
            eq(letters.subject, subject),
            isNull(letters.readAt),
          ),
        )
        .get() !== undefined
    );
  }

  unread(user: User): number {
    return (
      this.store.db
        .select({ total: count() })
        .from(letters)
        .where(and(eq(letters.userId, user.id), isNull(letters.readAt)))
        .get()?.total ?? 0
    );
  }

  /** Marks a letter of the user as read. @throws ApiError 404 for another user's letter */
  read(user: User, id: number): void {
    const { changes } = this.store.db
      .update(letters)
      .set({ readAt: Date.now() })
      .where(and(eq(letters.id, id), eq(letters.userId, user.id)))
      .run();
    if (changes === 0)
      throw new ApiError(HttpStatus.NOT_FOUND, 'not-found', 'There is no such letter for you.');
  }

  /** Writes letters to people a batch mentions or answers, within its transaction, so that no letter precedes a commit. */
  afterBatch(displayId: string, author: User, scene: Scene, { changes }: Batch, at: number): void {
    for (const change of changes) {
      if (change.op === 'remove' || (change.kind !== 'thread' && change.kind !== 'reply')) continue;
      const reply = change.kind === 'reply' ? scene.reply[change.id] : undefined;
      const thread = scene.thread[reply ? reply.thread : change.id];
      if (!thread) continue;
      const letter = (person: string | null, about: 'mention' | 'answer', what: string, body: string) => {
        for (const userId of person === null ? [] : this.accountsOf(displayId, person))
          if (userId !== author.id)
            this.put({
              ...{ userId, displayId, at, about, body },
              subject: `${author.name} ${what} “${thread.title}” (${displayOf(scene).name})`,
              link: `/d/${displayId}/crew?sheet=advice&thread=${thread.id}`,
            });
      };
      const message = reply ?? thread;
      if (change.op === 'add')
        for (const person of message.mentions) letter(person, 'mention', 'names you in', message.text);
      if (reply && change.op === 'add' && thread.by !== null && !reply.mentions.includes(thread.by))
        letter(thread.by, 'answer', 'answered', reply.text);
      if (change.op === 'patch' && change.kind === 'thread' && change.set.state !== undefined)
        letter(
          thread.by,
          'answer',
          `${thread.state === 'open' ? 'opened' : thread.state} your`,
          thread.reason,
        );
    }
  }

  /**
   * A daily digest for members who have not looked: how much others changed, by display. Skipped when
   * there is nothing new or the member has looked meanwhile, and never sent twice within a day.
   * @param now ms since the epoch
   */
  writeDigests(now: number): void {
    const { db } = this.store;
    const all = db
      .select({
        userId: members.userId,
        displayId: members.displayId,
        name: displays.name,
        seq: displays.seq,
        changedAt: displays.changedAt,
      })
      .from(members)
      .innerJoin(displays, eq(displays.id, members.displayId))
      .where(gt(displays.changedAt, now - 14 * DAY_MS))
      .all();
    const byUser = grouped(all);
    for (const [userId, memberships] of byUser) {
      const last = db
        .select({ at: letters.at })
        .from(letters)
        .where(and(eq(letters.userId, userId), eq(letters.about, 'digest')))
        .orderBy(desc(letters.id))
        .limit(1)
        .get();
      if (last && now - last.at < DAY_MS) continue;
      const lines = memberships.flatMap(({ displayId, name }) => {
        const mark = db
          .select({ upTo: marks.upTo })
          .from(marks)
          .where(and(eq(marks.displayId, displayId), eq(marks.userId, userId), eq(marks.what, 'log')))
          .get();
        const since = db
          .select({ author: batches.author, total: count() })
          .from(batches)
          .where(
            and(
              eq(batches.displayId, displayId),
              gt(batches.seq, mark?.upTo ?? 0),
              gt(batches.at, last?.at ?? now - DAY_MS),
              ne(batches.userId, userId),
            ),
          )
          .groupBy(batches.author)
          .all();
        const total = since.reduce((sum, line) => sum + line.total, 0);
        return total === 0
          ? []
          : [
              `${name}: ${total} ${total === 1 ? 'change' : 'changes'} by ${since
                .map(({ author }) => author)
                .sort()
                .join(', ')}`,
            ];
      });
      if (lines.length > 0)
        this.put({
          ...{ userId, displayId: null, at: now, about: 'digest', link: '/' },
          subject: 'What the crew did since you last looked',
          body: lines.join('\n'),
        });
    }
  }

  private accountsOf(displayId: string, person: string): string[] {
    return this.store.db
      .select({ userId: members.userId })
      .from(members)
      .where(and(eq(members.displayId, displayId), eq(members.personId, person)))
      .all()
      .map(({ userId }) => userId);
  }
}

function grouped<T extends { userId: string }>(rows: readonly T[]): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const row of rows) groups.set(row.userId, [...(groups.get(row.userId) ?? []), row]);
  return groups;
}
