import { present } from '@quarry/core/grid';
import { join } from 'node:path';
import { openSync } from 'fontkit';

// The typefaces of printed sheets, and which of them has which letter.

/** Files of each weight below the folder of packages, the preferred first: the app's own face, then wider ones. */
const FILES = {
  regular: [
    '@fontsource/archivo/files/archivo-latin-400-normal.woff',
    '@fontsource/archivo/files/archivo-latin-ext-400-normal.woff',
    // Greek, Cyrillic, Vietnamese and what else Latin letters can carry.
    '@embedpdf/fonts-latin/fonts/NotoSans-Regular.ttf',
    // Chinese, Japanese kana, many signs.
    '@embedpdf/fonts-sc/fonts/NotoSansHans-Regular.otf',
  ],
  bold: [
    '@fontsource/archivo/files/archivo-latin-600-normal.woff',
    '@fontsource/archivo/files/archivo-latin-ext-600-normal.woff',
    '@embedpdf/fonts-latin/fonts/NotoSans-SemiBold.ttf',
    '@embedpdf/fonts-sc/fonts/NotoSansHans-Bold.otf',
  ],
} as const;
export type FontWeight = keyof typeof FILES;

/** Stands for a letter that no face has. */
const BOX = '□';

/** Code points of each font file; read once a thread, when a letter asks for it. */
const coverage = new Map<string, ReadonlySet<number>>();

function coverageOf(file: string): ReadonlySet<number> {
  const known = coverage.get(file);
  if (known) return known;
  const font = openSync(file);
  if (!('characterSet' in font)) throw new Error(`${file} holds more than one face.`);
  const points: ReadonlySet<number> = new Set(font.characterSet);
  coverage.set(file, points);
  return points;
}

/** A part of a text that one font file can print. */
export interface FaceRun {
  text: string;
  /** Path of the font file. */
  file: string;
}

/**
 * Parts a text by the faces that have its letters; letters that belong together are composed first (NFC).
 * @param packages the folder in which the font packages lie
 * @param onMissing receives each letter that no face has; a box is printed for it
 */
export function faceRuns(
  text: string,
  weight: FontWeight,
  packages: string,
  onMissing: (letter: string) => void,
): FaceRun[] {
  const files = FILES[weight].map((file) => join(packages, file));
  const runs: FaceRun[] = [];
  const put = (letter: string, file: string) => {
    const last = runs.at(-1);
    if (last?.file === file) last.text += letter;
    else runs.push({ text: letter, file });
  };
  for (const letter of text.normalize('NFC')) {
    const point = letter.codePointAt(0) ?? 0;
    const last = runs.at(-1);
    // A space stays in the face that it stands in.
    const file =
      last && point === 0x20 ? last.file : files.find((candidate) => coverageOf(candidate).has(point));
    if (file !== undefined) put(letter, file);
    else {
      onMissing(letter);
      put(BOX, present(files.at(-1), 'a face'));
    }
  }
  return runs;
}
