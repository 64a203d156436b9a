import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { escapeMarks } from '@quarry/core/formats';

// The page around what visitors read: `publicPage.html`, built with the other pages, for their letters and colours.

/** Where the frame takes its title and its text. */
const TITLE = '<!-- title -->';
const TEXT = '<!-- page -->';

/** The frame of the built pages; a bare one where they are not built. @param web folder of the built pages */
export function readFrame(web: string | null): string {
  const path = join(web ?? '', 'publicPage.html');
  return web !== null && existsSync(path)
    ? readFileSync(path, 'utf8')
    : `<!doctype html><html lang="en"><head><meta charset="utf-8">${TITLE}</head><body>${TEXT}</body></html>`;
}

/** A whole page. @param title in plain letters @param text HTML */
export const framed = (frame: string, title: string, text: string): string =>
  frame.replace(TITLE, () => `<title>${escapeMarks(title)}</title>`).replace(TEXT, () => text);

/** A page for an address that shows nothing. @param why a sentence in plain letters */
export const nothingHere = (frame: string, why: string): string =>
  framed(
    frame,
    'Nothing to see here',
    `<main class="p-8"><h1 class="text-lg font-bold">There is nothing to see here</h1><p role="alert">${escapeMarks(why)}</p></main>`,
  );
