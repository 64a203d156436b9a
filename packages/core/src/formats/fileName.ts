const MAX_LETTERS = 120;

/** The display file in an archive that has its photos too, and the name of a photo in it, by its digest. */
export const ARCHIVED_DISPLAY = 'display.quarry.json';
export const archivedPhoto = (digest: string): string => `photos/${digest}.jpg`;

/**
 * What a file is called: words in small letters of any script, joined by hyphens.
 * @param words what it is of, from the general to the particular; empty ones are left out
 * @example fileName(['Skarn Edge', 'seam', 'A3', 'C1'], 'pdf') // skarn-edge-seam-a3-c1.pdf
 */
export function fileName(words: readonly string[], ending: string): string {
  const stem = words
    .map((word) =>
      word
        .normalize('NFC')
        .toLowerCase()
        .replace(/[^\p{L}\p{M}\p{N}]+/gu, '-')
        .replace(/^-|-$/g, ''),
    )
    .filter((word) => word !== '')
    .join('-');
  return `${[...stem].slice(0, MAX_LETTERS).join('') || 'display'}.${ending}`;
}
