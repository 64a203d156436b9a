import { defineConfig } from 'vite';

export default defineConfig({
  build: { ssr: 'src/main.ts', outDir: 'dist', target: 'node20', sourcemap: true },
  // Bundled: the core, and two libraries of which only a little is used, for a quick start.
  ssr: { noExternal: [/^@quarry\//, 'date-fns', 'drizzle-orm'] },
});
