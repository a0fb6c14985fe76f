// Exports the client and writes the service worker that keeps its files for places without a signal.
import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import { ensureNode, ROOT } from './ensure.mjs';

ensureNode();
const client = path.join(ROOT, 'apps/client');
const out = path.join(client, 'dist');
const quiet = { CI: '1', EXPO_OFFLINE: '1', EXPO_NO_TELEMETRY: '1', NODE_ENV: 'production' };
const built = spawnSync(
  process.execPath,
  [path.join(ROOT, 'node_modules/expo/bin/cli'), 'export', '-p', 'web', '--output-dir', out],
  {
    cwd: client,
    env: { ...process.env, ...quiet },
    stdio: ['ignore', process.env.VERBOSE ? 'inherit' : 'ignore', 'inherit'],
  },
);
if (built.status !== 0) process.exit(built.status ?? 1);

const require = createRequire(path.join(client, 'package.json'));
const { generateSW } = require('workbox-build');
const { count, size } = await generateSW({
  globDirectory: out,
  globPatterns: ['**/*.{html,js,css,ttf,woff2,png,ico,json}'],
  swDest: path.join(out, 'service-worker.js'),
  mode: 'production',
  sourcemap: false,
  inlineWorkboxRuntime: true,
  clientsClaim: true,
  skipWaiting: true,
  // Names with a hash in them need no cache-busting query.
  dontCacheBustURLsMatching: /[.-][0-9a-f]{16,}\./i,
  navigateFallback: '/index.html',
  navigateFallbackDenylist: [/^\/api/],
  maximumFileSizeToCacheInBytes: 8_000_000,
  runtimeCaching: [
    {
      // What was seen last stays readable when the server can't be reached.
      urlPattern: ({ url, request }) =>
        request.method === 'GET' &&
        /^\/api\/(areas|machines|level-checks|book|surfaces|surface-kinds|prints|print-lists|inspections|photos|plans|procedures|jobs|settings|people)/.test(
          url.pathname,
        ),
      handler: 'NetworkFirst',
      options: { cacheName: 'records', networkTimeoutSeconds: 4, expiration: { maxEntries: 300 } },
    },
  ],
});
const index = path.join(out, 'index.html');
fs.utimesSync(index, new Date(), new Date());
console.log(`The app is built: ${count} files, ${Math.round(size / 1024)} KiB kept for offline use.`);
