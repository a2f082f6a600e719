// The Outline station: findings, choosing, combining, edits that stay open; and letters that stay editable beneath them.
import { expect, type Page, test } from '@playwright/test';
import { dropFile, openDemo, proof, proven, saved, troubleOn } from './bench.ts';

const chosen = (page: Page, words: string) => expect(page.getByRole('heading', { name: words })).toBeVisible();
const findings = (page: Page) => page.getByRole('list', { name: 'Findings' }).getByRole('listitem');

const stations = (page: Page) => page.getByRole('navigation', { name: 'Stations' });

async function openOutline(page: Page): Promise<void> {
  await stations(page).getByRole('link', { name: 'Outline' }).click();
  await page.locator('[data-outline-desk="ready"]').waitFor();
}

/** Drags from one share of the view to another. */
async function drag(page: Page, from: readonly [number, number], to: readonly [number, number]): Promise<void> {
  const box = (await page.locator('[data-outline-desk]').boundingBox())!;
  const at = ([x, y]: readonly [number, number]) => [box.x + x * box.width, box.y + y * box.height] as const;
  await page.mouse.move(...at(from));
  await page.mouse.down();
  await page.mouse.move(...at(to), { steps: 6 });
  await page.mouse.up();
}

const LOOSE = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100"><g fill="none" stroke="#225577" stroke-width="3">
  <path id="top" d="M10 10H90"/><path id="side" d="M90.2 10V90"/><path id="rest" d="M90 90H10V10.3"/></g>
  <path id="bow" fill="#aa4422" d="M30 30L60 60H30L60 30Z"/><path id="twin" fill="#aa4422" d="M30 30L60 60H30L60 30Z"/></svg>`;

test('findings point at their places, show what a mend would do, and are mended', async ({ page }) => {
  const trouble = troubleOn(page);
  await openDemo(page);
  await dropFile(page, 'loose.svg', LOOSE);
  await proven(page);
  await openOutline(page);
  await page.getByRole('button', { name: /^Source:/ }).click();
  await page.getByRole('option', { name: 'loose.svg' }).click();
  await expect(findings(page).filter({ hasText: /3 gaps between lines, up to 0\.\d+ mm/ })).toBeVisible();
  await expect(findings(page).filter({ hasText: '1 shape that lies there twice' })).toBeVisible();
  await expect(findings(page).filter({ hasText: '2 outlines cross themselves' })).toBeVisible();
  await page.getByRole('button', { name: /^3 gaps/ }).click();
  await expect(page.locator('[data-finding="gap"] circle')).toHaveCount(3);
  await chosen(page, '3 chosen');
  await page.getByRole('button', { name: /^Mend all \d safe ones/ }).click();
  await expect(page.getByText('1 gap closed').or(page.getByText('3 gaps closed')).first()).toBeVisible();
  await expect(findings(page).filter({ hasText: 'gap' })).toHaveCount(0);
  await expect(findings(page).filter({ hasText: 'twice' })).toHaveCount(0);
  expect(trouble).toEqual([]);
});

test('shapes are chosen by box, united, and the edit can be switched off, undone and kept', async ({ page }) => {
  const trouble = troubleOn(page);
  await openDemo(page);
  await openOutline(page);
  const shapes = page.locator('[data-shape]');
  const before = await shapes.count();
  await drag(page, [0.02, 0.1], [0.98, 0.97]);
  const heading = page.getByRole('heading', { name: /\d+ chosen/ });
  await expect(heading).toBeVisible();
  await page.locator('[data-shape]').first().waitFor();
  await page.getByRole('button', { name: 'Unite' }).click();
  await expect(page.getByText(/\d+ shapes united/).first()).toBeVisible();
  await expect.poll(() => shapes.count()).toBeLessThan(before);
  await proven(page);
  await expect(proof(page, 'verdict').or(page.getByText('Closed, no self-crossings'))).toBeVisible();
  await page.getByRole('button', { name: 'Switch off: Unite' }).click();
  await expect.poll(() => shapes.count()).toBe(before);
  await page.getByRole('button', { name: 'Take away: Unite' }).click();
  await expect(page.getByRole('button', { name: /Unite$/ }).filter({ hasText: 'Unite' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => shapes.count()).toBeLessThan(before);
  await saved(page);
  await page.reload();
  await page.locator('[data-outline-desk="ready"]').waitFor();
  expect(await shapes.count()).toBeLessThan(before);
  expect(trouble).toEqual([]);
});

test('a connected word is parted from its dots in one click, and stays when the text goes on', async ({ page }) => {
  const trouble = troubleOn(page);
  const project = await (await page.request.post('/api/projects', { data: { name: 'Word' } })).json();
  await page.goto(`/projects/${project.id}/source`);
  await page.getByLabel('Text to set').fill('نجوم');
  await page.getByRole('button', { name: 'Set', exact: true }).click();
  await expect(page.getByText('2 letters in 1 layer')).toBeVisible();
  await proven(page);
  await openOutline(page);
  await page.getByRole('button', { name: 'all', exact: true }).click();
  await page.getByRole('button', { name: 'Dots apart from bodies' }).click();
  await expect(page.getByRole('list', { name: 'Layers' }).getByRole('listitem')).toHaveCount(2);
  await stations(page).getByRole('link', { name: 'Source' }).click();
  await page.getByLabel('Text', { exact: true }).fill('نجوم 1');
  await expect(page.getByText('4 letters in 2 layers')).toBeVisible();
  await proven(page);
  await expect(page.getByText('Closed, no self-crossings')).toBeVisible();
  expect(trouble).toEqual([]);
});

const GRID = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 90 90"><g fill="none" stroke="#225577" stroke-width="1">
  <path d="M0 30H90"/><path d="M0 60H90"/><path d="M30 0V90"/><path d="M60 0V90"/><path d="M0 0H90V90H0Z"/></g></svg>`;

