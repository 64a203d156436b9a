import { Inject, Injectable } from '@nestjs/common';
import { and, eq, sql } from 'drizzle-orm';
import type { User } from '@quarry/protocol/accounts';
import { STORE } from '../config.ts';
import { DisplaysService } from '../displays/displays.service.ts';
import { notFound } from '../http/errors.ts';
import type { Store } from '../store/database.ts';
import { marks } from '../store/tables.ts';

/** How far each person has read on a display: theirs alone. */
@Injectable()
export class MarksService {
  constructor(
    @Inject(STORE) private readonly store: Store,
    @Inject(DisplaysService) private readonly displays: DisplaysService,
  ) {}

  of(displayId: string, user: User): Record<string, number> {
    const rows = this.store.db
      .select({ what: marks.what, upTo: marks.upTo })
      .from(marks)
      .where(and(eq(marks.displayId, displayId), eq(marks.userId, user.id)))
      .all();
    return Object.fromEntries(rows.map(({ what, upTo }) => [what, upTo]));
  }

  /** Never goes back: a slow window does not make read things unread. */
  set(displayId: string, user: User, what: string, upTo: number): void {
    if (what !== 'log' && !Object.hasOwn(this.displays.load(displayId).scene.thread, what))
      throw notFound('advice');
    this.store.db
      .insert(marks)
      .values({ displayId, userId: user.id, what, upTo })
      .onConflictDoUpdate({
        target: [marks.displayId, marks.userId, marks.what],
        set: { upTo: sql`max(${marks.upTo}, excluded.upTo)` },
      })
      .run();
  }
}
