// What layers look like: materials by side, a library, palettes; fronts that are not flat; and variants side by side.
import { expect, type Page, test } from '@playwright/test';
import { exported, glbJson, madeFile, openDemo, proofNumber, proven, troubleOn } from './steps.ts';

const row = (page: Page, name: string) =>
  page.getByRole('list', { name: 'Layers' }).getByRole('button', { name, exact: true });

async function choose(page: Page, choice: RegExp, option: string): Promise<void> {
  await page.getByRole('button', { name: choice }).click();
  await page.getByRole('option', { name: option, exact: true }).click();
}

test('a side is made of something else, goes into the file as a material of its own, and comes back', async ({
  page,
}) => {
  const trouble = troubleOn(page);
  await openDemo(page);
  await row(page, 'Moon').click();
  await choose(page, /^Side:/, 'The edge');
  await page.getByText('Materials to put on').click();
  await page.getByRole('list', { name: 'Library' }).getByRole('button', { name: 'Gold leaf' }).click();
  await expect(page.getByText('The edge is made of something else than the rest.')).toBeVisible();
  await expect(page.getByLabel('Metalness', { exact: true })).toHaveValue('100');
  await page.getByLabel('Name to keep this material by').fill('Moon gold');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByRole('list', { name: 'Kept', exact: true }).getByText('Moon gold')).toBeVisible();
  await proven(page);
  const json = glbJson(await exported(page));
  expect(json.materials.map(({ name }: { name: string }) => name)).toContain('Moon, edge');
  expect(json.meshes.find(({ name }: { name: string }) => name === 'Moon').primitives).toHaveLength(2);
  await page.getByRole('link', { name: 'Build' }).click();
  await choose(page, /^Side:/, 'The edge');
  await page.getByRole('button', { name: 'As the rest' }).click();
  await expect(page.getByText('The edge is made of something else')).toHaveCount(0);
  expect(trouble).toEqual([]);
});

test('a palette goes over all layers and takes one step back', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('button', { name: 'Choose all that are built' }).click();
  const colours = () =>
    page
      .locator('[data-layer]')
      .evaluateAll((rows) =>
        rows.map((each) => getComputedStyle(each.parentElement!.querySelector('span')!).backgroundColor),
      );
  const before = await colours();
  await page.getByText('Colours of all of them').click();
  await page.getByRole('button', { name: 'Ink' }).click();
  await expect.poll(colours).not.toEqual(before);
  await page.keyboard.press('ControlOrMeta+z');
  await expect.poll(colours).toEqual(before);
});

test('a front is crowned and slanted, and what would come through the back is refused', async ({ page }) => {
  const trouble = troubleOn(page);
  await openDemo(page);
  await row(page, 'Heron').click();
  const flat = await proofNumber(page, 'volume');
  await choose(page, /^Form of the front/, 'crowned');
  await proven(page);
  await expect(page.getByText('Closed, no crossing faces')).toBeVisible();
  expect(await proofNumber(page, 'volume')).toBeGreaterThan(flat);
  await choose(page, /^Form of the front/, 'slanted');
  const slant = page.getByLabel('Slant', { exact: true });
  await slant.fill('60');
  await slant.press('Enter');
  await expect(page.getByText(/The front slants down to .* the slant less than/).first()).toBeVisible();
  await row(page, 'Moon').click();
  await page
    .getByRole('region', { name: 'Proof' })
    .getByRole('button', { name: /^Heron: The front slants/ })
    .click();
  await expect(row(page, 'Heron')).toHaveAttribute('aria-pressed', 'true');
  await choose(page, /^Form of the front/, 'flat');
  await proven(page);
  expect(await proofNumber(page, 'volume')).toBe(flat);
  expect(trouble).toEqual([]);
});

