import { defineConfig } from 'vite';

// Bundles the server, its geometry thread, the command line and the comparison and corpus runs to plain JavaScript; packages stay
// external.
export default defineConfig({
  build: {
    ssr: true,
    outDir: 'dist/node',
    target: 'node20',
    emptyOutDir: true,
    rollupOptions: {
      external: ['vite'],
      input: {
        server: 'server/main.ts',
        'server-thread': 'server/jobs/thread.ts',
        cli: 'cli/main.ts',
        'cli-thread': 'cli/thread.ts',
        bench: 'bench/run.ts',
        drags: 'bench/drags.ts',
        openings: 'bench/openings.ts',
        corpora: 'bench/corpora.ts',
        flats: 'bench/flats.ts',
        scans: 'bench/scans.ts',
      },
    },
  },
});
