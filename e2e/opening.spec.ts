// Opening a project: outlines first, then the solid; on a second visit from what the browser kept of the first one.
import { expect, type Page, test } from '@playwright/test';
import { openCrest, proofNumber, proven, troubleOn } from './steps.ts';

/** Names of what this browser keeps from one visit to the next. */
const keptNames = (page: Page) =>
  page.evaluate(async () => {
    const { name } = (await indexedDB.databases()).find((database) => database.name?.startsWith('made by '))!;
    const database = await new Promise<IDBDatabase>((opened) => {
      const request = indexedDB.open(name!);
      request.onsuccess = () => opened(request.result);
    });
    const keys = await new Promise<IDBValidKey[]>((found) => {
      const request = database.transaction('made').objectStore('made').getAllKeys();
      request.onsuccess = () => found(request.result);
    });
    database.close();
    return keys.map((key) => String((key as IDBValidKey[])[2]).split(' ')[0]);
  });

test('outlines are shown while the first solid is built, and the solid takes their place', async ({ page }) => {
  await page.addInitScript(() => {
    const seen: string[] = [];
    Object.assign(window, { seen });
    const note = (what: string, isThere: boolean) => isThere && seen.at(-1) !== what && seen.push(what);
    new MutationObserver(() => {
      const outlines = document.querySelector('svg[aria-label="Outlines on the sheet"] path');
      note('outlines', outlines !== null);
      note('solid', outlines === null && seen.length > 0);
    }).observe(document, { childList: true, subtree: true });
  });
  await page.request.post('/api/demo/restore');
  const [{ id }] = await (await page.request.get('/api/projects')).json();
  await page.goto(`/projects/${id}/build`);
  await proven(page);
  expect(await page.evaluate(() => (window as unknown as { seen: string[] }).seen)).toEqual(['outlines', 'solid']);
});

test('what was traced and built once is there on the next visit, and can be changed', async ({ page }) => {
  const trouble = troubleOn(page);
  await openCrest(page);
  const volume = await proofNumber(page, 'volume');
  await expect.poll(() => keptNames(page)).toEqual(expect.arrayContaining(['drawing', 'layer']));
  const asked: string[] = [];
  page.on('request', (request) => asked.push(new URL(request.url()).pathname));
  await page.goto(page.url().replace(/source$/, 'build'));
  await proven(page);
  expect(await proofNumber(page, 'volume')).toBe(volume);
  // Nothing had to be traced, so no pixel was asked for.
  expect(asked.filter((path) => path.endsWith('/pixels'))).toEqual([]);

  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Source' }).click();
  await page.locator('[data-picture-desk="ready"]').waitFor();
  await page.getByRole('checkbox', { name: 'Despeckle: on' }).uncheck();
  await expect.poll(() => proofNumber(page, 'volume')).not.toBe(volume);
  await page.getByRole('checkbox', { name: 'Despeckle: on' }).check();
  await expect.poll(() => proofNumber(page, 'volume')).toBe(volume);
  expect(trouble).toEqual([]);
});
