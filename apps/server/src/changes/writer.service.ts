import { HttpStatus, Inject, Injectable, type OnModuleDestroy } from '@nestjs/common';
import { and, asc, eq, gt, sql } from 'drizzle-orm';
import { tellBatch } from '@quarry/core/record';
import {
  displayOf,
  forbidden,
  keyOf,
  reduce,
  toRows,
  type Actor,
  type Batch,
  type Scene,
} from '@quarry/core/scene';
import type { User } from '../accounts/accounts.service.ts';
import { STORE } from '../config.ts';
import { DisplaysService, type Held } from '../displays/displays.service.ts';
import { ApiError } from '../http/errors.ts';
import { transact, type Store } from '../store/database.ts';
import { LettersService } from '../letters/letters.service.ts';
import { batches, checkpoints, displays, entities } from '../store/tables.ts';
import { HubService, type Landed } from './hub.service.ts';

interface Waiting {
  displayId: string;
  user: User;
  actor: Actor;
  batch: Batch;
  /** When it is to have happened, ms since the epoch; null: now. */
  at: number | null;
  resolve(seq: number): void;
  reject(error: unknown): void;
}

/** A whole scene is kept each time this many batches have landed: what lies between is replayed. */
export const CHECKPOINT_EVERY = 500;

/** Batches that share a commit: enough to spare syncs, few enough that nobody waits long. */
const MOST_TOGETHER = 200;

/**
 * The one writer. Batches that arrive together are judged in turn against the scenes in memory and share a
 * transaction; only after its commit has reached the disk is any of them acknowledged and streamed.
 */
@Injectable()
export class WriterService implements OnModuleDestroy {
  private queue: Waiting[] = [];
  private scheduled = false;
  private readonly statements;

  constructor(
    @Inject(STORE) private readonly store: Store,
    @Inject(DisplaysService) private readonly held: DisplaysService,
    @Inject(HubService) private readonly hub: HubService,
    @Inject(LettersService) private readonly letters: LettersService,
  ) {
    this.statements = prepareStatements(store);
  }

  /**
   * Lands a batch.
   * @param at when it is to have happened, ms since the epoch: only a demo's past was not now
   * @returns its number in the log; the same number when it had landed before
   */
  write(
    displayId: string,
    user: User,
    actor: Actor,
    batch: Batch,
    at: number | null = null,
  ): Promise<number> {
    return new Promise((resolve, reject) => {
      this.queue.push({ displayId, user, actor, batch, at, resolve, reject });
      this.schedule();
    });
  }

  /** The log of a display after a number, in order. @param most how many batches at most */
  since(displayId: string, after: number, most: number): Landed[] {
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
        changes: JSON.parse(changes),
      }));
  }

  onModuleDestroy(): void {
    while (this.queue.length > 0) this.flush();
  }

  private schedule(): void {
    if (this.scheduled) return;
    this.scheduled = true;
    setImmediate(() => {
      this.scheduled = false;
      this.flush();
      if (this.queue.length > 0) this.schedule();
    });
  }

  private flush(): void {
    const together = this.queue.splice(0, MOST_TOGETHER);
    if (together.length === 0) return;
    const scenes = new Map<string, Held>();
    const done: (() => void)[] = [];
    const { find, append, touch, put, mark } = this.statements;
    try {
      transact(this.store.db, () => {
        for (const waiting of together) {
          const { displayId, user, batch } = waiting;
          try {
            const before = find.get({ displayId, batchId: batch.id });
            if (before) {
              done.push(() => waiting.resolve(before.seq));
              continue;
            }
            const held = scenes.get(displayId) ?? this.held.hold(displayId);
            const scene = judge(held.scene, waiting);
            const seq = held.seq + 1;
            // A clock that was set back does not turn the log round.
            const at = Math.max(waiting.at ?? Date.now(), held.at);
            const { name, kind } = displayOf(scene);
            append.run({
              displayId,
              seq,
              batchId: batch.id,
              userId: user.id,
              author: user.name,
              at,
              label: batch.label,
              changes: JSON.stringify(batch.changes),
              told: JSON.stringify(tellBatch(held.scene, scene, batch.changes)),
            });
            touch.run({ displayId, seq, at, name, kind });
            for (const row of rowsOf(displayId, scene, batch)) put.run(row);
            if (seq % CHECKPOINT_EVERY === 0)
              mark.run({ displayId, seq, at, rows: JSON.stringify(toRows(scene)) });
            this.letters.afterBatch(displayId, user, scene, batch, at);
            scenes.set(displayId, { scene, seq, at });
            done.push(() => {
              waiting.resolve(seq);
              this.hub.publish(displayId, {
                seq,
                id: batch.id,
                author: user.name,
                at,
                label: batch.label,
                changes: batch.changes,
              });
            });
          } catch (error) {
            // A refusal is this batch's alone; anything else (a full disk) undoes the whole transaction.
            if (!(error instanceof ApiError)) throw error;
            done.push(() => waiting.reject(error));
          }
        }
      });
    } catch (error) {
      for (const { displayId, reject } of together) {
        this.held.forget(displayId);
        reject(error);
      }
      return;
    }
    for (const [displayId, held] of scenes) this.held.keep(displayId, held);
    for (const settle of done) settle();
  }
}

/** The statements of a landing batch, prepared once: building them anew costs more than running them. */
function prepareStatements({ db }: Store) {
  const at = sql.placeholder;
  return {
    find: db
      .select({ seq: batches.seq })
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
        told: at('told'),
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
    put: db
      .insert(entities)
      .values({ displayId: at('displayId'), kind: at('kind'), id: at('id'), v: at('v'), data: at('data') })
      .onConflictDoUpdate({
        target: [entities.displayId, entities.kind, entities.id],
        set: { v: sql`excluded.v`, data: sql`excluded.data` },
      })
      .prepare(),
  };
}

/** The scene a batch leads to. @throws ApiError 403 when the role does not allow it, 409 or 422 when it does not fit */
function judge(scene: Scene, { actor, batch }: Waiting): Scene {
  let step = scene;
  for (const change of batch.changes) {
    const no = forbidden(actor, step, change);
    if (no) throw new ApiError(HttpStatus.FORBIDDEN, 'forbidden', no);
    // Each change is judged against the scene the ones before it lead to; the whole is reduced once more below.
    if (actor.role === 'builder') {
      const reduction = reduce(step, [change]);
      if (reduction.ok) step = reduction.scene;
    }
  }
  const reduction = reduce(scene, batch.changes);
  if (reduction.ok) return reduction.scene;
  const { reason, sentence, index, current } = reduction.refusal;
  throw new ApiError(
    reason === 'invalid' ? HttpStatus.UNPROCESSABLE_ENTITY : HttpStatus.CONFLICT,
    reason,
    sentence,
    { index, current: current ?? null },
  );
}

/** The rows of what a batch touched, as they stand after it. */
function rowsOf(displayId: string, scene: Scene, { changes }: Batch) {
  const touched = new Map(changes.map(({ kind, id }) => [keyOf(kind, id), { kind, id }]));
  return [...touched.values()].map(({ kind, id }) => {
    const entity = scene[kind][id];
    if (!entity) return { displayId, kind, id, v: scene.removed[keyOf(kind, id)], data: null };
    const { id: _id, v, ...data } = entity;
    return { displayId, kind, id, v, data: JSON.stringify(data) };
  });
}
