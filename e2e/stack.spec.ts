// The stack: values by rule, what layers share, and recipes that go from layer to layer.
import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { openDemo, openProject, proven, saved, troubleOn } from './steps.ts';

test('depths go by a rule: tried with ghosts, taken, differed from, come back to and given up', async ({ page }) => {
  const trouble = troubleOn(page);
  await openDemo(page);
  const depths = () =>
    page
      .getByRole('list', { name: 'Layers' })
      .getByRole('listitem')
      .locator('.figure')
      // Without the sign of a base that differs from its rule.
      .evaluateAll((figures) => figures.map((figure) => figure.textContent!.replace('≠', '').trim()));
  const before = await depths();
  await page.getByRole('button', { name: 'Choose all that are built' }).click();
  await page.getByText('By a rule').click();
  const ghosts = page.locator('[data-ghost]');
  await expect(ghosts).not.toHaveCount(0);
  await page.getByRole('button', { name: /^Rule:/ }).click();
  await page.getByRole('option', { name: 'a list' }).click();
  const list = page.getByLabel('Values of the rule');
  await list.fill('two 3');
  await list.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'Type numbers' })).toBeVisible();
  await list.fill('2  3.5');
  await list.press('Enter');
  await expect
    .poll(() => ghosts.evaluateAll((all) => all.map((ghost) => ghost.getAttribute('data-ghost'))))
    .toContain('0 2');
  // Nothing has changed yet.
  expect(await depths()).toEqual(before);
  await page.getByRole('button', { name: 'Give 6 layers their depth' }).click();
  // From the highest down.
  await expect.poll(depths).toEqual(['3.5', '2', '3.5', '2', '3.5', '2']);
  await expect(ghosts).toHaveCount(0);
  await expect(page.getByText('The depth goes by a list')).toBeVisible();
  await proven(page);
  await expect(page.getByText('Closed, no crossing faces')).toBeVisible();

  await page.getByRole('list', { name: 'Layers' }).getByRole('button', { name: 'Moon', exact: true }).click();
  const depth = page.getByLabel('Depth', { exact: true });
  await depth.fill('9');
  await depth.press('Enter');
  await expect(page.getByTitle('The depth differs from its rule')).toHaveCount(1);
  await expect(page.getByText('one differs from the rule, which gave 3.5 mm')).toBeVisible();
  await page.getByRole('button', { name: 'Back to the rule' }).click();
  await expect(depth).toHaveValue('3.5');
  await expect(page.getByTitle('The depth differs from its rule')).toHaveCount(0);
  await page.getByText('The depth goes by a list').getByRole('button', { name: 'Give the rule up' }).click();
  await expect(page.getByText('goes by a list')).toHaveCount(0);
  expect(await depths()).toEqual(['3.5', '2', '3.5', '2', '3.5', '2']);
  expect(trouble).toEqual([]);
});

test('a rule that would leave nothing of a layer is refused, and nothing changes', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('button', { name: 'Choose all that are built' }).click();
  await page.getByText('By a rule').click();
  const from = page.getByLabel('Rule from');
  await from.fill('-2');
  await from.press('Enter');
  await page.getByRole('button', { name: 'Give 6 layers their depth' }).click();
  await expect(page.getByText(/The change was not made: .*depth/).first()).toBeVisible();
  await expect(page.getByRole('list', { name: 'Layers' }).getByText('2.6')).toBeVisible();
});

test('what layers share is told apart, gone to, and parted with one click', async ({ page }) => {
  const trouble = troubleOn(page);
  await openDemo(page);
  await page.getByRole('list', { name: 'Layers' }).getByRole('button', { name: 'Heron', exact: true }).click();
  const base = page.getByLabel('Base', { exact: true });
  await base.fill('4');
  await base.press('Enter');
  await expect(page.locator('[data-shared]')).not.toHaveCount(0);
  await page.getByRole('link', { name: 'Proof' }).click();
  await expect(page.getByRole('heading', { name: 'In the same space' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'On each other' })).toBeVisible();
  await page.getByRole('button', { name: 'Moon and Heron' }).click();
  await expect(page.getByRole('list', { name: 'Layers' }).getByRole('button', { pressed: true })).toHaveCount(2);
  await page.getByRole('button', { name: 'Part them', exact: true }).click();
  await expect(page.locator('[data-shared]')).toHaveCount(0);
  await proven(page);
  await expect(page.getByRole('heading', { name: 'Between layers' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('heading', { name: 'On each other' })).toBeVisible();
  expect(trouble).toEqual([]);
});

test('what stands at an angle is measured where it runs through others, and gone to', async ({ page }) => {
  const trouble = troubleOn(page);
  await openDemo(page);
  await page.getByRole('list', { name: 'Layers' }).getByRole('button', { name: 'Heron', exact: true }).click();
  const turned = page.getByLabel('Turned about x', { exact: true });
  await turned.fill('20');
  await turned.press('Enter');
  await page.getByRole('link', { name: 'Proof' }).click();
  await expect(page.getByRole('heading', { name: 'Through each other' })).toBeVisible();
  const row = page.getByRole('listitem').filter({ has: page.getByRole('button', { name: 'Night and Heron' }) });
  await expect(row).toContainText(/[1-9]\S* mm² of faces/);
  await row.getByRole('button').click();
  await expect(page.getByRole('list', { name: 'Layers' }).getByRole('button', { pressed: true })).toHaveCount(2);
  expect(trouble).toEqual([]);
});

test('a recipe is kept, put on other layers in part, goes through a file, and into another project', async ({
  page,
}) => {
  const trouble = troubleOn(page);
  await openDemo(page);
  const layer = (name: string) =>
    page.getByRole('list', { name: 'Layers' }).getByRole('button', { name, exact: true }).click();
  await layer('Moon');
  await page.getByText('Kept recipes').click();
  await page.getByRole('button', { name: 'Keep this recipe' }).click();
  await layer('Heron');
  await page.getByRole('checkbox', { name: 'material' }).uncheck();
  await page.getByRole('checkbox', { name: 'depth' }).uncheck();
  await page.getByRole('button', { name: 'Put on Heron' }).click();
  // The moon's edge, its own depth and colour.
  await expect(page.getByLabel('Reach', { exact: true })).toHaveValue('0.5');
  await expect(page.getByLabel('Depth', { exact: true })).toHaveValue('2.6');
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Write Moon to a file' }).click();
  const file = await (await download).path();
  expect(JSON.parse(readFileSync(file, 'utf8'))).toMatchObject({
    depth: 2.4,
    edge: { reach: 0.5, rise: 0.6, steps: 4 },
  });
  await page.getByRole('button', { name: 'Forget Moon' }).click();
  await page.getByLabel('Read one from a file').setInputFiles({
    name: 'Tide line.json',
    mimeType: 'application/json',
    buffer: readFileSync(file),
  });
  await expect(page.getByRole('list', { name: 'Kept recipes' })).toContainText('Tide line');
  await page.getByLabel('Read one from a file').setInputFiles({
    name: 'wrong.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"depth": -1}'),
  });
  await expect(page.getByText(/wrong.json is no recipe: depth/)).toBeVisible();
  // Another project knows it.
  await saved(page);
  await page.goto('/');
  await openProject(page, 'Saltmarsh crest', 'build');
  await proven(page);
  await layer('Crest');
  await page.getByText('Kept recipes').click();
  await page.getByRole('button', { name: 'Put on Crest' }).click();
  await expect(page.getByLabel('Depth', { exact: true })).toHaveValue('2.4');
  expect(trouble).toEqual([]);
});
