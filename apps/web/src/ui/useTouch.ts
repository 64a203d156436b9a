import { useSyncExternalStore } from 'react';

/** Where a finger points, or the screen is small: the same question as in styles.css. */
const TOUCH = '(max-width: 1023px), (pointer: coarse)';

function subscribe(onChange: () => void): () => void {
  const query = window.matchMedia(TOUCH);
  query.addEventListener('change', onChange);
  return () => query.removeEventListener('change', onChange);
}

/** Whether what is pressed must be large, and rows of lists tall with it. */
export const useTouch = (): boolean =>
  useSyncExternalStore(subscribe, () => window.matchMedia(TOUCH).matches);
