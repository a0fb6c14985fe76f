// Exports the client and writes the service worker that keeps its files for places without a signal.
import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';
import { ensureNode, ROOT } from './ensure.mjs';
import { noticesOf } from './notices.mjs';

ensureNode();
/** The paper of the two themes (`src/ui/palette.ts`): the ground of the icon and of the phone's bars. */
const PAPER_BY_DAY = '#F6F3EA';
const PAPER_BY_NIGHT = '#13191C';
const client = path.join(ROOT, 'apps/client');
const out = path.join(client, 'dist');
const index = path.join(out, 'index.html');
const quiet = { CI: '1', EXPO_OFFLINE: '1', EXPO_NO_TELEMETRY: '1', NODE_ENV: 'production' };
const built = spawnSync(
  process.execPath,
  [path.join(ROOT, 'node_modules/expo/bin/cli'), 'export', '-p', 'web', '--output-dir', out, '--source-maps'],
  {
    cwd: client,
    env: { ...process.env, ...quiet },
    stdio: ['ignore', process.env.VERBOSE ? 'inherit' : 'ignore', 'inherit'],
  },
);
if (built.status !== 0) process.exit(built.status ?? 1);

const require = createRequire(path.join(client, 'package.json'));
preloadFirst();
await makeInstallable(createRequire(path.join(ROOT, 'apps/server/package.json'))('sharp'));
const notices = noticesOf(out);
fs.writeFileSync(path.join(out, 'notices.txt'), `Even Bed is built with these parts by others.\n\n${notices.text}\n`);
dropSourceMaps();
// Which build lies here, for pages that are open: the name of its first script.
const [entry] = /\/[^"]*\/entry-[^"]+\.js/.exec(fs.readFileSync(path.join(out, 'index.html'), 'utf8')) ?? [];
if (!entry) throw new Error('index.html names no entry script');
fs.writeFileSync(path.join(out, 'version.txt'), `${entry}\n`);

const { generateSW } = require('workbox-build');
const { count, size } = await generateSW({
  globDirectory: out,
  globPatterns: ['**/*.{html,js,css,ttf,woff2,png,ico,json,webmanifest}'],
  swDest: path.join(out, 'service-worker.js'),
  mode: 'production',
  sourcemap: false,
  inlineWorkboxRuntime: true,
  clientsClaim: true,
  skipWaiting: true,
  // Names with a hash in them need no cache-busting query.
  dontCacheBustURLsMatching: /[.-][0-9a-f]{16,}\./i,
  navigateFallback: '/index.html',
  navigateFallbackDenylist: [/^\/api/, /^\/(notices|version)\.txt/],
  maximumFileSizeToCacheInBytes: 8_000_000,
  runtimeCaching: [
    {
      // What was seen last stays readable when the server can't be reached.
      urlPattern: ({ url, request }) =>
        request.method === 'GET' &&
        url.pathname.startsWith('/api/') &&
        // Streams never end, and files to take away are kept where they are taken.
        request.mode !== 'navigate' &&
        request.headers.get('Accept') !== 'text/event-stream',
      handler: 'NetworkFirst',
      options: {
        cacheName: 'records',
        networkTimeoutSeconds: 4,
        expiration: { maxEntries: 1000 },
        plugins: [
          {
            // Each answer says whether a device may keep it: its operation does.
            cacheWillUpdate: async ({ response }) =>
              response.status === 200 && response.headers.get('X-Keep') === 'yes' ? response : null,
            // What was kept says so, and since when: the page tells whoever looks at it.
            cachedResponseWillBeUsed: async ({ cachedResponse }) => {
              if (!cachedResponse) return cachedResponse;
              const headers = new Headers(cachedResponse.headers);
              headers.set('X-Kept-Since', String(Date.parse(headers.get('Date') ?? '') || 0));
              const { status, statusText } = cachedResponse;
              return new Response(await cachedResponse.blob(), { status, statusText, headers });
            },
          },
        ],
      },
    },
  ],
});
precompress();
fs.utimesSync(index, new Date(), new Date());
console.log(
  `The app is built: ${count} files, ${Math.round(size / 1024)} KiB kept for offline use; ${notices.count} parts by others in notices.txt.`,
);

/** Icons, a manifest and the colours of the bars, so that a phone can keep the app beside its own. */
async function makeInstallable(sharp) {
  const drawn = path.join(client, 'assets/icon.svg');
  for (const size of [192, 512]) {
    const picture = sharp(drawn, { density: (72 * size) / 192 });
    await picture
      .clone()
      .resize(size)
      .png()
      .toFile(path.join(out, `icon-${size}.png`));
    // Phones cut icons to their own shape: what matters stays within the middle of a wider ground.
    const border = Math.round(size * 0.1);
    const wider = { top: border, bottom: border, left: border, right: border, background: PAPER_BY_DAY };
    const onGround = await picture
      .clone()
      .resize(size - 2 * border)
      .extend(wider)
      .png()
      .toBuffer();
    await sharp(onGround).toFile(path.join(out, `icon-${size}-maskable.png`));
  }
  const icons = [192, 512].flatMap((size) => [
    { src: `/icon-${size}.png`, sizes: `${size}x${size}`, type: 'image/png' },
    { src: `/icon-${size}-maskable.png`, sizes: `${size}x${size}`, type: 'image/png', purpose: 'maskable' },
  ]);
  const manifest = {
    name: 'Even Bed',
    short_name: 'Even Bed',
    description: 'The bench book for the build surfaces of a fleet of 3D printers',
    start_url: '/bench',
    scope: '/',
    id: '/',
    display: 'standalone',
    background_color: PAPER_BY_DAY,
    theme_color: PAPER_BY_DAY,
    icons,
  };
  fs.writeFileSync(path.join(out, 'manifest.webmanifest'), JSON.stringify(manifest));
  const head = [
    '<style>body{margin:0}</style>',
    '<link rel="manifest" href="/manifest.webmanifest"/>',
    '<link rel="apple-touch-icon" href="/icon-192.png"/>',
    `<meta name="theme-color" media="(prefers-color-scheme: light)" content="${PAPER_BY_DAY}"/>`,
    `<meta name="theme-color" media="(prefers-color-scheme: dark)" content="${PAPER_BY_NIGHT}"/>`,
  ].join('');
  fs.writeFileSync(index, fs.readFileSync(index, 'utf8').replace('</head>', `${head}</head>`));
}

