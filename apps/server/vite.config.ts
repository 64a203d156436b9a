import { defineConfig } from 'vite';

export default defineConfig({
  build: {
    ssr: true,
    outDir: 'dist',
    target: 'node20',
    sourcemap: true,
    rollupOptions: { input: { main: 'src/main.ts', 'sheets.worker': 'src/sheets/sheets.worker.ts' } },
  },
  // Bundled: the core, two libraries of which only a little is used, for a quick start, and what is another in production.
  ssr: { noExternal: [/^@quarry\//, 'date-fns', 'drizzle-orm', 'react', 'react-dom'] },
});
