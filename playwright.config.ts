import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { defineConfig } from '@playwright/test';

const port = Number(process.env.PORT ?? 4317);

export default defineConfig({
  testDir: 'e2e',
  timeout: 300_000,
  // A disk that is busy with something else holds the server up: for seven seconds when it was measured.
  expect: { timeout: 120_000 },
  workers: 1,
  // The browser draws in software here, so a busy machine can be late; what fails twice is wrong.
  retries: process.env.CI ? 1 : 0,
  reporter: [['list']],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--use-gl=angle',
        '--use-angle=swiftshader',
        '--enable-unsafe-swiftshader',
        '--ignore-gpu-blocklist',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
        '--disable-quic',
      ],
    },
  },
  webServer: {
    command: 'node dist/node/server.js',
    url: `http://127.0.0.1:${port}/api/health`,
    env: { PORT: String(port), DATA_DIR: mkdtempSync(join(tmpdir(), 'outline-stack-e2e-')) },
    reuseExistingServer: false,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 3000 },
  },
});
