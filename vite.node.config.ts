import { defineConfig } from 'vite';

// Bundles the server, its geometry thread and the command line to plain JavaScript; packages stay external.
export default defineConfig({
  build: {
    ssr: true,
    outDir: 'dist/node',
    target: 'node20',
    emptyOutDir: true,
    rollupOptions: {
      input: {
        cli: 'cli/main.ts',
        'cli-thread': 'cli/thread.ts',
      },
    },
  },
});
