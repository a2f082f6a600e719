// Groups, locks and placement: made by key and by hand, kept, and in the file that leaves.
import { expect, type Page, test } from '@playwright/test';
import { dropFile, exported, glbJson, openDemo, proven, saved, troubleOn } from './steps.ts';

const list = (page: Page) => page.getByRole('list', { name: 'Layers' });
const row = (page: Page, name: string) => list(page).getByRole('button', { name, exact: true });
const names = (page: Page) => list(page).locator('[data-layer]').allTextContents();

async function type(page: Page, label: string, value: string): Promise<void> {
  const field = page.getByLabel(label, { exact: true });
  await field.fill(value);
  await field.press('Enter');
}

async function group(page: Page, layers: readonly string[], name: string): Promise<void> {
  await row(page, layers[0]!).click();
  for (const layer of layers.slice(1)) await row(page, layer).click({ modifiers: ['ControlOrMeta'] });
  await page.keyboard.press('ControlOrMeta+g');
  await page.keyboard.type(name);
  await page.keyboard.press('Enter');
}

test('layers are grouped, folded, dragged into a group and out of it, and ungrouped', async ({ page }) => {
  const trouble = troubleOn(page);
  await openDemo(page);
  const before = await names(page);
  await group(page, ['Heron', 'Tide'], 'Bird');
  expect(await names(page)).toEqual(['Rim', 'Bird', 'Heron', 'Tide', 'Moon', 'Marsh', 'Night', before.at(-1)!]);
  await expect(page.locator('[data-bracket="Bird"]')).toBeVisible();
  await page.getByRole('button', { name: 'Fold Bird' }).click();
  await expect(row(page, 'Heron')).toHaveCount(0);
  await page.getByRole('button', { name: 'Unfold Bird' }).click();

  const onto = async (from: string, to: string, share: number) => {
    const [a, b] = [(await row(page, from).boundingBox())!, (await row(page, to).boundingBox())!];
    await page.mouse.move(a.x + 20, a.y + a.height / 2);
    await page.mouse.down();
    await page.mouse.move(a.x + 20, a.y + a.height / 2 + 8, { steps: 3 });
    await page.mouse.move(b.x + 20, b.y + b.height * share, { steps: 8 });
    await page.mouse.up();
  };
  await onto('Moon', 'Tide', 0.15);
  await expect
    .poll(() => names(page))
    .toEqual(['Rim', 'Bird', 'Heron', 'Moon', 'Tide', 'Marsh', 'Night', before.at(-1)!]);
  await onto('Heron', 'Marsh', 0.85);
  await expect
    .poll(() => names(page))
    .toEqual(['Rim', 'Bird', 'Moon', 'Tide', 'Marsh', 'Heron', 'Night', before.at(-1)!]);
  await row(page, 'Bird').click();
  await page.keyboard.press('ControlOrMeta+Shift+g');
  await expect(row(page, 'Bird')).toHaveCount(0);
  for (let i = 0; i < 5; i++) await page.keyboard.press('ControlOrMeta+z');
  expect(trouble).toEqual([]);
});

test('a locked layer is not changed, says why, and is unlocked by its sign', async ({ page }) => {
  await openDemo(page);
  await row(page, 'Moon').click();
  await page.keyboard.press('l');
  await type(page, 'Depth', '9');
  await expect(page.getByText('“Moon” is locked').first()).toBeVisible();
  await page.getByRole('button', { name: 'Unlock Moon' }).click();
  await type(page, 'Depth', '9');
  await expect(list(page).getByText('9', { exact: true })).toBeVisible();
});

test('layers are chosen for what they have in common', async ({ page }) => {
  await openDemo(page);
  await row(page, 'Moon').click();
  await page.keyboard.press('Alt+m');
  await expect(list(page).locator('[data-layer][aria-pressed="true"]')).not.toHaveCount(1);
  await row(page, 'Moon').click();
  await page.keyboard.press('Alt+c');
  await expect(list(page).locator('[data-layer][aria-pressed="true"]')).toHaveCount(1);
  await page.keyboard.press('Alt+s');
  await expect(list(page).locator('[data-layer][aria-pressed="true"]')).toHaveCount(
    await list(page).locator('[data-layer]').count(),
  );
});

