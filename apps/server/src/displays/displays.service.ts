import { randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { and, desc, eq, inArray, isNotNull, sql } from 'drizzle-orm';
import {
  displayOf,
  fromRows,
  partFromRows,
  rowSchema,
  toRows,
  unreadThreads,
  type Actor,
  type EntityRow,
  type Kind,
  type Role,
  type Scene,
} from '@quarry/core/document';
import { progressOf } from '@quarry/core/progress';
import { footprintBounds } from '@quarry/core/terrain';
import type { User } from '@quarry/protocol/accounts';
import type { CreatedDisplay, DisplayLine, KeptPiece } from '@quarry/protocol/displays';
import { HubService } from '../changes/hub.service.ts';
import { STORE } from '../config.ts';
import { notFound } from '../http/errors.ts';
import { transact, type Store } from '../store/database.ts';
import { batches, checkpoints, displays, entities, marks, members, photoFiles } from '../store/tables.ts';

/** A display in memory: its scene and the number of the last batch in it. */
export interface CachedDocument {
  scene: Scene;
  seq: number;
  /** When the last batch landed, ms since the epoch. */
  at: number;
}

/** What the list of displays is computed from. */
const LISTED_KINDS = ['display', 'footprint', 'section', 'thread', 'reply'] satisfies Kind[];
/** How many pieces are listed, and of how many characters one may be to be looked into for that. */
const MAX_PIECES = 500;
const MAX_LISTED_PIECE = 200_000;
/** How many displays stay in memory. */
const MAX_CACHED = 50;

/** Displays, who is on them, and their scenes as the log has them. */
@Injectable()
export class DisplaysService {
  private readonly cached = new Map<string, CachedDocument>();

  /** Asked with every request, so prepared once. */
  private readonly findMember;

  constructor(
    @Inject(STORE) private readonly store: Store,
    @Inject(HubService) private readonly hub: HubService,
  ) {
    this.findMember = store.db
      .select({ role: members.role, person: members.personId })
      .from(members)
      .where(
        and(
          eq(members.displayId, sql.placeholder('displayId')),
          eq(members.userId, sql.placeholder('userId')),
        ),
      )
      .prepare();
  }

  /** See `Store`. */
  get epoch(): number {
    return this.store.epoch;
  }

  /** The displays of a user, the last changed first. What is told of each is computed from the rows it needs. */
  list(user: User): DisplayLine[] {
    const lines = this.store.db
      .select({
        id: displays.id,
        name: displays.name,
        kind: displays.kind,
        role: members.role,
        person: members.personId,
        seq: displays.seq,
        changedAt: displays.changedAt,
        changedBy: batches.author,
      })
      .from(members)
      .innerJoin(displays, eq(displays.id, members.displayId))
      .leftJoin(batches, and(eq(batches.displayId, displays.id), eq(batches.seq, displays.seq)))
      .where(eq(members.userId, user.id))
      .orderBy(desc(displays.changedAt), displays.name)
      .all();
    const rows = byDisplay(
      this.store.db
        .select({
          displayId: entities.displayId,
          kind: entities.kind,
          id: entities.id,
          v: entities.v,
          data: entities.data,
        })
        .from(entities)
        .innerJoin(members, eq(members.displayId, entities.displayId))
        .where(
          and(eq(members.userId, user.id), inArray(entities.kind, LISTED_KINDS), isNotNull(entities.data)),
        )
        .all(),
    );
    const read = byDisplay(
      this.store.db
        .select({ displayId: marks.displayId, what: marks.what, upTo: marks.upTo })
        .from(marks)
        .where(eq(marks.userId, user.id))
        .all(),
    );
    return lines.map(({ person, ...line }) => {
      const scene = partFromRows(readRows(rows.get(line.id) ?? []));
      const size = footprintBounds(scene);
      const upTo = Object.fromEntries((read.get(line.id) ?? []).map(({ what, upTo: mark }) => [what, mark]));
      return {
        ...line,
        showDate: displayOf(scene).showDate,
        size: size && { w: size.w, d: size.d },
        done: progressOf(scene).done,
        unread: unreadThreads(scene, person, upTo).size,
      };
    });
  }

  /** The pieces kept in the displays of a user, those of the display that changed last first; at most 500. */
  pieces(user: User): KeptPiece[] {
    // Read in the database: of a list of pieces nobody wants all that is in them.
    const isRead = sql`length(${entities.data}) <= ${MAX_LISTED_PIECE}`;
    const of = <T>(path: string) =>
      sql<T | null>`iif(${isRead}, json_extract(${entities.data}, ${path}), null)`;
    const rows = this.store.db
      .select({
        display: displays.id,
        displayName: displays.name,
        id: entities.id,
        name: of<string>('$.name'),
        w: of<number>('$.w'),
        d: of<number>('$.d'),
        things: sql<number | null>`iif(${isRead}, json_array_length(${entities.data}, '$.things'), null)`,
      })
      .from(entities)
      .innerJoin(displays, eq(displays.id, entities.displayId))
      .innerJoin(members, eq(members.displayId, entities.displayId))
      .where(and(eq(members.userId, user.id), eq(entities.kind, 'piece'), isNotNull(entities.data)))
      .orderBy(desc(displays.changedAt), displays.name, entities.id)
      .limit(MAX_PIECES)
      .all();
    return rows.map(({ display, displayName, id, name, w, d, things }) => ({
      ...{ display, displayName, id },
      card: name === null || w === null || d === null || things === null ? null : { name, w, d, things },
    }));
  }

  /** Another display that begins as one stands: its entities and its photos, with a log of its own. */
  copy(displayId: string, name: string, user: User, personId: string | null): CreatedDisplay {
    const { scene } = this.load(displayId);
    const display = displayOf(scene);
    const copied = { ...scene, display: { ...scene.display, [display.id]: { ...display, name } } };
    return this.create(user, copied, personId, Date.now(), (tx, id) => {
      const files = tx
        .select({
          displayId: sql<string>`${id}`.as('display_id'),
          digest: photoFiles.digest,
          userId: photoFiles.userId,
          at: photoFiles.at,
          width: photoFiles.width,
          height: photoFiles.height,
          bytes: photoFiles.bytes,
          small: photoFiles.small,
        })
        .from(photoFiles)
        .where(eq(photoFiles.displayId, displayId));
      tx.insert(photoFiles).select(files).run();
    });
  }

  /**
   * Stores a scene as a new display of which the user is the owner.
   * @param now ms since the epoch
   * @param alongside what is written in the same transaction, given the new display's id
   */
  create(
    user: User,
    scene: Scene,
    personId: string | null,
    now = Date.now(),
    alongside: (tx: Store['db'], id: string) => void = () => undefined,
  ): CreatedDisplay {
    const { name, kind } = displayOf(scene);
    const line = { id: randomUUID(), name, kind, changedAt: now };
    transact(this.store.db, (tx) => {
      tx.insert(displays)
        .values({ ...line, createdAt: now })
        .run();
      tx.insert(members).values({ displayId: line.id, userId: user.id, role: 'owner', personId }).run();
      const whole = toRows(scene);
      // Where its log begins.
      tx.insert(checkpoints)
        .values({ displayId: line.id, seq: 0, at: now, rows: JSON.stringify(whole) })
        .run();
      const rows = whole.map(({ data, ...row }) => ({
        displayId: line.id,
        ...row,
        data: data && JSON.stringify(data),
      }));
      for (let at = 0; at < rows.length; at += 500)
        tx.insert(entities)
          .values(rows.slice(at, at + 500))
          .run();
      alongside(tx, line.id);
    });
    return { id: line.id };
  }

  /** Adds a member to a display, or changes their role. */
  join(displayId: string, userId: string, role: Role, personId: string | null): void {
    this.store.db
      .insert(members)
      .values({ displayId, userId, role, personId })
      .onConflictDoUpdate({ target: [members.displayId, members.userId], set: { role, personId } })
      .run();
  }

  /** Who a user is on a display. @throws ApiError 404 for others, the same as for a display that is not there */
  actor(displayId: string, user: User): Actor {
    const row = this.findMember.get({ displayId, userId: user.id });
    if (!row) throw notFound('display');
    return row;
  }

  remove(displayId: string): void {
    this.store.db.delete(displays).where(eq(displays.id, displayId)).run();
    this.cached.delete(displayId);
    this.hub.close(displayId);
  }

  /** The scene of a display, from memory or from its rows. */
  load(displayId: string): CachedDocument {
    const known = this.cached.get(displayId);
    if (known) {
      // Last used goes last, so that the first of the map is the one to let go.
      this.cached.delete(displayId);
      this.cached.set(displayId, known);
      return known;
    }
    const row = this.store.db
      .select({ seq: displays.seq, at: displays.changedAt })
      .from(displays)
      .where(eq(displays.id, displayId))
      .get();
    if (!row) throw notFound('display');
    const cached = { scene: this.readScene(displayId), ...row };
    this.beginLog(displayId, cached);
    this.put(displayId, cached);
    return cached;
  }

  put(displayId: string, cached: CachedDocument): void {
    this.cached.set(displayId, cached);
    for (const id of this.cached.keys()) {
      if (this.cached.size <= MAX_CACHED) break;
      this.cached.delete(id);
    }
  }

  evict(displayId: string): void {
    this.cached.delete(displayId);
  }

  /** A display from before checkpoints were kept: what can be looked back at begins where it stands now. */
  private beginLog(displayId: string, { scene, seq, at }: CachedDocument): void {
    const has = this.store.db
      .select({ seq: checkpoints.seq })
      .from(checkpoints)
      .where(eq(checkpoints.displayId, displayId))
      .limit(1)
      .get();
    if (!has)
      this.store.db
        .insert(checkpoints)
        .values({ displayId, seq, at, rows: JSON.stringify(toRows(scene)) })
        .run();
  }

  private readScene(displayId: string): Scene {
    const rows = this.store.db.select().from(entities).where(eq(entities.displayId, displayId)).all();
    return fromRows(readRows(rows));
  }
}

/** Rows of several displays, by display. */
function byDisplay<R extends { displayId: string }>(rows: readonly R[]): ReadonlyMap<string, R[]> {
  const groups = new Map<string, R[]>();
  for (const row of rows) {
    const group = groups.get(row.displayId);
    if (group) group.push(row);
    else groups.set(row.displayId, [row]);
  }
  return groups;
}

/** Stored rows, each held against the schema of rows. */
const readRows = (
  rows: readonly { kind: string; id: string; v: number; data: string | null }[],
): EntityRow[] =>
  rows.map(({ kind, id, v, data }) => {
    const fields: unknown = data === null ? null : JSON.parse(data);
    return rowSchema.parse({ kind, id, v, data: fields });
  });
