import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { build, coreFolder } from './build/identity.mjs';

export default defineConfig({
  plugins: [react(), tailwindcss()],
  define: { __CORE__: JSON.stringify(`/${coreFolder}`), __BUILD__: JSON.stringify(build) },
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
            { name: 'packages', test: /node_modules\/(?!pdfjs-dist)/ },
            { name: 'shared', test: /src\//, minShareCount: 2 },
          ],
        },
      },
    },
  },
});
