import { format, parseISO } from 'date-fns';

/** A phrase with its first letter large. */
export const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

/** The bases of a module: `2 × 48×48, 1 × 32×16`. */
export function basesInWords(bases: readonly { w: number; d: number }[]): string {
  const counts = new Map<string, number>();
  for (const { w, d } of bases) {
    const size = `${Math.max(w, d)}×${Math.min(w, d)}`;
    counts.set(size, (counts.get(size) ?? 0) + 1);
  }
  return [...counts].map(([size, count]) => `${count} × ${size}`).join(', ');
}

/** A day as people write it: “21 Nov 2026”. */
export const dayWord = (iso: string): string => format(parseISO(iso), 'd MMM yyyy');

/** A moment as people write it, in the reader's own time: “21 Nov, 19:40”. */
export const momentWord = (at: string | number): string =>
  format(typeof at === 'number' ? at : parseISO(at), 'd MMM, HH:mm');
