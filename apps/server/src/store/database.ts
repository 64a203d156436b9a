import { randomInt } from 'node:crypto';
import { accessSync, constants, mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import { DrizzleError, sql, type TablesRelationalConfig } from 'drizzle-orm';
import { BetterSQLiteSession } from 'drizzle-orm/better-sqlite3/session';
import { readMigrationFiles } from 'drizzle-orm/migrator';
import { BaseSQLiteDatabase, SQLiteSyncDialect } from 'drizzle-orm/sqlite-core';
import Database from 'libsql';
import { z } from 'zod';

export type Db = BaseSQLiteDatabase<
  'sync',
  Database.RunResult,
  Record<string, unknown>,
  TablesRelationalConfig
>;

/** An open database with the lock that keeps a second server off the same file. */
export interface Store {
  db: Db;
  /** For the few statements Drizzle has no word for. */
  client: Database.Database;
  /** Another one whenever a copy was put back: numbers of a log count within their epoch only. */
  epoch: number;
  close(): void;
}

/** Why a store did not open, as a sentence for the person at the terminal. */
export class StoreError extends Error {}

/**
 * Opens (and makes, and migrates) the database.
 * WAL with synchronous=FULL: once a transaction has committed it survives a power cut.
 * The lock is a second small database held in an exclusive transaction: the system drops it when the process ends,
 * however it ends, and readers such as the backup command still reach the main file.
 * @throws StoreError when another server holds the file or the file is damaged
 */
export function openStore(path: string, migrationsFolder: string): Store {
  makeFolder(dirname(path));
  const lock = takeLock(path);
  try {
    const client = new Database(path);
    client.exec(
      'PRAGMA journal_mode = WAL; PRAGMA synchronous = FULL; PRAGMA foreign_keys = ON; PRAGMA busy_timeout = 2000;',
    );
    const check: unknown = client.prepare('PRAGMA integrity_check').get();
    const verdict = typeof check === 'object' && check !== null ? Object.values(check)[0] : check;
    if (verdict !== 'ok')
      throw new StoreError(`The database ${path} is damaged: ${String(verdict)}. Restore a backup.`);
    const dialect = new SQLiteSyncDialect();
    const session = new BetterSQLiteSession<Record<string, unknown>, TablesRelationalConfig>(
      client,
      dialect,
      undefined,
      {},
    );
    const db: Db = new BaseSQLiteDatabase('sync', dialect, session, undefined);
    const migrations = readMigrationFiles({ migrationsFolder });
    refuseNewer(client, path, Math.max(...migrations.map(({ folderMillis }) => folderMillis)));
    dialect.migrate(migrations, session, { migrationsFolder });
    return {
      db,
      client,
      epoch: epochOf(client),
      close() {
        client.close();
        lock.close();
      },
    };
  } catch (error) {
    lock.close();
    if (error instanceof StoreError) throw error;
    throw new StoreError(
      `The database ${path} does not open: ${error instanceof Error ? error.message : String(error)}.`,
    );
  }
}

const epochSchema = z.object({ user_version: z.int() });

/** The epoch of a database; a number of its own is kept in the header of the file, which belongs to the program. */
function epochOf(client: Database.Database): number {
  return epochSchema.parse(client.prepare('PRAGMA user_version').get()).user_version;
}

/** Gives a database an epoch of its own: clients of another copy of it must reload. */
export function beginEpoch(client: Database.Database): void {
  client.exec(`PRAGMA user_version = ${randomInt(1, 2 ** 31 - 1)}`);
}

/** A database that a newer program has migrated is not touched: what it added would be lost. @throws StoreError */
function refuseNewer(client: Database.Database, path: string, newest: number): void {
  const has = client.prepare("SELECT 1 FROM sqlite_master WHERE name = '__drizzle_migrations'").get();
  const row: unknown = has && client.prepare('SELECT max(created_at) AS at FROM __drizzle_migrations').get();
  const at = typeof row === 'object' && row !== null && 'at' in row ? Number(row.at) : 0;
  if (at > newest)
    throw new StoreError(
      `The database ${path} was written by a newer version of Open Quarry (its last step is of ${new Date(at).toISOString().slice(0, 10)}, this program knows steps up to ${new Date(newest).toISOString().slice(0, 10)}). Update the program; nothing was changed.`,
    );
}

/**
 * Runs work in one transaction: all of it, or nothing. Where the commit itself fails (a full disk) SQLite may have
 * rolled back already, or not: what went wrong first is what is thrown.
 */
export function transact<T>(db: Db, work: (tx: Db) => T): T {
  db.run(sql`BEGIN IMMEDIATE`);
  try {
    const result = work(db);
    db.run(sql`COMMIT`);
    return result;
  } catch (error) {
    try {
      db.run(sql`ROLLBACK`);
    } catch {
      // There is no transaction any longer.
    }
    throw error instanceof DrizzleError && error.cause instanceof Error ? error.cause : error;
  }
}

/** @throws StoreError where nothing can be written */
function makeFolder(folder: string): void {
  try {
    mkdirSync(folder, { recursive: true });
    accessSync(folder, constants.W_OK);
  } catch (error) {
    throw new StoreError(
      `The folder ${folder} cannot be written: ${error instanceof Error ? error.message : String(error)}. Choose another with --data.`,
    );
  }
}

/** Holds the lock of a database file until it is closed. @throws StoreError when another process holds it */
export function takeLock(path: string): Database.Database {
  const lock = new Database(`${path}.lock`);
  try {
    lock.exec('PRAGMA locking_mode = EXCLUSIVE; BEGIN EXCLUSIVE; COMMIT;');
    lock.exec('BEGIN EXCLUSIVE;');
    return lock;
  } catch {
    lock.close();
    throw new StoreError(
      `Another server is using ${path}. Stop it first, or start this one with another --data folder.`,
    );
  }
}
