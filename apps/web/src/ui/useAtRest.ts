import { useEffect } from 'react';

/** How long after it is shown a page has come to rest, ms. */
const REST_MS = 2000;

/** Without the network it is loaded when it is asked for. */
const laterThen = () => undefined;

/**
 * Loads parts of a page once it has come to rest: they are there at once when they are asked for, and when the network is
 * gone.
 * @param loads imports of files, the same at each call
 */
export function useAtRest(loads: readonly (() => Promise<unknown>)[]): void {
  useEffect(() => {
    const timer = setTimeout(() => {
      for (const load of loads) load().catch(laterThen);
    }, REST_MS);
    return () => clearTimeout(timer);
  }, [loads]);
}
