import { formatPercent } from '@quarry/core/grid';
import type { Watcher } from '@quarry/core/visibility';

/** The heads of columns by who looks. */
export const WATCHER_HEADS: Readonly<Record<Watcher, string>> = {
  adult: 'Adult',
  seated: 'Wheelchair',
  child: 'Child',
  shoulders: 'Shoulders',
};

/** A share in percent, where it is known; “none come” where nobody of that height does. */
export const shareOrNone = (share: number | null): string =>
  share === null ? 'none come' : formatPercent(share);
