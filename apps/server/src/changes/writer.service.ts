import { createHash } from 'node:crypto';
import { setImmediate as nextTurn } from 'node:timers/promises';
import { HttpStatus, Inject, Injectable, Logger, type OnModuleDestroy } from '@nestjs/common';
import { and, asc, eq, gt, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { present } from '@quarry/core/grid';
import { describeBatch } from '@quarry/core/history';
import {
  drain,
  authorOf,
  displayOf,
  isAuthored,
  keyOf,
  readChanges,
  denialReasons,
  reduceSteps,
  stamped,
  toRows,
  type Actor,
  type Batch,
  type Change,
  type Refusal,
  type Scene,
  type Stamp,
} from '@quarry/core/document';
import type { User } from '@quarry/protocol/accounts';
import { type Acknowledged, type CommittedBatch } from '@quarry/protocol/changes';
import { STORE } from '../config.ts';
import { DisplaysService, type CachedDocument } from '../displays/displays.service.ts';
import { ApiError } from '../http/errors.ts';
import { transact, type Store } from '../store/database.ts';
import { LettersService } from '../letters/letters.service.ts';
import { batches, checkpoints, displays, entities, photoFiles } from '../store/tables.ts';
import { HubService } from './hub.service.ts';
import { LimitsService } from './limits.service.ts';

interface Waiting {
  displayId: string;
  user: User;
  actor: Actor;
  batch: Batch;
  /** Of the batch as it was sent: the same id with other content is another batch. */
  sent: string;
  how: How;
  resolve(landed: Acknowledged): void;
  reject(error: unknown): void;
}

interface How {
  /** When it is to have happened, ms since the epoch: only a demo's past was not now. */
  at?: number;
  /** Done in the transaction in which the batch lands; refuses (ApiError) before it writes anything. */
  also?: () => void;
}

/** A batch that may land: what it leads to, and what is written of it. */
interface Ready {
  waiting: Waiting;
  document: CachedDocument;
  changes: Change[];
  changesText: string;
  descriptions: string;
  rows: string;
  /** Digests of pictures that no photo shows any longer. */
  unseen: string[];
}

/** A whole scene is kept each time this many batches have landed: what lies between is replayed. */
export const CHECKPOINT_EVERY = 500;

/** Batches of more changes than this are checked in slices, so that other batches do not wait for them. */
const LONG = 250;
/** How long a slice lasts, ms. */
const SLICE_MS = 8;

/** Batches that share a commit: enough to save syncs, few enough for short waits. */
const MAX_TOGETHER = 200;

/**
 * The one writer. Batches that arrive together are judged in turn against the scenes in memory and share a
 * transaction; only after its commit has reached the disk is any of them acknowledged and streamed.
 */
@Injectable()
export class WriterService implements OnModuleDestroy {
  private queue: Waiting[] = [];
  private scheduled = false;
  /** Displays on which a long batch is being judged: what else is for them waits its turn. */
  private readonly busy = new Set<string>();
  private readonly statements;
  private readonly log = new Logger('writer');

  constructor(
    @Inject(STORE) private readonly store: Store,
    @Inject(DisplaysService) private readonly displays: DisplaysService,
    @Inject(HubService) private readonly hub: HubService,
    @Inject(LettersService) private readonly letters: LettersService,
    @Inject(LimitsService) private readonly limits: LimitsService,
  ) {
    this.statements = prepareStatements(store);
  }

  /**
   * Lands a batch.
   * @returns its number in the log; the same number when it had landed before
   */
  write(displayId: string, user: User, actor: Actor, batch: Batch, how: How = {}): Promise<Acknowledged> {
    const sent = createHash('sha256').update(JSON.stringify(batch.changes)).digest('hex');
    return new Promise((resolve, reject) => {
      this.queue.push({ displayId, user, actor, batch, sent, how, resolve, reject });
      this.schedule();
    });
  }

  /** The log of a display after a number, in order. @param most how many batches at most */
  since(displayId: string, after: number, most: number): CommittedBatch[] {
    return this.store.db
      .select()
      .from(batches)
      .where(and(eq(batches.displayId, displayId), gt(batches.seq, after)))
      .orderBy(asc(batches.seq))
      .limit(most)
      .all()
      .map(({ seq, batchId, author, at, label, changes }) => ({
        seq,
        id: batchId,
        author,
        at,
        label,
        changes: readChanges(changes),
      }));
  }

  onModuleDestroy(): void {
    // What is being judged in slices has not landed: its sender hears nothing, and sends it again.
    while (this.queue.some(({ displayId }) => !this.busy.has(displayId))) this.flush();
  }

  private schedule(): void {
    if (this.scheduled) return;
    this.scheduled = true;
    setImmediate(() => {
      this.scheduled = false;
      this.flush();
      if (this.queue.some(({ displayId }) => !this.busy.has(displayId))) this.schedule();
    });
  }

  /** The batches whose turn it is, in their order on each display; a long one is begun, by itself. */
  private take(): Waiting[] {
    const taken: Waiting[] = [];
    const waits = new Set(this.busy);
    const rest: Waiting[] = [];
    const has = new Set<string>();
    let long: Waiting | null = null;
    for (const waiting of this.queue) {
      const { displayId, batch } = waiting;
      if (waits.has(displayId) || taken.length >= MAX_TOGETHER) {
        rest.push(waiting);
        waits.add(displayId);
      } else if (batch.changes.length <= LONG) {
        taken.push(waiting);
        has.add(displayId);
      } else {
        waits.add(displayId);
        if (has.has(displayId) || long) rest.push(waiting);
        else long = waiting;
      }
    }
    this.queue = rest;
    if (long) void this.landLong(long);
    return taken;
  }

  private flush(): void {
    const together = this.take();
    if (together.length > 0 && !this.commit(together)) for (const one of together) this.commit([one]);
  }

  /**
   * Lands batches in one transaction.
   * @returns false after an unexpected error in one of several: none was committed, each is to be tried alone
   */
  private commit(together: readonly Waiting[]): boolean {
    const scenes = new Map<string, CachedDocument>();
    const done: (() => void)[] = [];
    try {
      transact(this.store.db, () => {
        for (const waiting of together)
          try {
            const known = this.known(waiting);
            if (known) {
              done.push(() => waiting.resolve(known));
              continue;
            }
            const before = scenes.get(waiting.displayId) ?? this.displays.load(waiting.displayId);
            const ready = drain(this.preparing(before, waiting));
            this.append(ready);
            scenes.set(waiting.displayId, ready.document);
            done.push(() => this.acknowledge(ready));
          } catch (error) {
            // A refusal is this batch's alone; anything else undoes the whole transaction.
            if (!(error instanceof ApiError)) throw error;
            done.push(() => waiting.reject(error));
          }
      });
    } catch (error) {
      for (const { displayId } of together) this.displays.evict(displayId);
      if (together.length > 1) return false;
      this.log.error(error instanceof Error ? error.stack : String(error));
      for (const { reject } of together) reject(error);
      return true;
    }
    for (const [displayId, document] of scenes) this.displays.put(displayId, document);
    for (const settle of done) settle();
    return true;
  }

  /** Lands a long batch by itself, judged in slices. */
  private async landLong(waiting: Waiting): Promise<void> {
    const { displayId } = waiting;
    this.busy.add(displayId);
    try {
      const known = this.known(waiting);
      if (known) {
        waiting.resolve(known);
        return;
      }
      const ready = await inSlices(this.preparing(this.displays.load(displayId), waiting));
      transact(this.store.db, () => this.append(ready));
      this.displays.put(displayId, ready.document);
      this.acknowledge(ready);
    } catch (error) {
      if (!(error instanceof ApiError)) this.displays.evict(displayId);
      waiting.reject(error);
    } finally {
      this.busy.delete(displayId);
      if (this.queue.length > 0) this.schedule();
    }
  }

  /** What a batch was answered that has landed before. @throws ApiError 409 when its id was another batch's */
  private known({ displayId, user, batch, sent }: Waiting): Acknowledged | null {
    const before = this.statements.find.get({ displayId, batchId: batch.id });
    if (!before) return null;
    if (before.userId === user.id && (before.sent === null || before.sent === sent))
      return { seq: before.seq };
    throw new ApiError(
      HttpStatus.CONFLICT,
      'batch-taken',
      `Change ${before.seq} of the log has this batch’s id and other content; send yours with an id of its own.`,
      before.userId === user.id
        ? { seq: before.seq, landed: readChanges(before.changes), sent: batch.changes }
        : {},
    );
  }

  /**
   * Judges a batch against the scene it meets, and makes ready what is written of it; pauses now and then.
   * @throws ApiError 403 when the role does not allow it, 409 or 422 when it does not fit
   */
  private *preparing(before: CachedDocument, waiting: Waiting): Generator<undefined, Ready> {
    const { actor, batch, user } = waiting;
    // A clock that was set back does not turn the log round.
    const at = Math.max(waiting.how.at ?? Date.now(), before.at);
    const author = { person: actor.person, name: user.name, at: new Date(at).toISOString() };
    if (waiting.how.at === undefined) this.limits.count(waiting.displayId, user.id, actor, batch, at);
    // Checked as sent, so that a forged author is refused; applied with the server's stamps.
    const permits = denialReasons(actor, before.scene);
    const changes = batch.changes.some(isAuthored)
      ? batch.changes.map((change) => stamped(change, author, this.formerStamp(waiting, before, change)))
      : batch.changes;
    const reduction = yield* reduceSteps(before.scene, changes, (step, index) =>
      permits(step, present(batch.changes[index], 'the change as sent')),
    );
    if (!reduction.ok) throw refusalOf(reduction.refusal);
    yield;
    const descriptions = JSON.stringify(describeBatch(before.scene, reduction.scene, changes));
    yield;
    const changesText = JSON.stringify(changes);
    const rows = JSON.stringify(rowsOf(before.scene, reduction.scene, changes));
    yield;
    return {
      ...{ waiting, changes, changesText, descriptions, rows },
      unseen: unseenPictures(before.scene, reduction.scene, changes),
      document: { scene: reduction.scene, seq: before.seq + 1, at },
    };
  }

  /** Former authorship stamp of an entity that was removed and is added again. */
  private formerStamp(
    { displayId }: Waiting,
    { scene }: CachedDocument,
    { op, kind, id }: Change,
  ): Stamp | null {
    if (op !== 'add' || !Object.hasOwn(scene.removed, keyOf(kind, id))) return null;
    const row = this.statements.stamp.get({ displayId, kind, id });
    const read = stampSchema.safeParse(row?.stamp ? JSON.parse(row.stamp) : null);
    return read.success ? read.data : null;
  }

  /** Writes a batch that was judged; within a transaction. */
  private append({ waiting, document, changes, changesText, descriptions, rows, unseen }: Ready): void {
    const { displayId, user, batch, sent } = waiting;
    const { scene, seq, at } = document;
    const { append, touch, put, mark } = this.statements;
    const { name, kind } = displayOf(scene);
    waiting.how.also?.();
    append.run({
      ...{ displayId, seq, batchId: batch.id, userId: user.id, author: user.name },
      ...{ at, label: batch.label, changes: changesText, descriptions, sent },
    });
    touch.run({ displayId, seq, at, name, kind });
    put.run(displayId, rows);
    if (unseen.length > 0)
      this.store.db
        .delete(photoFiles)
        .where(and(eq(photoFiles.displayId, displayId), inArray(photoFiles.digest, unseen)))
        .run();
    if (seq % CHECKPOINT_EVERY === 0) mark.run({ displayId, seq, at, rows: JSON.stringify(toRows(scene)) });
    this.letters.afterBatch(displayId, user, scene, { ...batch, changes }, at);
  }

  private acknowledge({ waiting, document, changes }: Ready): void {
    const { displayId, user, batch, resolve } = waiting;
    const { seq, at } = document;
    resolve({ seq, ...(changes === batch.changes ? {} : { changes }) });
    this.hub.publish(displayId, {
      ...{ seq, id: batch.id, author: user.name, at, label: batch.label, changes },
    });
  }
}

const stampSchema = z.object({ by: z.string().nullable(), at: z.string().nullable() });

/** A refusal as an answer. */
function refusalOf({ reason, sentence, index, current }: Refusal): ApiError {
  const status =
    reason === 'forbidden'
      ? HttpStatus.FORBIDDEN
      : reason === 'invalid'
        ? HttpStatus.UNPROCESSABLE_ENTITY
        : HttpStatus.CONFLICT;
  return new ApiError(status, reason, sentence, { index, current: current ?? null });
}

/** Drives what pauses to its end, letting others have their turn between slices of a few milliseconds. */
async function inSlices<T>(steps: Generator<undefined, T>): Promise<T> {
  let began = performance.now();
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
    if (performance.now() - began < SLICE_MS) continue;
    await nextTurn();
    began = performance.now();
  }
}

