import { fileURLToPath } from 'node:url';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

/** What packages ask of Node.js in branches that no browser takes. */
const NOT_IN_BROWSERS = ['node:fs', 'node:path', 'module'].map((find) => ({
  find,
  replacement: fileURLToPath(new URL('web/worker/not-in-browsers.ts', import.meta.url)),
}));

/** How long plugins take is no fault of the build. */
const QUIET = { checks: { bundlerTimings: false } };

export default defineConfig({
  root: 'web',
  plugins: [react(), tailwindcss()],
  resolve: { alias: NOT_IN_BROWSERS },
  worker: { format: 'es', rolldownOptions: QUIET },
  build: {
    outDir: '../dist/web',
    emptyOutDir: true,
    chunkSizeWarningLimit: 1500,
    rolldownOptions: QUIET,
  },
  server: { proxy: { '/api': 'http://127.0.0.1:3000' } },
});
