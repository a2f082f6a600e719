import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['{core,docs,node,server,cli,web}/**/*.test.ts'],
    environment: 'node',
    testTimeout: 60_000,
    setupFiles: ['core/testing/seed.ts'],
  },
});
