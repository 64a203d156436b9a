import type { Watcher } from '@quarry/core/visibility';

/** The heads of columns by who looks. */
export const WATCHER_HEADS: Readonly<Record<Watcher, string>> = {
  adult: 'Adult',
  seated: 'Wheelchair',
  child: 'Child',
  shoulders: 'Shoulders',
};

/** A share in percent; small ones are not told as none, nor almost all as all. */
export function percentOf(share: number): string {
  const percent = 100 * share;
  if (percent > 0 && percent < 0.5) return '< 1 %';
  if (percent < 100 && percent >= 99.5) return '> 99 %';
  return `${Math.round(percent)} %`;
}

/** The same, where it is known; “none come” where nobody of that height does. */
export const shareOrNone = (share: number | null): string =>
  share === null ? 'none come' : percentOf(share);
