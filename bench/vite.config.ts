import { join } from 'node:path';

// Measured is what the program is built to, not what a test runner makes of it.
const here = import.meta.dirname;

export default {
  root: here,
  // Of all that is built in: the folders of benchmarks and of journeys lie side by side.
  define: { __dirname: JSON.stringify(here) },
  build: {
    ssr: 'main.ts',
    outDir: join(here, '..', 'node_modules', '.cache', 'bench'),
    target: 'node20',
    emptyOutDir: true,
    // An ES module, wherever it lies.
    rolldownOptions: { output: { entryFileNames: '[name].mjs', chunkFileNames: '[name].mjs' } },
  },
  ssr: { noExternal: [/^@quarry\//] },
};
