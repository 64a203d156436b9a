import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

export default defineConfig({
  plugins: [
    react(),
    tailwindcss(),
    // Without the server the pages still open: what is built is kept in the browser, the page itself is asked for
    // first. Nothing of the interface is kept here: displays and waiting changes have their own place.
    VitePWA({
      strategies: 'generateSW',
      injectRegister: null,
      manifest: false,
      workbox: {
        globPatterns: ['**/*.{js,css,woff2,svg,wasm}'],
        maximumFileSizeToCacheInBytes: 8_000_000,
        dontCacheBustURLsMatching: /\/assets\//,
        navigateFallback: null,
        skipWaiting: true,
        clientsClaim: true,
        cleanupOutdatedCaches: true,
        runtimeCaching: [
          {
            urlPattern: ({ request, url }) =>
              request.mode === 'navigate' && !url.pathname.startsWith('/api/'),
            handler: 'NetworkFirst',
            options: {
              cacheName: 'page',
              // Every address of ours is the same page.
              plugins: [{ cacheKeyWillBeUsed: async () => '/' }],
            },
          },
        ],
      },
    }),
  ],
  worker: { format: 'es' },
  build: { target: 'es2022', chunkSizeWarningLimit: 900 },
  server: { proxy: { '/api': 'http://127.0.0.1:4310' } },
});
