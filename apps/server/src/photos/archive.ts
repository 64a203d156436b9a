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
 * Photos are packed already, so that nothing is packed again. Where it fails the line is broken off: an archive that
 * ends is whole.
 */
export async function sendArchive(response: Response, files: Iterable<ArchiveFile>): Promise<void> {
  try {
    const zip = new Zip((error, chunk) => {
      if (error) throw error;
      if (!response.destroyed) response.write(chunk);
    });
    for (const { name, parts } of files) {
      const entry = new ZipPassThrough(name);
      zip.add(entry);
      for (const part of parts()) {
        if (response.destroyed) return;
        entry.push(part, false);
        await taken(response);
      }
      entry.push(new Uint8Array(), true);
    }
    zip.end();
    response.end();
  } catch (error) {
    response.destroy();
    throw error;
  }
}

/** Waits until written data is flushed or the client is gone, and yields to other requests. */
const taken = (response: Response): Promise<void> =>
  new Promise((resolve) => {
    if (!response.writableNeedDrain) {
      setImmediate(resolve);
      return;
    }
    const go = () => {
      response.off('drain', go).off('close', go);
      resolve();
    };
    response.on('drain', go).on('close', go);
  });
