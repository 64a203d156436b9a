import { HttpStatus, Injectable } from '@nestjs/common';
import { LRUCache } from 'lru-cache';
import { isAtLeast, type Actor, type Batch } from '@quarry/core/document';
import { ApiError } from '../http/errors.ts';

/** How much one person may say on one display within a while: a person never needs more, a flood always does. */
const WHILE_MS = 600_000;
/** Advice and answers of one who plans nothing here, and of planners, who may bring back a long conversation. */
const MAX_SAID = { few: 40, many: 2000 };
/** People mentioned in messages: each gets a letter. */
const MAX_NAMED = 60;
/** Batches of one person on one display. */
const MAX_BATCHES = 12_000;

/** Refuses floods. Counts are kept in memory: a restart resets them. */
@Injectable()
export class LimitsService {
  private readonly counts = new LRUCache<
    string,
    { since: number; said: number; named: number; batches: number }
  >({
    max: 20_000,
  });

  /**
   * Counts messages and mentions of a batch.
   * @throws ApiError 429, or 422 for what will never do, naming the limit; what is refused is not counted
   */
  count(displayId: string, userId: string, { role }: Actor, { changes }: Batch, now: number): void {
    const key = `${displayId} ${userId}`;
    const known = this.counts.get(key);
    const before =
      known && now - known.since < WHILE_MS ? known : { since: now, said: 0, named: 0, batches: 0 };
    let { said, named } = before;
    for (const change of changes)
      if (change.op === 'add' && (change.kind === 'thread' || change.kind === 'reply')) {
        said++;
        named += Array.isArray(change.data.mentions) ? change.data.mentions.length : 0;
      }
    const batches = before.batches + 1;
    const mostSaid = isAtLeast(role, 'planner') ? MAX_SAID.many : MAX_SAID.few;
    const minutes = WHILE_MS / 60_000;
    // A batch over a limit by itself is refused for good; one over it after others may be sent again later.
    const refuse = (own: boolean, message: string) =>
      new ApiError(
        own ? HttpStatus.UNPROCESSABLE_ENTITY : HttpStatus.TOO_MANY_REQUESTS,
        own ? 'invalid' : 'too-many',
        message,
      );
    if (said > mostSaid && said > before.said)
      throw refuse(
        said - before.said > mostSaid,
        `You may give ${mostSaid} pieces of advice and answers in ${minutes} minutes; these would be ${said}.`,
      );
    if (named > MAX_NAMED && named > before.named)
      throw refuse(
        named - before.named > MAX_NAMED,
        `You may name ${MAX_NAMED} people in ${minutes} minutes; these would be ${named}.`,
      );
    if (batches > MAX_BATCHES)
      throw refuse(
        false,
        `You have saved ${MAX_BATCHES.toLocaleString('en')} changes in ${minutes} minutes; wait a while.`,
      );
    this.counts.set(key, { since: before.since, said, named, batches });
  }
}