test('a group is turned about its middle, stands in the file so, and comes back when it is undone', async ({
  page,
}) => {
  const trouble = troubleOn(page);
  await openDemo(page);
  await group(page, ['Heron', 'Moon'], 'Bird and moon');
  await type(page, 'Turned about y', '30');
  await expect(page.getByText('turning, it looks lopsided')).toBeVisible();
  await page.getByRole('button', { name: 'Turn it about the middle of its area' }).click();
  // It stays where it stood; from now on it turns about another point.
  await expect(page.getByLabel('Moved across', { exact: true })).not.toHaveValue('0');
  await expect(page.getByLabel('Turned about y', { exact: true })).toHaveValue('30');
  await proven(page);
  const json = glbJson(await exported(page));
  const node = json.nodes.find(({ name }: { name: string }) => name === 'Bird and moon');
  expect(node.children).toHaveLength(2);
  expect(node.rotation[1]).toBeCloseTo(Math.sin(Math.PI / 12), 6);
  expect(node.scale).toBeUndefined();
  expect(trouble).toEqual([]);
});

test('copies on a ring, a size and a sinking are numbers, and undone', async ({ page }) => {
  await openDemo(page);
  await row(page, 'Moon').click();
  await page.getByText('By a turn, a size, copies').click();
  const parts = await page.locator('[data-proof="faces"]').innerText();
  await page.getByRole('button', { name: 'Copies: once' }).click();
  await page.getByRole('option', { name: 'in copies on a ring' }).click();
  await type(page, 'Number of copies', '8');
  await proven(page);
  expect(await page.locator('[data-proof="faces"]').innerText()).not.toBe(parts);
  const size = page.getByLabel('Size', { exact: true });
  await expect(size).toBeVisible();
  await page.getByRole('button', { name: 'Sink', exact: true }).click();
  await expect(page.getByLabel('Moved up', { exact: true })).not.toHaveValue('0');
  await page.getByRole('button', { name: 'As drawn' }).click();
  await expect(page.getByLabel('Moved up', { exact: true })).toHaveValue('0');
  await expect(page.getByLabel('Depth', { exact: true })).toHaveValue('2.4');
  await saved(page);
});

test('things are moved and turned by their handles in the view', async ({ page }) => {
  const trouble = troubleOn(page);
  await openDemo(page);
  await page.keyboard.press('Alt+2');
  await row(page, 'Heron').click();
  await page.keyboard.press('m');
  const view = (await page.getByRole('application', { name: 'Solid' }).boundingBox())!;
  const moved = () => page.getByLabel('Moved across', { exact: true }).inputValue();
  expect(await moved()).toBe('0');
  // Seen from the front, the handle's middle stands in the heron's; its arrow to the right moves across.
  const place = await page.locator('[data-handles]').getAttribute('data-handles');
  const [x, y] = place!.split(' ').map(Number) as [number, number];
  await page.mouse.move(view.x + x + 45, view.y + y);
  await page.mouse.down();
  await page.mouse.move(view.x + x + 75, view.y + y, { steps: 6 });
  await page.mouse.up();
  await expect.poll(moved).not.toBe('0');
  await page.keyboard.press('ControlOrMeta+z');
  await expect.poll(moved).toBe('0');
  expect(trouble).toEqual([]);
});

test('a drawing with named groups comes with its groups', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'New project' }).first().click();
  await expect(page.getByText('An empty sheet')).toBeVisible();
  await dropFile(
    page,
    'sign.svg',
    `<svg viewBox="0 0 90 60"><g id="lantern"><rect width="30" height="30" fill="#204060"/><rect x="5" y="5" width="9" height="9" fill="#e0c040"/></g>
     <g id="shore"><rect y="40" width="60" height="9" fill="#2a6b60"/><rect y="50" width="60" height="9" fill="#c03020"/></g></svg>`,
  );
  await expect(row(page, 'Lantern')).toBeVisible();
  await expect(row(page, 'Shore')).toBeVisible();
  await row(page, 'Lantern').click();
  await expect(list(page).locator('[data-layer][aria-pressed="true"]')).toHaveCount(3);
});
