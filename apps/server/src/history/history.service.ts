import { HttpStatus, Inject, Injectable } from '@nestjs/common';
import { and, asc, desc, eq, gt, gte, lt, lte, sql, type SQL } from 'drizzle-orm';
import { present } from '@quarry/core/grid';
import {
  countOps,
  replay,
  restoring,
  sharesByDay,
  takeBackBatch,
  type Entry,
  type SharesOfDay,
  type TakingBack,
} from '@quarry/core/history';
import {
  isAtLeast,
  readChanges,
  readScene,
  type Actor,
  type Change,
  type Scene,
} from '@quarry/core/document';
import type { User } from '@quarry/protocol/accounts';
import {
  descriptionSchema,
  type HistoryFilter,
  type HistoryPage,
  type Restored,
} from '@quarry/protocol/history';
import { WriterService } from '../changes/writer.service.ts';
import { STORE } from '../config.ts';
import { DisplaysService } from '../displays/displays.service.ts';
import { ApiError, notFound } from '../http/errors.ts';
import type { Store } from '../store/database.ts';
import { batches, checkpoints } from '../store/tables.ts';

/** The log as people read it, and what it makes possible. */
@Injectable()
export class HistoryService {
  constructor(
    @Inject(STORE) private readonly store: Store,
    @Inject(DisplaysService) private readonly displays: DisplaysService,
    @Inject(WriterService) private readonly writer: WriterService,
  ) {}

  /** The newest first. */
  page(displayId: string, user: User, filter: HistoryFilter): HistoryPage {
    const { before, after, author, section, kind, from, to, limit } = filter;
    const tells = (field: 'section' | 'kind', value: string) =>
      sql`EXISTS (SELECT 1 FROM json_each(${batches.descriptions}) WHERE json_extract(value, ${`$.${field}`}) = ${value})`;
    const wanted: (SQL | undefined)[] = [
      eq(batches.displayId, displayId),
      before === undefined ? undefined : lt(batches.seq, before),
      after === undefined ? undefined : gt(batches.seq, after),
      author === undefined ? undefined : eq(batches.author, author),
      from === undefined ? undefined : gte(batches.at, from),
      to === undefined ? undefined : lt(batches.at, to),
      section === undefined ? undefined : tells('section', section),
      kind === undefined ? undefined : tells('kind', kind),
    ];
    const { db } = this.store;
    const lines = db
      .select()
      .from(batches)
      .where(and(...wanted))
      .orderBy(desc(batches.seq))
      .limit(limit)
      .all()
      .map(({ seq, batchId, author: by, userId, at, label, descriptions }) => ({
        ...{ seq, id: batchId, author: by, mine: userId === user.id, at, label },
        descriptions: descriptionSchema.array().parse(JSON.parse(descriptions)),
      }));
    const authors = db
      .selectDistinct({ author: batches.author })
      .from(batches)
      .where(eq(batches.displayId, displayId))
      .orderBy(batches.author)
      .all()
      .map((row) => row.author);
    const { seq, at } = this.beginning(displayId);
    return { lines, authors, begins: { seq, at }, seq: this.displays.load(displayId).seq };
  }

  /** The scene after a number of the log. @throws ApiError 404 for what is before the log begins or after its end */
  sceneAt(displayId: string, seq: number): { scene: Scene; seq: number; at: number } {
    const held = this.displays.load(displayId);
    if (seq === held.seq) return held;
    const base = this.store.db
      .select()
      .from(checkpoints)
      .where(and(eq(checkpoints.displayId, displayId), lte(checkpoints.seq, seq)))
      .orderBy(desc(checkpoints.seq))
      .limit(1)
      .get();
    if (!base || seq > held.seq) {
      const { seq: first } = this.beginning(displayId);
      throw new ApiError(
        HttpStatus.NOT_FOUND,
        'not-kept',
        `Change ${seq} of this display is not kept: its log goes from ${first} to ${held.seq}.`,
      );
    }
    const entries = this.entries(displayId, base.seq, seq);
    return { scene: replay(readScene(base.rows), entries), seq, at: entries.at(-1)?.at ?? base.at };
  }

