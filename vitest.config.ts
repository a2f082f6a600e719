import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['{core,docs,node,server,cli,web}/**/*.test.ts'],
    environment: 'node',
    // What ends a test that hangs, not what is slow: 14 s here have been over 60 s on a machine with other things to do.
    testTimeout: 600_000,
    hookTimeout: 600_000,
    // Left to itself one processor is kept free, which is half of a small machine.
    maxWorkers: '100%',
    setupFiles: ['core/testing/seed.ts'],
  },
});
