import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['{core,docs,node,server,cli,web}/**/*.test.ts'],
    environment: 'node',
    testTimeout: 60_000,
    // Left to itself one processor is kept free, which is half of a small machine.
    maxWorkers: '100%',
    setupFiles: ['core/testing/seed.ts'],
  },
});
