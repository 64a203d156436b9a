import { wrap, type Remote } from 'comlink';
import type { BlockWorker } from './block.worker.ts';

/** No more workers than this count at once: each keeps its own compiled code and memory. */
const MAX_WORKERS = 3;

interface PooledWorker {
  remote: Remote<BlockWorker>;
  /** Rejects when the worker breaks down. */
  broken: Promise<never>;
}

/** Workers that count blocks of ground side by side; started when they are first needed. */
class BlockPool {
  private readonly idle: PooledWorker[] = [];
  private readonly waiting: ((worker: PooledWorker) => void)[] = [];
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

  /** Runs one piece of work on the next idle worker. @throws when the worker cannot be loaded or breaks down */
  async run<T>(work: (worker: Remote<BlockWorker>) => Promise<T>): Promise<T> {
    const worker = await this.take();
    let isBroken = false;
    try {
      return await Promise.race([
        work(worker.remote),
        worker.broken.catch((error: unknown) => {
          isBroken = true;
          throw error;
        }),
      ]);
    } finally {
      // Another one takes the place of a broken one.
      const free = isBroken ? this.start() : worker;
      const next = this.waiting.shift();
      if (next) next(free);
      else this.idle.push(free);
    }
  }

  private take(): Promise<PooledWorker> {
    // The one used last is warm.
    const worker = this.idle.pop();
    if (worker) return Promise.resolve(worker);
    if (this.started < this.size) {
      this.started++;
      return Promise.resolve(this.start());
    }
    return new Promise((resolve) => this.waiting.push(resolve));
  }

  private start(): PooledWorker {
    const worker = new Worker(new URL('./block.worker.ts', import.meta.url), { type: 'module' });
    const broken = new Promise<never>((_, reject) => {
      worker.addEventListener('error', ({ message }) =>
        reject(new Error(message || 'the counting of ground could not be loaded')),
      );
    });
    // Nobody waits for one that idles.
    broken.catch(() => undefined);
    return { remote: wrap<BlockWorker>(worker), broken };
  }
}

export const pool = new BlockPool();