/** Prepared statements of a commit: building them costs more than running them. */
function prepareStatements({ db, client }: Store) {
  const at = sql.placeholder;
  return {
    find: db
      .select({ seq: batches.seq, userId: batches.userId, sent: batches.sent, changes: batches.changes })
      .from(batches)
      .where(and(eq(batches.displayId, at('displayId')), eq(batches.batchId, at('batchId'))))
      .prepare(),
    append: db
      .insert(batches)
      .values({
        displayId: at('displayId'),
        seq: at('seq'),
        batchId: at('batchId'),
        userId: at('userId'),
        author: at('author'),
        at: at('at'),
        label: at('label'),
        changes: at('changes'),
        descriptions: at('descriptions'),
        sent: at('sent'),
      })
      .prepare(),
    mark: db
      .insert(checkpoints)
      .values({ displayId: at('displayId'), seq: at('seq'), at: at('at'), rows: at('rows') })
      .onConflictDoNothing()
      .prepare(),
    touch: db
      .update(displays)
      .set({
        seq: sql`${at('seq')}`,
        changedAt: sql`${at('at')}`,
        name: sql`${at('name')}`,
        kind: sql`${at('kind')}`,
      })
      .where(eq(displays.id, at('displayId')))
      .prepare(),
    stamp: db
      .select({ stamp: entities.stamp })
      .from(entities)
      .where(
        and(
          eq(entities.displayId, at('displayId')),
          eq(entities.kind, at('kind')),
          eq(entities.id, at('id')),
        ),
      )
      .prepare(),
    // All rows of a batch in one statement, read out of JSON: Drizzle has no word for it.
    put: client.prepare(
      `INSERT INTO entities (displayId, kind, id, v, data, stamp)
       SELECT ?1, value->>0, value->>1, value->>2, value->>3, value->>4 FROM json_each(?2) WHERE true
       ON CONFLICT (displayId, kind, id) DO UPDATE
       SET v = excluded.v, data = excluded.data, stamp = coalesce(excluded.stamp, stamp)`,
    ),
  };
}

/**
 * The rows of what a batch touched, as they stand after it: kind, id, version, data, and for removed ones their authorship
 * it and when.
 */
function rowsOf(before: Scene, after: Scene, changes: readonly Change[]) {
  const touched = new Map(changes.map(({ kind, id }) => [keyOf(kind, id), { kind, id }]));
  return [...touched.values()].map(({ kind, id }) => {
    const entity = after[kind][id];
    if (entity) {
      const { id: _id, v, ...data } = entity;
      return [kind, id, v, JSON.stringify(data), null];
    }
    const stamp = authorOf(before, kind, id);
    return [kind, id, after.removed[keyOf(kind, id)], null, stamp && JSON.stringify(stamp)];
  });
}

/** Files of removed photos: they are deleted at once. */
function unseenPictures(before: Scene, after: Scene, changes: readonly Change[]): string[] {
  const files = changes.flatMap(({ op, kind, id }) =>
    kind === 'photo' && op !== 'add' ? (before.photo[id]?.file ?? []) : [],
  );
  if (files.length === 0) return [];
  const seen = new Set(Object.values(after.photo).map(({ file }) => file));
  return files.filter((file) => !seen.has(file));
}