  /** The number of the last batch at a moment. @param at ms since the epoch */
  seqAt(displayId: string, at: number): number {
    const row = this.store.db
      .select({ seq: batches.seq })
      .from(batches)
      .where(and(eq(batches.displayId, displayId), lte(batches.at, at)))
      .orderBy(desc(batches.seq))
      .limit(1)
      .get();
    const { seq: first } = this.beginning(displayId);
    return Math.max(first, row?.seq ?? first);
  }

  /** How far the sections were, day by day, as long as the log goes back. @param zone in which days end */
  shares(displayId: string, zone: string): SharesOfDay[] {
    const { seq, at } = this.beginning(displayId);
    const first = this.sceneAt(displayId, seq);
    return sharesByDay(
      first.scene,
      at,
      this.entries(displayId, seq, this.displays.load(displayId).seq),
      zone,
    );
  }

  /** Changes that take a batch back, or what later batches stand in the way. Builders take back their own only. */
  takingBack(displayId: string, user: User, { role }: Actor, seq: number): TakingBack {
    const row = this.store.db
      .select({ userId: batches.userId })
      .from(batches)
      .where(and(eq(batches.displayId, displayId), eq(batches.seq, seq)))
      .get();
    if (!row) throw notFound('change');
    if (row.userId !== user.id && !isAtLeast(role, 'planner'))
      throw new ApiError(
        HttpStatus.FORBIDDEN,
        'forbidden',
        'You may take back your own changes; a planner may take back any.',
      );
    const before = this.sceneAt(displayId, seq - 1);
    const [batch, ...since] = this.entries(displayId, seq - 1, this.displays.load(displayId).seq);
    return takeBackBatch(
      before.scene,
      present(batch, `batch ${seq}`),
      since,
      this.displays.load(displayId).scene,
    );
  }

  /** What bringing a display back to a moment would change. */
  restoringTo(displayId: string, seq: number): Record<Change['op'], number> {
    return countOps(restoring(this.displays.load(displayId).scene, this.sceneAt(displayId, seq).scene));
  }

  /**
   * Brings a whole display back to what it was, as one new batch. What came in between stays in the log.
   * @param batchId made by the page, so that a request sent twice restores once
   * @returns the number of the batch; null when nothing differs
   */
  async restore(
    displayId: string,
    { user, actor }: { user: User; actor: Actor },
    seq: number,
    batchId: string,
  ): Promise<Restored> {
    const then = this.sceneAt(displayId, seq);
    const changes = restoring(this.displays.load(displayId).scene, then.scene);
    if (changes.length === 0) return { seq: null };
    const label = `brought the display back to change ${seq}`;
    const { seq: landed } = await this.writer.write(displayId, user, actor, { id: batchId, label, changes });
    return { seq: landed };
  }

  private entries(displayId: string, after: number, upTo: number): Entry[] {
    return this.store.db
      .select()
      .from(batches)
      .where(and(eq(batches.displayId, displayId), gt(batches.seq, after), lte(batches.seq, upTo)))
      .orderBy(asc(batches.seq))
      .all()
      .map(({ seq, batchId, author, at, label, changes }) => ({
        ...{ seq, author, at, label, id: batchId },
        changes: readChanges(changes),
      }));
  }

  private beginning(displayId: string): { seq: number; at: number } {
    const row = this.store.db
      .select({ seq: checkpoints.seq, at: checkpoints.at })
      .from(checkpoints)
      .where(eq(checkpoints.displayId, displayId))
      .orderBy(asc(checkpoints.seq))
      .limit(1)
      .get();
    if (!row) throw notFound('display');
    return row;
  }
}
