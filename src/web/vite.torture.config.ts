import { lingui } from '@lingui/vite-plugin';
import babel from '@rolldown/plugin-babel';
import { defineConfig } from 'vite';
import { build, coreFolder, pdfVersion } from './build/identity.mjs';
import { words } from './build/words.mjs';

// The part of the front end that keeps and sends, without any screen, for tests that try to make it lose something.
export default defineConfig({
  root: '../../tests/torture',
  plugins: [lingui({ cwd: import.meta.dirname }), babel({ presets: [words] })],
  define: {
    __CORE__: JSON.stringify(`/${coreFolder}`),
    __BUILD__: JSON.stringify(build),
    __PDF__: JSON.stringify(pdfVersion),
  },
  build: {
    target: 'es2022',
    outDir: '../../src/web/dist-torture',
    emptyOutDir: true,
    modulePreload: { polyfill: false },
    chunkSizeWarningLimit: 900,
  },
});
