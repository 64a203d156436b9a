/** Builds the worker that draws sheets once for all tests: run from its source, each worker would translate the core again. */
import { fileURLToPath } from 'node:url';
import { build } from 'vite';

const root = fileURLToPath(new URL('..', import.meta.url));

export default async function buildWorker() {
  await build({
    root,
    logLevel: 'error',
    build: {
      outDir: 'node_modules/.worker',
      emptyOutDir: true,
      rollupOptions: { input: { 'sheets.worker': 'src/sheets/sheets.worker.ts' } },
    },
  });
}
