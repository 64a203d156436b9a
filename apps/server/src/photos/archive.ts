import { once } from 'node:events';
import { Zip, ZipPassThrough } from 'fflate';
import type { Response } from 'express';

/** A file of an archive; read when its turn comes, so that no more than one lies in memory. */
export interface ArchiveFile {
  name: string;
  read: () => Uint8Array;
}

/**
 * Writes files into a ZIP archive as it is sent, at the pace at which it is taken: others are answered between files.
 * Photos are packed already, so that nothing is packed again.
 */
export async function sendArchive(response: Response, files: Iterable<ArchiveFile>): Promise<void> {
  const zip = new Zip();
  let failed: Error | null = null;
  zip.ondata = (error, chunk) => {
    if (error) failed = error;
    else if (!response.destroyed) response.write(chunk);
  };
  for (const { name, read } of files) {
    if (response.destroyed) return;
    const entry = new ZipPassThrough(name);
    zip.add(entry);
    entry.push(read(), true);
    if (failed) throw failed;
    if (response.writableNeedDrain) await Promise.race([once(response, 'drain'), once(response, 'close')]);
    else await new Promise((resolve) => setImmediate(resolve));
  }
  zip.end();
  response.end();
}
