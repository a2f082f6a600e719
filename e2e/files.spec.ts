// Projects as files: saved from the list, opened where they are dropped, and the same meshes from page and command line.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Page, test } from '@playwright/test';
import { unzipSync } from 'fflate';
import { glb } from '../core/formats/glb/glb.ts';
import { obj } from '../core/formats/obj/obj.ts';
import { audit } from '../core/testing/audit.ts';
import { dropFile, exported, openDemo, proofNumber, proven, troubleOn } from './steps.ts';

const FOLDER = mkdtempSync(join(tmpdir(), 'project-files-'));
test.afterAll(() => rmSync(FOLDER, { recursive: true }));

/** Saves a project from the list. @returns where the file is */
async function saveFile(page: Page, project: string): Promise<string> {
  await page.goto('/');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: `Save ${project} as a file` }).click(),
  ]);
  const path = join(FOLDER, download.suggestedFilename());
  await download.saveAs(path);
  return path;
}

const documentOf = async (page: Page) => (await page.request.get(`/api/projects/${idOn(page)}`)).json();
const idOn = (page: Page) => new URL(page.url()).pathname.split('/')[2]!;

test('a project is saved as a file and opened from it, on the list and on the work', async ({ page }) => {
  const trouble = troubleOn(page);
  await openDemo(page);
  const before = await documentOf(page);
  const path = await saveFile(page, 'Saltmarsh mission patch');
  expect(path).toMatch(/Saltmarsh_mission_patch\.outline$/);

  await page.getByLabel('Begin with files').setInputFiles(path);
  await page.waitForURL(/\/projects\/.+\/build/);
  await proven(page);
  const onList = await documentOf(page);
  expect(onList.id).not.toBe(before.id);
  expect(onList.document).toEqual(before.document);

  await dropFile(page, 'again.outline', readFileSync(path));
  await page.waitForURL((url) => !url.pathname.includes(onList.id) && url.pathname.endsWith('/build'));
  await proven(page);
  const onWork = await documentOf(page);
  expect(onWork.document).toEqual(before.document);
  for (const { id } of [onList, onWork]) await page.request.delete(`/api/projects/${id}`);
  expect(trouble).toEqual([]);
});

test('a file that holds no project is refused in a sentence, and nothing is lost', async ({ page }) => {
  const id = await openDemo(page);
  await dropFile(page, 'holiday.outline', 'not a project at all');
  await expect(page.getByRole('alert').filter({ hasText: 'holiday.outline was not brought in.' })).toBeVisible();
  expect(idOn(page)).toBe(id);

  const path = join(FOLDER, 'torn.outline');
  writeFileSync(path, readFileSync(await saveFile(page, 'Saltmarsh word')).subarray(0, 900));
  await page.getByLabel('Begin with files').setInputFiles(path);
  await expect(page.getByText(/“torn.outline” was not opened. The project file is damaged/)).toBeVisible();
  expect(new URL(page.url()).pathname).toBe('/');
});

test('project files and others dropped together become projects, and one of the others', async ({ page }) => {
  await page.request.post('/api/demo/restore');
  const word = await saveFile(page, 'Saltmarsh word');
  const [mark, torn] = [join(FOLDER, 'gull.svg'), join(FOLDER, 'torn.outline')];
  writeFileSync(mark, '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 10 10"><path d="M0 0H10V10H0Z"/></svg>');
  writeFileSync(torn, readFileSync(word).subarray(0, 900));
  const cards = page.getByRole('link', { name: /^Saltmarsh word/ });
  const before = await cards.count();
  await page.getByLabel('Begin with files').setInputFiles([torn, word, mark]);
  await page.waitForURL(/\/projects\/.+\/source/);
  await expect(page.getByText(/gull\.svg came in as 1 layer/)).toBeVisible();
  await expect(page.getByText(/torn\.outline was not brought in/)).toBeVisible();
  expect((await documentOf(page)).document.name).toBe('gull');
  await page.request.delete(`/api/projects/${idOn(page)}`);
  await page.goto('/');
  await expect(cards).toHaveCount(before + 1);
  const projects: { id: string; name: string; isDemo: boolean }[] = await (
    await page.request.get('/api/projects')
  ).json();
  const opened = projects.filter(({ name, isDemo }) => name === 'Saltmarsh word' && !isDemo);
  for (const { id } of opened) await page.request.delete(`/api/projects/${id}`);
});

/** What of an export the command line writes to the file that it is given. */
function ownFile(bytes: Buffer, extension: string): Uint8Array {
  if (bytes.readUInt32LE(0) !== 0x04034b50) return bytes;
  const files = unzipSync(bytes);
  return files[Object.keys(files).find((name) => name.endsWith(`.${extension}`))!]!;
}

for (const [project, format] of [
  ['Saltmarsh mission patch', glb],
  ['Saltmarsh crest', obj],
] as const) {
  test(`${project} is the same ${format.name}, byte for byte, from page and command line`, async ({ page }) => {
    await openDemo(page);
    const path = await saveFile(page, project);
    await page.getByRole('link', { name: new RegExp(`^${project}`) }).click();
    await proven(page);
    const points = await proofNumber(page, 'points');
    const fromPage = ownFile(await exported(page, format.name), format.extension);

    const out = join(FOLDER, `out.${format.extension}`);
    const { status, stderr } = spawnSync(process.execPath, ['cli/bin.js', 'project', path, '--out', out], {
      encoding: 'utf8',
    });
    expect([status, stderr]).toEqual([0, '']);
    expect(readFileSync(out).equals(fromPage)).toBe(true);
    // What the page's own threads built, as the strip below counts it: a part whatever its sides are made of.
    const parts = await format.readWritten({ [format.extension]: fromPage });
    expect(parts.reduce((sum, { mesh }) => sum + audit(mesh.positions, mesh.corners).points, 0)).toBe(points);
  });
}

test('several files stand side by side, their layers called after them', async ({ page }) => {
  const { id } = await (await page.request.post('/api/projects', { data: { name: 'Row' } })).json();
  await page.goto(`/projects/${id}/source`);
  const square = (colour: string) =>
    Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 40"><path fill="${colour}" d="M5 5H35V35H5Z"/></svg>`,
    );
  await page.getByLabel('Bring in files').setInputFiles([
    { name: 'buoy.svg', mimeType: 'image/svg+xml', buffer: square('#a03020') },
    { name: 'tern.svg', mimeType: 'image/svg+xml', buffer: square('#2040a0') },
    { name: 'reed.svg', mimeType: 'image/svg+xml', buffer: square('#208040') },
  ]);
  await expect(page.getByText('reed.svg came in as 1 layer, 100 mm at its longest.')).toBeVisible();
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Build' }).click();
  await proven(page);
  const layers = page.getByRole('list', { name: 'Layers' }).locator('[data-layer]');
  await expect(layers).toHaveText(['reed', 'tern', 'buoy']);
  // Each is 100 mm wide with a tenth of that between: none shares space with another.
  await expect(page.locator('[data-shared]')).toHaveCount(0);
  const document = await (await page.request.get(`/api/projects/${id}`)).json();
  const middles = document.document.sources.map(
    ({ origin, scale }: { origin: [number, number]; scale: number }) => (20 - origin[0]) * scale,
  );
  expect(middles.map(Math.round)).toEqual([0, 110, 220]);
});
