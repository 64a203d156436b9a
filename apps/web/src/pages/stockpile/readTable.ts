import { wrap } from 'comlink';
import type { ListsWorker } from '../../workers/lists.worker.ts';

/** The rows of a file or a pasted text, read in a worker of its own. */
export async function readTable(from: File | string): Promise<string[][]> {
  const worker = new Worker(new URL('../../workers/lists.worker.ts', import.meta.url), { type: 'module' });
  try {
    const [name, bytes] =
      typeof from === 'string'
        ? ['what was pasted', new TextEncoder().encode(from).buffer]
        : [from.name, await from.arrayBuffer()];
    return await wrap<ListsWorker>(worker).rows(name, bytes);
  } finally {
    worker.terminate();
  }
}
