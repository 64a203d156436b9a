import { defineConfig } from 'vite';

export default defineConfig({
  build: {
    ssr: true,
    outDir: 'dist',
    target: 'node20',
    sourcemap: true,
    rollupOptions: { input: { main: 'src/main.ts', 'sheets.worker': 'src/sheets/sheets.worker.ts' } },
  },
  // Bundled: the core, and two libraries of which only a little is used, for a quick start.
  ssr: { noExternal: [/^@quarry\//, 'date-fns', 'drizzle-orm'] },
});
