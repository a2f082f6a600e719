// first-solid.mjs — `npm run first-solid`: how long a newcomer waits for the first solid, and after how many actions, from an
// empty list of projects to a file that was read back. Each action takes a hand's time on top of what the program needs.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { withPage } from './browser.mjs';
import { ROOT } from './setup.mjs';

/** What a hand takes to find and press a button; common practice in estimates of such work is a second or two. */
const HAND_MS = 1500;
const FILES = [
  ['an SVG', 'patch.svg', 'image/svg+xml'],
  ['a JPEG', 'crest.jpg', 'image/jpeg'],
];

await withPage(async (page) => {
  await page.goto('/');
  const projects = await (await page.request.get('/api/projects')).json();
  for (const { id } of projects)
    await page.request.delete(`/api/projects/${id}`, { headers: { origin: new URL(page.url()).origin } });
  for (const [what, file, mimeType] of FILES) {
    await page.goto('/');
    await page.getByRole('button', { name: 'choose one' }).waitFor();
    let actions = 0;
    const began = performance.now();
    const act = async (action) => {
      actions++;
      await page.waitForTimeout(HAND_MS);
      await action();
    };
    await act(() =>
      page.setInputFiles('input[type=file]', {
        name: file,
        mimeType,
        buffer: readFileSync(join(ROOT, 'demo', file)),
      }),
    );
    await page.waitForURL(/\/source$/);
    await act(() =>
      page
        .getByRole('navigation', { name: 'Stations' })
        .getByRole('link', { name: 'Build' })
        .click({ timeout: 60_000 }),
    );
    await page.locator('[aria-label="Proof"][data-fresh="true"]').waitFor({ timeout: 60_000 });
    const solid = (performance.now() - began) / 1000;
    const seen = actions;
    await act(() => page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Export' }).click());
    await act(() => page.getByRole('button', { name: 'Make the GLB file' }).click());
    await page.locator('[data-read-back="true"]').waitFor({ timeout: 60_000 });
    const made = (performance.now() - began) / 1000;
    console.log(
      `${what}: solid proven after ${solid.toFixed(1)} s and ${seen} actions, file read back after ${made.toFixed(1)} s and ${actions}`,
    );
  }
});
