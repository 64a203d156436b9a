import { proxy, wrap, type Remote } from 'comlink';

/** An answer that takes long: what is done of it, 0 to 1, or why there is none. */
export type Asked<T> =
  | { is: 'idle' }
  | { is: 'asking'; share: number }
  | { is: 'answered'; answer: T }
  | { is: 'failed'; error: string };

type Question<W, T> = (worker: Remote<W>, onProgress: (share: number) => void) => Promise<T>;

/**
 * Asks a worker of its own, which ends with the question.
 * @param worker has been started for it
 * @returns ends it
 */
export const askOnce = <W, T>(
  worker: Worker,
  question: Question<W, T>,
  onChange: (state: Asked<T>) => void,
): (() => void) => ask({ worker, remote: wrap<W>(worker) }, question, onChange, () => worker.terminate());

/** A worker that remembers what it was asked, while none of its questions is broken off. */
export class KeptWorker<W> {
  #idle: Wrapped<W> | null = null;

  constructor(readonly start: () => Worker) {}

  /** Asks it, or one that is started for it where it is busy or was ended. @returns ends the worker, if it still computes */
  ask<T>(question: Question<W, T>, onChange: (state: Asked<T>) => void): () => void {
    const asked = this.#idle ?? this.#started();
    this.#idle = null;
    return ask<W, T>(asked, question, onChange, (isAnswered) => {
      if (isAnswered && this.#idle === null) this.#idle = asked;
      else asked.worker.terminate();
    });
  }

  /** Ends it. */
  end(): void {
    this.#idle?.worker.terminate();
    this.#idle = null;
  }

  #started(): Wrapped<W> {
    const worker = this.start();
    return { worker, remote: wrap<W>(worker) };
  }
}

/** A worker with the one proxy of it: when that is collected as garbage, the worker hears nothing any more. */
interface Wrapped<W> {
  worker: Worker;
  remote: Remote<W>;
}

function ask<W, T>(
  { worker, remote }: Wrapped<W>,
  question: Question<W, T>,
  onChange: (state: Asked<T>) => void,
  onEnd: (isAnswered: boolean) => void,
): () => void {
  let isOver = false;
  const failed = ({ message }: ErrorEvent) =>
    finish({ is: 'failed', error: message || 'The computation could not be loaded.' });
  const finish = (state: Asked<T>) => {
    if (isOver) return;
    isOver = true;
    worker.removeEventListener('error', failed);
    onEnd(state.is === 'answered');
    onChange(state);
  };
  worker.addEventListener('error', failed);
  onChange({ is: 'asking', share: 0 });
  question(
    remote,
    proxy((share: number) => {
      if (!isOver) onChange({ is: 'asking', share });
    }),
  ).then(
    (answer) => finish({ is: 'answered', answer }),
    (error: unknown) =>
      finish({ is: 'failed', error: error instanceof Error ? error.message : String(error) }),
  );
  return () => {
    if (isOver) return;
    isOver = true;
    worker.removeEventListener('error', failed);
    onEnd(false);
  };
}