/** Puts the page's first script in front, and names what every view needs: layouts and fonts are on their way at once. */
function preloadFirst() {
  const scripts = path.join(out, '_expo/static/js/web');
  const [entryFile] = fs.readdirSync(scripts).filter((name) => /^entry-.*\.js$/.test(name));
  const pieces = piecesOf(fs.readFileSync(path.join(scripts, entryFile), 'utf8'));
  const layouts = pieces.filter(([file]) => /(^|\/)_layout\.tsx$/.test(file)).map(([, piece]) => piece);
  const views = pieces
    .filter(([file]) => !/_layout\.tsx$|\+/.test(file))
    .map(([file, piece]) => [addressOf(file), [piece, ...roomOf(file, scripts)]])
    .sort(([a], [b]) => a.split('(').length - b.split('(').length);
  const source = fs.readFileSync(path.join(client, 'first/first.js'), 'utf8');
  const filled = source.replace('const PIECES = [];', `const PIECES = ${JSON.stringify(views)};`);
  if (views.length < 20 || layouts.length === 0 || filled === source)
    throw new Error('the pieces of the views were not found in the entry script');
  const fonts = fs
    .readdirSync(out, { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('.ttf'))
    .map((file) => `/${file.split(path.sep).join('/')}`);
  const text = fs.readFileSync(index, 'utf8');
  // The app's own scripts come first on the line; what they will ask for comes behind them.
  const own = text.match(/<script src="[^"]+" defer><\/script>/g) ?? [];
  const behind = [
    ...layouts.map((piece) => `<link rel="preload" as="script" href="${piece}"/>`),
    ...fonts.map((font) => `<link rel="preload" as="font" type="font/ttf" crossorigin href="${font}"/>`),
  ];
  const code = filled.replace(/^\s*(\/\/.*)?\n/gm, '').trim();
  if (code.includes('<')) throw new Error('first.js stands in the page: it may hold no <');
  const head = [...own, `<script>${code}</script>`, ...behind].join('');
  const without = own.reduce((rest, script) => rest.replace(script, ''), text);
  fs.writeFileSync(
    index,
    without.replace('<title>', () => `${head}<title>`),
  );
}

/** The script of each route's file, as the entry script says. */
function piecesOf(entryScript) {
  const at = entryScript.indexOf('"./bench.tsx":{');
  const [, table] = /("0":\d+,.*?)"paths":/.exec(entryScript.slice(at)) ?? [];
  const [, paths] = /"paths":(\{[^}]*\})/.exec(entryScript.slice(at)) ?? [];
  if (!table || !paths) return [];
  const modules = JSON.parse(`{${table.replace(/,$/, '')}}`);
  const scripts = JSON.parse(paths);
  return [...entryScript.matchAll(/"\.\/([^"]+\.tsx)":\{[^}]*?\(d\[(\d+)\],d\.paths\)\}/g)].flatMap(
    ([, file, index]) => {
      const piece = scripts[modules[index]];
      return piece ? [[file, piece]] : [];
    },
  );
}

/** The piece of code that a route fetches its view from, where it shares one with others. */
function roomOf(file, scripts) {
  const source = fs.readFileSync(path.join(client, 'app', file), 'utf8');
  const [, room] = /\bfrom(Hands|Forms)\(/.exec(source) ?? [];
  if (!room) return [];
  const name = fs.readdirSync(scripts).find((script) => new RegExp(`^${room.toLowerCase()}Room-.*\\.js$`).test(script));
  if (!name) throw new Error(`the piece of ${file} was not found`);
  return [`/_expo/static/js/web/${name}`];
}

/** The address of a route's file as an expression: "floor/[machineId]/index.tsx" is "/floor/([^/]+)". */
function addressOf(file) {
  const address = file.replace(/\.tsx$/, '').replace(/(^|\/)index$/, '');
  return `/${address.replace(/\[[^\]]+\]/g, '([^/]+)')}`;
}

/** Beside each file what goes over the wire: the server packs nothing while somebody waits. */
function precompress() {
  for (const name of fs.readdirSync(out, { recursive: true, encoding: 'utf8' })) {
    if (!/\.(js|html|css|json|ttf|txt|webmanifest)$/.test(name)) continue;
    const file = path.join(out, name);
    const content = fs.readFileSync(file);
    if (content.length < 1024) continue;
    fs.writeFileSync(`${file}.gz`, gzipSync(content, { level: 9 }));
    const params = { [constants.BROTLI_PARAM_QUALITY]: 9 };
    fs.writeFileSync(`${file}.br`, brotliCompressSync(content, { params }));
  }
}

/** They served the notices; the app is not slowed by files that nobody asks for. */
function dropSourceMaps() {
  for (const name of fs.readdirSync(out, { recursive: true })) {
    const file = path.join(out, name);
    if (name.endsWith('.map')) fs.rmSync(file);
    else if (name.endsWith('.js')) {
      fs.writeFileSync(file, fs.readFileSync(file, 'utf8').replace(/\n\/\/# source(MappingURL|URL)=.*$/gm, ''));
    }
  }
}
