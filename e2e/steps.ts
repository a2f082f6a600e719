// steps.ts — what the browser tests do again and again.
import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';

/** Console errors and warnings that a page may print: one deprecation inside the 3D library, and software drawing. */
const ALLOWED = [/THREE\.Clock/, /GPU stall due to ReadPixels/, /GL Driver Message/];

/** Collects what goes wrong on the page; expect it to be empty at the end. */
export function troubleOn(page: Page): string[] {
  const trouble: string[] = [];
  page.on('pageerror', (error) => trouble.push(error.message));
  page.on('console', (message) => {
    if (!['error', 'warning'].includes(message.type())) return;
    if (!ALLOWED.some((pattern) => pattern.test(message.text()))) trouble.push(message.text());
  });
  return trouble;
}

/** Restores the demo and opens it at a station. */
export async function openDemo(page: Page, station = 'build'): Promise<string> {
  const { id } = await (await page.request.post('/api/demo/restore')).json();
  await page.goto(`/projects/${id}/${station}`);
  await proven(page);
  return id;
}

/** Waits until the proof is that of what is shown. */
export async function proven(page: Page): Promise<void> {
  await expect(page.locator('[aria-label="Proof"][data-fresh="true"]')).toBeVisible();
}

export const saved = (page: Page) => expect(page.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible();

export const proof = (page: Page, name: string) => page.locator(`[data-proof="${name}"]`);

/** Digits of a proof entry, without what it was before. */
export async function proofNumber(page: Page, name: string): Promise<number> {
  const text = (await proof(page, name).innerText()).split('→').at(-1)!;
  return Number(text.replace(/[^\d.]/g, ''));
}

/** The export of the project that is open, made at the Export station and read back, as it is downloaded. */
export async function exported(page: Page, format = 'GLB'): Promise<Buffer> {
  await page.getByRole('link', { name: 'Export' }).click();
  await page.getByRole('radio', { name: new RegExp(`^${format}`) }).check();
  return madeFile(page);
}

/** The same as the station is set. */
export async function madeFile(page: Page): Promise<Buffer> {
  await page.getByRole('button', { name: /^Make the/ }).click();
  await expect(page.locator('[data-read-back="true"]')).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: /\.(glb|zip)/ }).click(),
  ]);
  return readFileSync((await download.path())!);
}

/** What a GLB says of itself. */
export const glbJson = (glb: Buffer) => JSON.parse(glb.subarray(20, 20 + glb.readUInt32LE(12)).toString());

/** Drops a file on the work as a hand would. @param content text, or the bytes of a picture */
export async function dropFile(page: Page, name: string, content: string | Buffer): Promise<void> {
  const transfer = await page.evaluateHandle(
    ([fileName, base64]) => {
      const bytes = Uint8Array.from(atob(base64!), (letter) => letter.charCodeAt(0));
      const data = new DataTransfer();
      data.items.add(new File([bytes], fileName!));
      return data;
    },
    [name, Buffer.from(content).toString('base64')],
  );
  for (const event of ['dragenter', 'dragover', 'drop']) {
    await page.dispatchEvent('[data-drop]', event, { dataTransfer: transfer });
  }
}

/** Restores the demo and opens one of its projects at a station. */
export async function openProject(page: Page, project: string, station: string): Promise<void> {
  await page.request.post('/api/demo/restore');
  const projects: { id: string; name: string }[] = await (await page.request.get('/api/projects')).json();
  await page.goto(`/projects/${projects.find(({ name }) => name === project)!.id}/${station}`);
}

/** Restores the demo and opens its crest, a scan, at the Source station. */
export async function openCrest(page: Page): Promise<void> {
  await openProject(page, 'Saltmarsh crest', 'source');
  await page.locator('[data-picture-desk="ready"]').waitFor();
  await proven(page);
}

/** Drags from one share of the Outline station's view to another. */
export async function drag(page: Page, from: readonly [number, number], to: readonly [number, number]): Promise<void> {
  const box = (await page.locator('[data-outline-desk]').boundingBox())!;
  const at = ([x, y]: readonly [number, number]) => [box.x + x * box.width, box.y + y * box.height] as const;
  await page.mouse.move(...at(from));
  await page.mouse.down();
  await page.mouse.move(...at(to), { steps: 6 });
  await page.mouse.up();
}

/** A drawing of a sun with rays, and a hole in it: points on a wavy ring. */
export function sun(points: number): string {
  const ring = (count: number, radius: (angle: number) => number) =>
    Array.from({ length: count }, (_, i) => {
      const angle = (2 * Math.PI * i) / count;
      return `${(50 + radius(angle) * Math.cos(angle)).toFixed(4)} ${(50 + radius(angle) * Math.sin(angle)).toFixed(4)}`;
    }).join('L');
  const outer = ring(0.8 * points, (angle) => 38 + 6 * Math.sin(24 * angle));
  const inner = ring(0.2 * points, (angle) => 14 + 2 * Math.sin(9 * angle));
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100"><path id="sun" fill="#b88a3d" fill-rule="evenodd" d="M${outer}ZM${inner}Z"/></svg>`;
}