test('faces between loose lines are picked and filled, and split along a line', async ({ page }) => {
  const trouble = troubleOn(page);
  const project = await (await page.request.post('/api/projects', { data: { name: 'Lines' } })).json();
  await page.goto(`/projects/${project.id}/source`);
  await dropFile(page, 'grid.svg', GRID);
  await proven(page);
  await openOutline(page);
  await page.getByRole('button', { name: 'all', exact: true }).click();
  await chosen(page, '5 chosen');
  await page.getByRole('button', { name: 'Fill faces between the chosen lines' }).click();
  await expect(page.locator('[data-faces="9"]')).toBeAttached();
  await page.locator('[data-faces] path').nth(4).click();
  await page.getByRole('button', { name: 'Fill the face' }).click();
  await expect(page.getByText('1 face of 9 filled').first()).toBeVisible();
  await expect(page.locator('[data-shape]')).toHaveCount(1);
  await page.getByRole('button', { name: 'all', exact: true }).click();
  await page.getByRole('button', { name: 'Split the chosen shapes along a line' }).click();
  await drag(page, [0.5, 0.17], [0.52, 0.95]);
  await expect(page.getByText('1 shape split in two').first()).toBeVisible();
  await expect(page.locator('[data-shape]')).toHaveCount(2);
  await page.keyboard.press('Escape');
  await page.locator('[data-shape] path').first().click();
  await page.keyboard.press('Delete');
  await expect(page.locator('[data-shape]')).toHaveCount(1);
  await proven(page);
  await expect(page.getByText('Closed, no self-crossings')).toBeVisible();
  expect(trouble).toEqual([]);
});

test('outlines go out as SVG and DXF, read back the same', async ({ page }) => {
  await openDemo(page, 'export');
  for (const name of ['SVG', 'DXF']) {
    await page.getByRole('radio', { name: new RegExp(`^${name}`) }).check();
    await page.getByRole('button', { name: `Make the ${name} file` }).click();
    await expect(page.getByRole('link', { name: new RegExp(`\\.${name.toLowerCase()}`) })).toBeVisible();
    await expect(page.locator('[data-read-back="true"]')).toBeVisible();
  }
});

test('a point is dragged, moved by numbers, made smooth and deleted; nothing else on the sheet moves', async ({
  page,
}) => {
  const trouble = troubleOn(page);
  const project = await (await page.request.post('/api/projects', { data: { name: 'Points' } })).json();
  await page.goto(`/projects/${project.id}/source`);
  const two =
    '<svg viewBox="0 0 100 100"><path id="a" d="M0 0H60V60H0Z"/><path id="b" fill="#a33" d="M80 0H100V20H80Z"/></svg>';
  await dropFile(page, 'two.svg', two);
  await proven(page);
  await openOutline(page);
  const path = (id: string) => page.locator(`[data-shape="#${id}"] path`).first();
  const d = (id: string) => path(id).getAttribute('d');
  const other = await d('b');
  await path('a').click();
  await page.getByRole('button', { name: 'Points and handles of the chosen shape' }).click();
  await expect(page.locator('[data-points="4"]')).toBeAttached();
  // The corner at (60, 60), wherever it is on the screen.
  const corner = (await path('a').boundingBox())!;
  const at = [corner.x + corner.width, corner.y + corner.height] as const;
  await page.mouse.move(...at);
  await page.mouse.down();
  await page.mouse.move(at[0] + 40, at[1] + 25, { steps: 5 });
  await page.mouse.up();
  await expect(page.getByText('points of “a” edited').first()).toBeVisible();
  expect(await d('a')).toMatch(/^M0 0L60 0L6\d\.\d+ 6\d\.\d+L0 60Z$/);
  expect(await d('b')).toBe(other);
  await page.getByLabel('Across').fill('10');
  await page.getByLabel('Across').press('Enter');
  await expect.poll(() => d('a')).toMatch(/^M0 0L60 0L\d+(\.\d+)? 6\d\.\d+L0 60Z$/);
  await page.getByRole('button', { name: 'smooth', exact: true }).click();
  await expect.poll(() => d('a')).toMatch(/C/);
  await page.keyboard.press('Delete');
  await expect(page.locator('[data-points="3"]')).toBeAttached();
  // Edits of one shape’s points in a row are one edit.
  await expect(page.getByRole('button', { name: 'Take away: Points' })).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('[data-points="4"]')).toBeAttached();
  expect(await d('b')).toBe(other);
  await proven(page);
  expect(trouble).toEqual([]);
});
