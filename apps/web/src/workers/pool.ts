import { wrap, type Remote } from 'comlink';
import type { BlockWorker } from './block.worker.ts';

/** No more workers than this count at once: each keeps its own compiled code and memory. */
const MAX_WORKERS = 3;

/** Workers that count blocks of ground side by side; started when they are first needed. */
class BlockPool {
  private readonly idle: Remote<BlockWorker>[] = [];
  private readonly waiting: ((worker: Remote<BlockWorker>) => void)[] = [];
  private started = 0;
  private readonly size = Math.max(1, Math.min(MAX_WORKERS, navigator.hardwareConcurrency));

  /**
   * Runs work on all blocks, as many at once as there are workers.
   * @param onDone receives each result as it comes
   * @returns the results in the order of the work
   */
  all<W, T>(
    work: readonly W[],
    one: (worker: Remote<BlockWorker>, of: W) => Promise<T>,
    onDone: (result: T, of: W) => void = () => undefined,
  ): Promise<T[]> {
    return Promise.all(
      work.map(async (of) => {
        const result = await this.run((worker) => one(worker, of));
        onDone(result, of);
        return result;
      }),
    );
  }

  /** Runs one piece of work on the next idle worker. */
  async run<T>(work: (worker: Remote<BlockWorker>) => Promise<T>): Promise<T> {
    const worker = await this.take();
    try {
      return await work(worker);
    } finally {
      const next = this.waiting.shift();
      if (next) next(worker);
      else this.idle.push(worker);
    }
  }

  private take(): Promise<Remote<BlockWorker>> {
    // The one used last is warm.
    const worker = this.idle.pop();
    if (worker) return Promise.resolve(worker);
    if (this.started < this.size) {
      this.started++;
      const fresh = new Worker(new URL('./block.worker.ts', import.meta.url), { type: 'module' });
      return Promise.resolve(wrap<BlockWorker>(fresh));
    }
    return new Promise((resolve) => this.waiting.push(resolve));
  }
}

export const pool = new BlockPool();
