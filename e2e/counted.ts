import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';

// A demo that was seeded and counted once, for all files of journeys: each begins with a copy of it, and each person with
// what a browser keeps of an earlier visit. Made by prepare.ts before a whole run; a single file does without.

/** Names the folder of the seeded demo and of what was counted. */
export const COUNTED_ENV = 'QUARRY_COUNTED_DEMO';
const folder = process.env[COUNTED_ENV];
const KEPT = 'kept.json';

/** Folder of the seeded demo; null: each server seeds its own. */
export const seededDemo = folder === undefined ? null : join(folder, 'demo');
/** File of what a browser keeps. */
export const keptFile = (of: string) => join(of, KEPT);

/** Gives the browser of a page what it would have kept of an earlier visit to the demo. */
export async function remindOfCounts(page: Page): Promise<void> {
  if (folder !== undefined && existsSync(keptFile(folder)))
    await page.evaluate(
      writeKept,
      await page.evaluateHandle(openStore),
      readFileSync(keptFile(folder), 'utf8'),
    );
}

/** What the browser of a page keeps of what was computed, as text; empty when there is nothing yet. */
export const keptOf = async (page: Page): Promise<string> =>
  page.evaluate(readKept, await page.evaluateHandle(openStore));

/** Opens the store of what was computed, as `computedStore` of the pages does. Runs in the page. */
function openStore(): Promise<IDBDatabase> {
  return new Promise((resolve, reject) => {
    const request = indexedDB.open('open-quarry-counts');
    request.onupgradeneeded = () => request.result.createObjectStore('counts');
    request.onsuccess = () => resolve(request.result);
    request.onerror = () => reject(request.error ?? new Error('no store'));
  });
}

/** Reads the store as text, and closes it. Runs in the page. */
async function readKept(database: IDBDatabase): Promise<string> {
  const pack = (value: unknown): unknown => {
    if (ArrayBuffer.isView(value)) {
      const bytes = new Uint8Array(value.buffer, value.byteOffset, value.byteLength);
      const text = Array.from(bytes, (byte) => String.fromCharCode(byte)).join('');
      return { view: value.constructor.name, bytes: btoa(text) };
    }
    if (value instanceof Map) return { map: [...value].map(([key, one]) => [key, pack(one)]) };
    if (Array.isArray(value)) return value.map(pack);
    if (typeof value !== 'object' || value === null) return value;
    return { fields: Object.entries(value).map(([key, one]) => [key, pack(one)]) };
  };
  const store = database.transaction('counts').objectStore('counts');
  const all = <T>(request: IDBRequest<T>) =>
    new Promise<T>((resolve) => (request.onsuccess = () => resolve(request.result)));
  const [keys, values] = [await all(store.getAllKeys()), await all(store.getAll())];
  database.close();
  return keys.length === 0 ? '' : JSON.stringify(keys.map((key, i) => [key, pack(values[i])]));
}

/** Writes what `readKept` has read into the store of another page, and closes it. Runs in the page. */
async function writeKept(database: IDBDatabase, text: string): Promise<void> {
  const views: Record<string, new (buffer: ArrayBuffer) => ArrayBufferView> = {
    ...{ Float32Array, Float64Array, Int8Array, Int16Array, Int32Array },
    ...{ Uint8Array, Uint16Array, Uint32Array },
  };
  const unpack = (packed: unknown): unknown => {
    if (Array.isArray(packed)) return packed.map(unpack);
    if (typeof packed !== 'object' || packed === null) return packed;
    const { view, bytes, map, fields }: Record<string, unknown> = { ...packed };
    if (typeof view === 'string' && typeof bytes === 'string')
      return new views[view](Uint8Array.from(atob(bytes), (letter) => letter.charCodeAt(0)).buffer);
    const pairs = (of: unknown): [string, unknown][] =>
      Array.isArray(of) ? of.map(([key, one]) => [String(key), unpack(one)]) : [];
    return map === undefined ? Object.fromEntries(pairs(fields)) : new Map(pairs(map));
  };
  const transaction = database.transaction('counts', 'readwrite');
  const entries: [string, unknown][] = JSON.parse(text);
  for (const [key, value] of entries) transaction.objectStore('counts').put(unpack(value), key);
  await new Promise<void>((resolve, reject) => {
    transaction.oncomplete = () => resolve();
    transaction.onerror = () => reject(transaction.error ?? new Error('nothing was kept'));
  });
  database.close();
}
