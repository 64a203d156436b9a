import { index, integer, primaryKey, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';

/** Times are milliseconds since the epoch, UTC. */
export const users = sqliteTable('users', {
  id: text().primaryKey(),
  login: text().notNull().unique(),
  name: text().notNull(),
  passwordHash: text().notNull(),
  createdAt: integer().notNull(),
});

export const sessions = sqliteTable(
  'sessions',
  {
    /** SHA-256 of the cookie's token: a stolen database signs nobody in. */
    tokenHash: text().primaryKey(),
    userId: text()
      .notNull()
      .references(() => users.id, { onDelete: 'cascade' }),
    createdAt: integer().notNull(),
    expiresAt: integer().notNull(),
  },
  (table) => [index('sessions_user').on(table.userId)],
);

export const displays = sqliteTable('displays', {
  id: text().primaryKey(),
  name: text().notNull(),
  kind: text().notNull(),
  /** Number of the last batch in its log. */
  seq: integer().notNull().default(0),
  createdAt: integer().notNull(),
  changedAt: integer().notNull(),
});

export const members = sqliteTable(
  'members',
  {
    displayId: text()
      .notNull()
      .references(() => displays.id, { onDelete: 'cascade' }),
    userId: text()
      .notNull()
      .references(() => users.id, { onDelete: 'cascade' }),
    role: text({ enum: ['owner', 'planner', 'builder', 'viewer'] }).notNull(),
    /** The person entity of the display that this account is. */
    personId: text(),
  },
  (table) => [
    primaryKey({ columns: [table.displayId, table.userId] }),
    index('members_user').on(table.userId),
  ],
);

/** Entities as they stand; a removed one keeps its row for its last version. */
export const entities = sqliteTable(
  'entities',
  {
    displayId: text()
      .notNull()
      .references(() => displays.id, { onDelete: 'cascade' }),
    kind: text().notNull(),
    id: text().notNull(),
    v: integer().notNull(),
    /** JSON by the kind's schema; null when removed. */
    data: text(),
  },
  (table) => [primaryKey({ columns: [table.displayId, table.kind, table.id] })],
);

/** The log: every accepted batch, in order. */
export const batches = sqliteTable(
  'batches',
  {
    displayId: text()
      .notNull()
      .references(() => displays.id, { onDelete: 'cascade' }),
    seq: integer().notNull(),
    batchId: text().notNull(),
    userId: text().notNull(),
    author: text().notNull(),
    at: integer().notNull(),
    label: text().notNull(),
    changes: text().notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.displayId, table.seq] }),
    uniqueIndex('batches_id').on(table.displayId, table.batchId),
  ],
);
