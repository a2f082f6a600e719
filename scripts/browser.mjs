// browser.mjs — the built application with its demo data, opened in the browser the tests use.
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureBuilt, ensureChromium, ROOT } from './setup.mjs';

const PORT = 4318;
const FLAGS = [
  '--no-sandbox',
  '--use-gl=angle',
  '--use-angle=swiftshader',
  '--enable-unsafe-swiftshader',
  '--disable-background-networking',
];

/** Serves fresh demo data while `use(page)` lasts; addresses on the page are relative to the server. */
export async function withPage(use) {
  await ensureBuilt();
  const { chromium } = await import('@playwright/test');
  const data = mkdtempSync(join(tmpdir(), 'outline-stack-'));
  const server = spawn(process.execPath, [join(ROOT, 'dist', 'node', 'server.js')], {
    cwd: ROOT,
    stdio: ['ignore', 'pipe', 'inherit'],
    env: { ...process.env, PORT: String(PORT), DATA_DIR: data },
  });
  await new Promise((ready) => server.stdout.once('data', ready));
  const browser = await chromium.launch({ executablePath: ensureChromium(), args: FLAGS });
  try {
    await use(await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: `http://127.0.0.1:${PORT}` }));
  } finally {
    await browser.close();
    server.kill('SIGTERM');
    await new Promise((gone) => server.once('exit', gone));
    rmSync(data, { recursive: true, force: true });
  }
}
