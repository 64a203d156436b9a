import { blob, index, integer, primaryKey, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import { ROLES } from '@quarry/core/document';
import { LETTER_TOPICS } from '@quarry/protocol/accounts';

/** Times are milliseconds since the epoch, UTC. */
export const users = sqliteTable('users', {
  id: text().primaryKey(),
  login: text().notNull().unique(),
  name: text().notNull(),
  passwordHash: text().notNull(),
  createdAt: integer().notNull(),
  /** Keeps the instance: made the first account, and may let anybody in again who forgot a password. */
  keeper: integer({ mode: 'boolean' }).notNull().default(false),
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
    /** What the browser called itself when it signed in, shortened. */
    agent: text().notNull().default(''),
    seenAt: integer().notNull().default(0),
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
    role: text({ enum: ROLES }).notNull(),
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
    /** JSON: authorship of removed messages, restored when they come back. */
    stamp: text(),
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
    /** Descriptions of the batch as JSON, made when it was committed. */
    descriptions: text('told').notNull().default('[]'),
    /** SHA-256 of the changes as they were sent; null of batches older than this column. */
    sent: text(),
  },
  (table) => [
    primaryKey({ columns: [table.displayId, table.seq] }),
    uniqueIndex('batches_id').on(table.displayId, table.batchId),
  ],
);

/** Whole scenes along the log, so that any moment is a short replay away; the first is where the log begins. */
export const checkpoints = sqliteTable(
  'checkpoints',
  {
    displayId: text()
      .notNull()
      .references(() => displays.id, { onDelete: 'cascade' }),
    /** The scene after this number of the log. */
    seq: integer().notNull(),
    at: integer().notNull(),
    /** JSON: the scene's rows, removed ones included. */
    rows: text().notNull(),
  },
  (table) => [primaryKey({ columns: [table.displayId, table.seq] })],
);

/** Single-use invitation links. */
export const invitations = sqliteTable(
  'invitations',
  {
    id: text().primaryKey(),
    /** SHA-256 of the link's token. */
    tokenHash: text().notNull().unique(),
    displayId: text()
      .notNull()
      .references(() => displays.id, { onDelete: 'cascade' }),
    role: text({ enum: ['planner', 'builder', 'viewer'] }).notNull(),
    /** The person entity of the new member; null: a new one. */
    personId: text(),
    madeBy: text().notNull(),
    note: text().notNull().default(''),
    createdAt: integer().notNull(),
    expiresAt: integer().notNull(),
    usedAt: integer(),
    usedBy: text(),
    revokedAt: integer(),
  },
  (table) => [index('invitations_display').on(table.displayId)],
);

/** Single-use password-reset codes. */
export const resets = sqliteTable('resets', {
  codeHash: text().primaryKey(),
  userId: text()
    .notNull()
    .references(() => users.id, { onDelete: 'cascade' }),
  madeBy: text().notNull(),
  createdAt: integer().notNull(),
  expiresAt: integer().notNull(),
});

/** Mail that this instance would send: it sends none, it keeps it here to be read. */
export const letters = sqliteTable(
  'letters',
  {
    id: integer().primaryKey({ autoIncrement: true }),
    userId: text()
      .notNull()
      .references(() => users.id, { onDelete: 'cascade' }),
    displayId: text().references(() => displays.id, { onDelete: 'cascade' }),
    at: integer().notNull(),
    about: text({ enum: LETTER_TOPICS }).notNull(),
    subject: text().notNull(),
    body: text().notNull(),
    /** A page of this instance it leads to. */
    link: text().notNull().default(''),
    readAt: integer(),
  },
  (table) => [index('letters_user').on(table.userId, table.id)],
);

/** Read markers: of a thread its stamp, of the log its sequence number. */
export const marks = sqliteTable(
  'marks',
  {
    displayId: text()
      .notNull()
      .references(() => displays.id, { onDelete: 'cascade' }),
    userId: text()
      .notNull()
      .references(() => users.id, { onDelete: 'cascade' }),
    /** `log`, or a thread's id. */
    what: text().notNull(),
    upTo: integer().notNull(),
  },
  (table) => [primaryKey({ columns: [table.displayId, table.userId, table.what] })],
);

/** The address under which the public may look at a display. */
export const shares = sqliteTable('shares', {
  displayId: text()
    .primaryKey()
    .references(() => displays.id, { onDelete: 'cascade' }),
  /** Not hashed: the crew must be able to read the address again, and it opens nothing but what is public. */
  token: text().notNull().unique(),
  names: integer({ mode: 'boolean' }).notNull().default(false),
  createdAt: integer().notNull(),
});

/** Re-encoded photos, each once, by the digest of the stored file. */
export const photoFiles = sqliteTable(
  'photo_files',
  {
    displayId: text()
      .notNull()
      .references(() => displays.id, { onDelete: 'cascade' }),
    /** SHA-256 of `bytes`. */
    digest: text().notNull(),
    userId: text().notNull(),
    at: integer().notNull(),
    width: integer().notNull(),
    height: integer().notNull(),
    /** JPEG: as it is looked at, and small for a strip. */
    bytes: blob({ mode: 'buffer' }).notNull(),
    small: blob({ mode: 'buffer' }).notNull(),
  },
  (table) => [primaryKey({ columns: [table.displayId, table.digest] })],
);