test('variants lie side by side, two are seen large, one is taken as one step, and nothing else stays', async ({
  page,
}) => {
  const trouble = troubleOn(page);
  await openDemo(page);
  await row(page, 'Heron').click();
  await page.getByRole('button', { name: 'Contact sheet' }).click();
  const sheet = page.getByRole('dialog');
  await choose(page, /^Varied down the columns/, 'material');
  await expect(sheet.getByText('All made')).toBeVisible();
  const variants = sheet.getByRole('list', { name: 'Variants' });
  await expect(variants.getByRole('listitem')).toHaveCount(9);
  await expect(variants.getByRole('img')).toHaveCount(9);
  const values = sheet.getByLabel('Values along the row');
  await values.fill('2 -1');
  await values.press('Enter');
  await expect(variants.getByText(/The change was not made/).first()).toBeVisible();
  await values.fill('3 6');
  await values.press('Enter');
  await expect(sheet.getByText('All made')).toBeVisible();
  await variants.getByRole('button', { name: 'Look at depth 3 mm, material Enamel closely' }).click();
  await variants.getByRole('button', { name: 'Look at depth 6 mm, material Enamel closely' }).click();
  await expect(sheet.getByRole('img')).toHaveCount(8);
  await variants.getByRole('listitem').filter({ hasText: '6 mm · material Enamel' }).getByText('Take it').click();
  await expect(sheet).toHaveCount(0);
  await expect(page.getByLabel('Depth', { exact: true })).toHaveValue('6');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByLabel('Depth', { exact: true })).toHaveValue('2.6');
  expect(trouble).toEqual([]);
});

test('outlines of another layer stand out of a front, in one body with it, and come off again', async ({ page }) => {
  await openDemo(page);
  const volume = await proofNumber(page, 'volume');
  await row(page, 'Night').click();
  await choose(page, /^Layer that stands out of the front/, 'Marsh');
  await expect(page.getByText('On its front, “Marsh” stands out by')).toBeVisible();
  await expect(page.getByLabel('Build Marsh')).not.toBeChecked();
  await page.getByLabel('Height of Marsh on the front').fill('-1');
  await page.keyboard.press('Enter');
  await expect(page.getByText('On its front, “Marsh” sinks in by')).toBeVisible();
  await proven(page);
  await expect.poll(() => proofNumber(page, 'volume')).toBeLessThan(volume);
  await page.getByRole('button', { name: 'take it off' }).click();
  await expect(page.getByLabel('Build Marsh')).toBeChecked();
  await proven(page);
  await expect.poll(() => proofNumber(page, 'volume')).toBeCloseTo(volume, 0);
});

test('a picture lies on a side, and everything is baked into one that the file holds', async ({ page }) => {
  const trouble = troubleOn(page);
  await openDemo(page);
  await page.getByRole('button', { name: 'Source behind the solid' }).click();
  await expect(page.getByRole('button', { name: 'Source behind the solid' })).toHaveAttribute('aria-pressed', 'true');
  await row(page, 'Night').click();
  await page.getByLabel('Picture to lay on it').setInputFiles('README.md');
  await expect(page.getByText('“README.md” is no picture that can be read: take PNG, JPEG or WebP.')).toBeVisible();
  // The first bytes of a picture, and no more.
  const damaged = { name: 'damaged.png', mimeType: 'image/png', buffer: Buffer.from('89504e470d0a1a0a0000', 'hex') };
  await page.getByLabel('Picture to lay on it').setInputFiles(damaged);
  await expect(page.getByText('“damaged.png” was not laid on it. The PNG file is damaged')).toBeVisible();
  await expect(page.getByText('It shows no picture')).toBeVisible();
  await page.getByLabel('Picture to lay on it').setInputFiles('demo/crest.jpg');
  await expect(page.getByText('It shows “crest.jpg” where its UVs lay it')).toBeVisible();
  await page.getByRole('link', { name: 'Export' }).click();
  await choose(page, /^Materials of the file/, 'share a baked picture of 512 px');
  const json = glbJson(await madeFile(page));
  expect([json.images.length, json.materials.length]).toEqual([1, 1]);
  expect(
    json.meshes.every(({ primitives: [first] }: { primitives: { material: number }[] }) => first!.material === 0),
  ).toBe(true);
  await page.keyboard.press('ControlOrMeta+z');
  await page.getByRole('link', { name: 'Build' }).click();
  await expect(page.getByText('It shows no picture')).toBeVisible();
  expect(trouble).toEqual([]);
});
