import { lingui } from '@lingui/vite-plugin';
import babel from '@rolldown/plugin-babel';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { build, coreFolder, pdfVersion } from './build/identity.mjs';
import { words } from './build/words.mjs';

export default defineConfig({
  plugins: [react(), lingui(), babel({ presets: [words] }), tailwindcss()],
  define: {
    __CORE__: JSON.stringify(`/${coreFolder}`),
    __BUILD__: JSON.stringify(build),
    __PDF__: JSON.stringify(pdfVersion),
  },
  build: {
    target: 'es2022',
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
    chunkSizeWarningLimit: 900,
    rolldownOptions: {
      output: {
        // A screen has a file of its own; what several need lies in two, instead of in dozens of crumbs.
        codeSplitting: {
          groups: [
            // What finds the words must not lie with what says some when it is loaded.
            { name: 'first', test: /src\/(words\/language|ui\/theme)\./, priority: 1 },
            { name: 'packages', test: /node_modules\/(?!pdfjs-dist|harfbuzzjs)/ },
            { name: 'shared', test: /src\//, minShareCount: 2 },
          ],
        },
      },
    },
  },
});
