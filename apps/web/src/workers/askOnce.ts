import { proxy, wrap, type Remote } from 'comlink';

/** An answer that takes long: what is done of it, 0 to 1, or why there is none. */
export type Asked<T> =
  | { is: 'idle' }
  | { is: 'asking'; share: number }
  | { is: 'answered'; answer: T }
  | { is: 'failed'; error: string };

/**
 * Asks a worker of its own, which ends with the question.
 * @param worker has been started for it
 * @returns ends it
 */
export function askOnce<W, T>(
  worker: Worker,
  question: (worker: Remote<W>, onProgress: (share: number) => void) => Promise<T>,
  onChange: (state: Asked<T>) => void,
): () => void {
  let isOver = false;
  const finish = (state: Asked<T>) => {
    if (isOver) return;
    isOver = true;
    worker.terminate();
    onChange(state);
  };
  worker.addEventListener('error', ({ message }) =>
    finish({ is: 'failed', error: message || 'The computation could not be loaded.' }),
  );
  onChange({ is: 'asking', share: 0 });
  question(
    wrap<W>(worker),
    proxy((share: number) => {
      if (!isOver) onChange({ is: 'asking', share });
    }),
  ).then(
    (answer) => finish({ is: 'answered', answer }),
    (error: unknown) =>
      finish({ is: 'failed', error: error instanceof Error ? error.message : String(error) }),
  );
  return () => {
    isOver = true;
    worker.terminate();
  };
}
