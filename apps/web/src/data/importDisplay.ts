import { unzipSync } from 'fflate';
import { ARCHIVED_DISPLAY, archivedPhoto } from '@quarry/core/formats';
import { MAX_CHANGES, MAX_FILE_BYTES, type Change } from '@quarry/core/document';
import { ApiProblem, api } from './api.ts';
import { documentApi } from './documentApi.ts';
import { crewApi } from './crewApi.ts';

// A display file, or an archive of one with its photos, made into a new display.

/** The largest archive, and what may be in it, bytes: 400 photos and the display. */
const MAX_ARCHIVE_BYTES = 220_000_000;
/** The server takes so many photos a minute of one person; then it is asked again, ms. */
const AGAIN_MS = 5000;
const MAX_TRIES = 24;

/** @param tell receives progress (photos sent, photos in all) @returns the new display's id and the photos that were not in the archive */
export async function importDisplay(
  file: File,
  tell: (done: number, of: number) => void,
): Promise<{ id: string; without: number }> {
  const isArchive = /\.zip$/i.test(file.name);
  const most = isArchive ? MAX_ARCHIVE_BYTES : MAX_FILE_BYTES;
  if (file.size > most)
    throw new Error(
      `${file.name} has ${file.size.toLocaleString('en')} bytes; the most is ${most.toLocaleString('en')}.`,
    );
  if (!isArchive) return { id: (await api.importDisplay(await file.text())).id, without: 0 };
  const files = unpacked(file.name, new Uint8Array(await file.arrayBuffer()));
  const display = files[ARCHIVED_DISPLAY];
  if (!display) throw new Error(`${file.name} is no archive of a display: ${ARCHIVED_DISPLAY} is not in it.`);
  const { id } = await api.importDisplay(new TextDecoder().decode(display));
  const without = await bringPhotos(id, files, tell);
  return { id, without };
}

function unpacked(name: string, bytes: Uint8Array): Record<string, Uint8Array> {
  let total = 0;
  const tooMuch = `${name} unpacks to more than ${MAX_ARCHIVE_BYTES.toLocaleString('en')} bytes.`;
  try {
    return unzipSync(bytes, {
      filter: ({ originalSize }) => {
        total += originalSize;
        if (total > MAX_ARCHIVE_BYTES) throw new Error(tooMuch);
        return true;
      },
    });
  } catch (error) {
    if (error instanceof Error && error.message === tooMuch) throw error;
    throw new Error(`${name} does not open as a ZIP archive.`, { cause: error });
  }
}

/** Sends the photos of an archive to the new display, which re-encodes them: each gets a new digest. */
async function bringPhotos(
  id: string,
  files: Record<string, Uint8Array>,
  tell: (done: number, of: number) => void,
): Promise<number> {
  const { rows } = await documentApi.display(id);
  const photos = rows.flatMap((row) => (row.kind === 'photo' ? [row] : []));
  const changes: Change[] = [];
  let without = 0;
  for (const [i, photo] of photos.entries()) {
    tell(i, photos.length);
    const digest = String(photo.data?.file);
    const bytes = files[archivedPhoto(digest)];
    const kept = bytes && (await keep(id, new Blob([bytes.slice()], { type: 'image/jpeg' })));
    if (!kept) without++;
    else if (kept.file !== digest)
      changes.push({ ...{ op: 'patch', kind: 'photo', id: photo.id, v: photo.v }, set: kept });
  }
  for (let at = 0; at < changes.length; at += MAX_CHANGES)
    await documentApi.commit(id, {
      ...{ id: crypto.randomUUID(), label: 'brought the photos of the file' },
      changes: changes.slice(at, at + MAX_CHANGES),
    });
  return without;
}

/** Keeps a picture; asks again where the server takes no more for now. @returns null for what it does not take */
async function keep(
  id: string,
  picture: Blob,
  tries = MAX_TRIES,
): Promise<Awaited<ReturnType<typeof crewApi.keepPhoto>> | null> {
  try {
    return await crewApi.keepPhoto(id, picture);
  } catch (error) {
    if (!(error instanceof ApiProblem) || tries === 0) throw error;
    if (error.status !== 429) return null;
    await new Promise((resolve) => setTimeout(resolve, AGAIN_MS));
    return keep(id, picture, tries - 1);
  }
}
