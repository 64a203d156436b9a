import { Inject, Injectable, type OnModuleDestroy, type OnModuleInit } from '@nestjs/common';
import { and, desc, eq, gt, isNotNull } from 'drizzle-orm';
import { DAY_WORDS, clockIn, concerns, dateIn, daysAhead, sittings } from '@quarry/core/progress';
import { isoAfter, displayOf, listOf, type Scene } from '@quarry/core/document';
import { STORE } from '../config.ts';
import { DisplaysService } from '../displays/displays.service.ts';
import type { Store } from '../store/database.ts';
import { letters, members } from '../store/tables.ts';
import { LettersService } from './letters.service.ts';

const HOUR_MS = 3_600_000;
/** Nobody is reminded before this hour of their own clock. */
const FROM_HOUR = '07:00';
/** Days before a show on which one is reminded of it; of other days on the day before. */
const SHOW_DAYS = [28, 14, 7, 3, 1];

/** A letter in the morning, by everybody's own clock, about what comes: at most one a day and display. */
@Injectable()
export class RemindersService implements OnModuleInit, OnModuleDestroy {
  private timer: NodeJS.Timeout | undefined;

  constructor(
    @Inject(STORE) private readonly store: Store,
    @Inject(DisplaysService) private readonly displays: DisplaysService,
    @Inject(LettersService) private readonly letters: LettersService,
  ) {}

  onModuleInit(): void {
    this.timer = setInterval(() => this.write(Date.now()), HOUR_MS);
    this.timer.unref();
  }
  onModuleDestroy(): void {
    clearInterval(this.timer);
  }

  /** Writes what is due. @param now ms since the epoch */
  write(now: number): void {
    const builders = this.store.db.select().from(members).where(isNotNull(members.personId)).all();
    for (const { displayId, userId, personId } of builders) {
      if (personId === null) continue;
      const { scene } = this.displays.load(displayId);
      const zone = listOf(scene, 'calendar').find(({ person }) => person === personId)?.zone ?? '';
      if (clockIn(now, zone) < FROM_HOUR || this.had(displayId, userId, dateIn(now, zone), zone, now))
        continue;
      const lines = reminders(scene, personId, dateIn(now, zone), zone);
      if (lines.length > 0)
        this.letters.put({
          ...{ userId, displayId, at: now, about: 'reminder', link: `/d/${displayId}/progress?sheet=agenda` },
          subject: `${displayOf(scene).name}: ${lines[0]}`,
          body: lines.join('\n'),
        });
    }
  }

  /** Whether a person was reminded today, in their own time zone. */
  private had(displayId: string, userId: string, today: string, zone: string, now: number): boolean {
    const last = this.store.db
      .select({ at: letters.at })
      .from(letters)
      .where(
        and(
          ...[eq(letters.userId, userId), eq(letters.displayId, displayId), eq(letters.about, 'reminder')],
          gt(letters.at, now - 26 * HOUR_MS),
        ),
      )
      .orderBy(desc(letters.id))
      .limit(1)
      .get();
    return last !== undefined && dateIn(last.at, zone) === today;
  }
}

/** Reminders of a person for a day: what is tomorrow, shows some days ahead, and sitting down today. */
export function reminders(scene: Scene, person: string, today: string, zone: string): string[] {
  const tomorrow = isoAfter(today, 1);
  const lines = SHOW_DAYS.flatMap((ahead) => {
    const date = isoAfter(today, ahead);
    return daysAhead(scene, date, date)
      .filter((day) => (date === tomorrow || day.what === 'show') && concerns(scene, day, person))
      .map(
        ({ what, name }) => `${ahead === 1 ? 'tomorrow' : `in ${ahead} days`}: ${DAY_WORDS[what]} “${name}”`,
      );
  });
  const sits = sittings(scene, today, today).filter((one) => one.person === person);
  // A day at the table alone is no news: it goes with the rest.
  return lines.length === 0
    ? []
    : [...lines, ...sits.map(({ start }) => `today at the table from ${clockIn(start, zone)}`)];
}
