import { createHash } from 'node:crypto';
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

/** A digest of the computing code: what browsers keep of its results holds for this build only. */
function coreDigest(): string {
  const root = fileURLToPath(new URL('../../packages/core/src', import.meta.url));
  const hash = createHash('sha256');
  for (const file of readdirSync(root, { recursive: true, encoding: 'utf8' }).sort())
    if (file.endsWith('.ts') && !file.endsWith('.test.ts')) hash.update(readFileSync(join(root, file)));
  return hash.digest('hex').slice(0, 16);
}

export default defineConfig({
  define: { CORE_DIGEST: JSON.stringify(coreDigest()) },
  plugins: [
    react(),
    tailwindcss(),
    // Without the server the pages still open. The page itself and what a phone at the table needs are kept after the
    // first visit, larger parts when they have been used. Nothing of the interface is kept here: displays and waiting
    // changes have their own place.
    VitePWA({
      // Asked for when it is installed.
      includeManifestIcons: false,
      strategies: 'generateSW',
      injectRegister: null,
      manifest: {
        name: 'Open Quarry',
        short_name: 'Quarry',
        description: 'A planner for large brick displays',
        start_url: '/',
        display: 'standalone',
        background_color: '#f3efe6',
        theme_color: '#22292e',
        icons: [192, 512].map((side) => ({
          src: `/icon-${side}.png`,
          sizes: `${side}x${side}`,
          type: 'image/png',
          purpose: 'any' as const,
        })),
      },
      workbox: {
        globPatterns: ['index.html', 'theme.js', '**/*.{js,css,woff2,svg}'],
        globIgnores: [
          'sw.js',
          ...[
            // Large, and used by few: kept when they have been used.
            ...[
              'LayersPanel',
              'BuyPanel',
              'MatrixPanel',
              'ColoursPanel',
              'SwapsPanel',
              'MethodsPanel',
              'apexcharts',
              'useChart',
              'CostChart',
              'source.worker',
              'cut.worker',
              'fix.worker',
              'stability.worker',
              'mosaic.worker',
              'sight.worker',
              'transport.worker',
              'versions.worker',
              'CastSheet',
              'VersionsSheet',
              'TransportPage',
              'SightPage',
              'BriefPage',
              'SurveyPage',
              'WalkSheet',
              'three',
              'Orbit',
              'paint',
              'ElevationDialog',
              'ElevationDrawing',
              'SkylineDialog',
              'FloorsDialog',
              'BenchPage',
              // Asked for seldom, and small.
              ...[
                'TakeOut',
                'GroupSheet',
                'ResizeDialog',
                'DataSheet',
                'ScaleSheet',
                'SpaceSheet',
                'icon-512',
              ],
            ],
            // Its solvers are not kept either.
            'CutPage',
            ...['GuidePage', 'lists.worker', 'BringIn', 'ImportSheet', 'OutlookPanel'],
            // Readers and writers of tables and of compressed files.
            ...['universal', 'browser'],
            // Nothing without the server.
            ...['publicPage', 'AccountPage', 'LettersPage', 'JoinPage', 'ResetPage', 'importDisplay'],
            ...['ReportPanel', 'HistoryPanel'],
          ].map((name) => `**/${name}*`),
          // Letters of few names: kept when a name has them.
          '**/*vietnamese*',
          '**/*latin-ext*',
        ],
        dontCacheBustURLsMatching: /\/assets\//,
        navigateFallback: null,
        skipWaiting: true,
        clientsClaim: true,
        cleanupOutdatedCaches: true,
        runtimeCaching: [
          {
            // Every address of ours is the same page: the server's where it answers in time, else the one that is
            // kept. Written into the worker as it stands: it can name nothing but what a browser has.
            urlPattern: ({ request, url }) =>
              request.mode === 'navigate' && !url.pathname.startsWith('/api/'),
            handler: async ({ request }) => {
              const PATIENCE_MS = 3000;
              const fresh = fetch(request).then(
                (response) => (response.status < 500 ? response : null),
                () => null,
              );
              const patience = new Promise<null>((resolve) => setTimeout(() => resolve(null), PATIENCE_MS));
              return (
                (await Promise.race([fresh, patience])) ??
                (await caches.match('/index.html', { ignoreSearch: true })) ??
                (await fresh) ??
                Response.error()
              );
            },
          },
          {
            urlPattern: ({ url, sameOrigin }) => sameOrigin && url.pathname.startsWith('/assets/'),
            handler: 'CacheFirst',
            options: { cacheName: 'used', expiration: { maxEntries: 60 } },
          },
        ],
      },
    }),
  ],
  worker: { format: 'es' },
  build: {
    target: 'es2022',
    // The server reads in it which files a page needs.
    manifest: true,
    chunkSizeWarningLimit: 1000,
    rolldownOptions: {
      input: ['index.html', 'publicPage.html'],
      // Three dimensions by a name of their own, so that they can be left out of what is kept at the first visit.
      output: {
        codeSplitting: {
          includeDependenciesRecursively: false,
          groups: [{ name: 'three', test: /node_modules[\\/](three|@react-three)[\\/]/ }],
        },
      },
    },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:4310', '/s/': 'http://127.0.0.1:4310' } },
});
