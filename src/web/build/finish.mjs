// After vite: lays the WebAssembly build beside the front end, writes the service worker, and compresses what is served.
import { cpSync, existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants } from 'node:zlib';
import { generateSW } from 'workbox-build';
import { coreFolder, corePublished, pdfPackage, pdfVersion } from './identity.mjs';

const dist = new URL('../dist', import.meta.url).pathname;
cpSync(corePublished, join(dist, coreFolder), { recursive: true, filter: (file) => !file.endsWith('.gz') });
for (const folder of ['cmaps', 'standard_fonts', 'wasm', 'iccs'])
  cpSync(join(pdfPackage, folder), join(dist, 'assets', `pdf-${pdfVersion}`, folder), { recursive: true });

await generateSW({
  globDirectory: dist,
  swDest: join(dist, 'sw.js'),
  globPatterns: [
    'index.html',
    '*.svg',
    '*.webmanifest',
    'assets/*.{js,css}',
    // Pages of PDF files are shown without a connection too.
    'assets/pdf*.mjs',
    'assets/*latin-*.woff2',
    'assets/core-*/*.{js,wasm}',
    // What typed text is mostly set in; other fonts are kept once a text needed them.
    'assets/harfbuzz*.wasm',
    'assets/serif*.ttf',
    'assets/sans{,-bold}-*.ttf',
  ],
  globIgnores: ['**/*ext*.woff2', '**/*italic*.woff2'],
  maximumFileSizeToCacheInBytes: 16 * 1024 * 1024,
  navigateFallback: '/index.html',
  navigateFallbackDenylist: [/^\/api\//, /^\/health/, /^\/live/],
  runtimeCaching: [
    {
      // Fonts and maps that some PDF files need are kept once one needed them.
      urlPattern: /\/assets\/([^/]+\.ttf$|pdf-[^/]+\/)/,
      handler: 'CacheFirst',
      options: { cacheName: 'fonts', cacheableResponse: { statuses: [200] } },
    },
    {
      urlPattern: /\/api\/spaces\/[^/]+\/(pages\/[^/]+\/(thumbnail|part)\.svg|assets\/[^/]+\/picture)/,
      handler: 'CacheFirst',
      // Old ones are taken out by the application when it starts: to keep account of every picture takes longer than fetching it.
      options: { cacheName: 'thumbnails', cacheableResponse: { statuses: [200] } },
    },
  ],
  // A new version waits until all tabs agree (agree.js); the first one serves at once.
  skipWaiting: false,
  clientsClaim: true,
  importScripts: ['/agree.js'],
  dontCacheBustURLsMatching: /^assets\//,
  sourcemap: false,
  inlineWorkboxRuntime: true,
});

for (const entry of readdirSync(dist, { recursive: true, withFileTypes: true })) {
  const file = join(entry.parentPath, entry.name);
  if (
    !entry.isFile() ||
    !/\.(js|css|html|svg|wasm|webmanifest|ttf)$/.test(file) ||
    statSync(file).size < 1000 ||
    existsSync(`${file}.br`)
  )
    continue;
  // Of fonts, hundreds of files, the last hundredth is not worth a minute.
  const quality = file.endsWith('.ttf') ? 9 : constants.BROTLI_MAX_QUALITY;
  writeFileSync(
    `${file}.br`,
    brotliCompressSync(readFileSync(file), { params: { [constants.BROTLI_PARAM_QUALITY]: quality } }),
  );
}
