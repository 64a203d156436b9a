import { existsSync, mkdirSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import Database from 'libsql';
import { StoreError, beginEpoch, openStore, takeLock } from './database.ts';

// Copies of a database: made while a server writes it, brought back when none does.

/** Copies a database to a new file while a server may be writing it (`VACUUM INTO`). @throws StoreError */
export function backupStore(path: string, target: string): void {
  if (!existsSync(path)) throw new StoreError(`There is no database at ${path}.`);
  if (existsSync(target)) throw new StoreError(`${target} exists already; a backup never overwrites.`);
  mkdirSync(dirname(target), { recursive: true });
  const client = new Database(path);
  try {
    client.prepare('VACUUM INTO ?').run(target);
  } finally {
    client.close();
  }
}

/**
 * Puts a copy in the place of a database that no server is using. What stood there is kept beside it, under a name
 * with the moment of the change.
 * @returns where the database that stood there is now; null when there was none
 * @throws StoreError when the copy is damaged or newer than this program, or a server holds the database
 */
export function restoreStore(copy: string, path: string, migrations: string, now: Date): string | null {
  if (!existsSync(copy)) throw new StoreError(`There is no copy at ${copy}.`);
  mkdirSync(dirname(path), { recursive: true });
  const lock = takeLock(path);
  try {
    const fresh = `${path}.restoring`;
    removeAll(fresh);
    try {
      // Read as a database, not as a file: what it still has in its log comes along.
      backupStore(copy, fresh);
      // Opening checks it whole, refuses a newer one and brings an older one up to this program.
      const store = openStore(fresh, migrations);
      beginEpoch(store.client);
      // Only the file itself is moved: what is in its log comes into it first.
      store.client.exec('PRAGMA wal_checkpoint(TRUNCATE)');
      store.close();
    } catch (error) {
      removeAll(fresh);
      if (error instanceof StoreError) throw error;
      throw new StoreError(
        `${copy} cannot be read as a database: ${error instanceof Error ? error.message : String(error)}.`,
      );
    }
    const aside = existsSync(path) ? `${path}.before-${stamp(now)}` : null;
    if (aside) for (const end of ENDS) if (existsSync(path + end)) renameSync(path + end, aside + end);
    renameSync(fresh, path);
    removeAll(fresh);
    return aside;
  } finally {
    lock.close();
  }
}

/** A database in WAL mode is up to three files. */
const ENDS = ['', '-wal', '-shm'] as const;
const removeAll = (path: string) => {
  for (const end of [...ENDS, '.lock', '.lock-journal']) rmSync(path + end, { force: true });
};

const stamp = (now: Date) => now.toISOString().slice(0, 19).replace(/[-:]/g, '').replace('T', '-');
const COPY = /^quarry-\d{8}-\d{6}\.sqlite$/;

/** Makes a copy in a folder and lets the oldest go. @param keep how many copies stay, 1 or more @returns the copy */
export function keepCopies(path: string, folder: string, keep: number, now: Date): string {
  const target = join(folder, `quarry-${stamp(now)}.sqlite`);
  // A second copy in the same second would be the same copy.
  if (!existsSync(target)) backupStore(path, target);
  const copies = readdirSync(folder)
    .filter((name) => COPY.test(name))
    .sort();
  for (const name of copies.slice(0, Math.max(0, copies.length - keep))) rmSync(join(folder, name));
  return target;
}
