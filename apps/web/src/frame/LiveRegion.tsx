import { useState } from 'react';
import { useDisplay } from '../data/useDisplay.tsx';

/** Says to those who do not see it what one's own act has done: placed, moved, undone, redone. */
export function LiveRegion() {
  const canUndo = useDisplay(({ canUndo }) => canUndo);
  const canRedo = useDisplay(({ canRedo }) => canRedo);
  const [last, setLast] = useState({ canUndo, canRedo, words: '' });
  if (last.canUndo !== canUndo || last.canRedo !== canRedo) {
    const isUndone = canRedo !== null && canRedo === last.canUndo;
    const isRedone = canUndo !== null && canUndo === last.canRedo;
    const words = isUndone ? `Undone: ${canRedo}` : isRedone ? `Redone: ${canUndo}` : (canUndo ?? '');
    setLast({ canUndo, canRedo, words });
  }
  return (
    <p className="sr-only" role="status" aria-label="Last act">
      {last.words}
    </p>
  );
}
