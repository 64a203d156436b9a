import { once } from 'node:events';
import { Zip, ZipPassThrough } from 'fflate';
import type { Response } from 'express';

/** A file of an archive; its parts are read when their turn comes, so that no more than one lies in memory. */
export interface ArchiveFile {
  name: string;
  parts: () => Iterable<Uint8Array>;
}

/** A text as the parts of a file. */
export const textParts = (text: string) => (): Uint8Array[] => [new TextEncoder().encode(text)];

/**
 * Writes files into a ZIP archive as it is sent, at the pace at which it is taken: others are answered between parts.
 * Photos are packed already, so that nothing is packed again.
 */
export async function sendArchive(response: Response, files: Iterable<ArchiveFile>): Promise<void> {
  const zip = new Zip();
  let failed: Error | null = null;
  zip.ondata = (error, chunk) => {
    if (error) failed = error;
    else if (!response.destroyed) response.write(chunk);
  };
  for (const { name, parts } of files) {
    const entry = new ZipPassThrough(name);
    zip.add(entry);
    for (const part of parts()) {
      if (response.destroyed) return;
      entry.push(part, false);
      if (failed) throw failed;
      if (response.writableNeedDrain) await Promise.race([once(response, 'drain'), once(response, 'close')]);
      else await new Promise((resolve) => setImmediate(resolve));
    }
    entry.push(new Uint8Array(), true);
  }
  zip.end();
  response.end();
}
