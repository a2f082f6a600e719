// What every hand does first: steps back, layers by name, everything found by typing, projects kept in order.
import { expect, type Page, test } from '@playwright/test';
import { openDemo, proven, saved, troubleOn } from './steps.ts';

const layer = (page: Page, name: string) =>
  page.getByRole('list', { name: 'Layers' }).getByRole('button', { name, exact: true });
const depth = (page: Page) => page.getByRole('spinbutton', { name: 'Depth' });
const type = async (page: Page, name: string, text: string) => {
  await page.getByRole('spinbutton', { name }).fill(text);
  await page.getByRole('spinbutton', { name }).press('Enter');
};

test('steps are listed, undone after a reload, and gone back and forth through', async ({ page }) => {
  await openDemo(page);
  await layer(page, 'Heron').click();
  for (const value of ['7', '8', '9']) await type(page, 'Depth', value);
  // Enter has freed the field: the key undoes the project, and the field says what the model has.
  await page.keyboard.press('Control+z');
  await expect(depth(page)).toHaveValue('8');
  await saved(page);
  await page.reload();
  await proven(page);
  await layer(page, 'Heron').click();
  await expect(depth(page)).toHaveValue('8');
  await page.keyboard.press('Control+z');
  await expect(depth(page)).toHaveValue('7');
  await page.getByRole('button', { name: 'Steps' }).click();
  const steps = page.getByRole('list', { name: 'Steps, the newest first' }).getByRole('button');
  await expect(steps).toHaveText([/^Depth of Heron/, /^Depth of Heronundone/, /^Depth of Heronnow/, /^Before these/]);
  await steps.last().click();
  await expect(depth(page)).toHaveValue('2.6');
  await page.getByRole('button', { name: 'Steps' }).click();
  await steps.first().click();
  await expect(depth(page)).toHaveValue('9');
});

test('layers are chosen in ranges and one by one, by hand and by keys', async ({ page }) => {
  await openDemo(page);
  const chosen = page.getByRole('list', { name: 'Layers' }).locator('[data-layer][aria-pressed="true"]');
  await layer(page, 'Rim').click();
  await layer(page, 'Tide').click({ modifiers: ['Shift'] });
  await expect(chosen).toHaveText(['Rim', 'Heron', 'Moon', 'Tide']);
  await layer(page, 'Heron').click({ modifiers: ['ControlOrMeta'] });
  await expect(chosen).toHaveText(['Rim', 'Moon', 'Tide']);
  await layer(page, 'Moon').click();
  await page.keyboard.press('ArrowDown');
  await expect(chosen).toHaveText(['Tide']);
  await page.keyboard.press('Shift+ArrowUp');
  await page.keyboard.press('Shift+ArrowUp');
  await expect(chosen).toHaveText(['Heron', 'Moon', 'Tide']);
  await expect(layer(page, 'Heron')).toBeFocused();
  // With nothing in focus the arrows go through the layers as well.
  await layer(page, 'Moon').click();
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await page.keyboard.press('ArrowUp');
  await expect(chosen).toHaveText(['Heron']);
});

test('layers are renamed in place, copied, hidden and removed, and the names travel into files', async ({ page }) => {
  const trouble = troubleOn(page);
  const id = await openDemo(page);
  await layer(page, 'Heron').dblclick();
  // Letters typed into a name are no keys.
  await page.keyboard.type('vehb');
  await page.keyboard.press('Enter');
  await expect(layer(page, 'vehb')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Solid', exact: true })).toHaveAttribute('aria-pressed', 'true');
  await layer(page, 'vehb').click();
  await page.keyboard.press('F2');
  await page.getByRole('textbox', { name: 'Name of vehb' }).fill('nobody');
  await page.keyboard.press('Escape');
  await expect(layer(page, 'vehb')).toBeVisible();
  await layer(page, 'vehb').click({ button: 'right' });
  await page.getByRole('menuitem', { name: 'Copy on top' }).click();
  await expect(layer(page, 'vehb 2')).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByRole('slider', { name: 'vehb 2: base' })).toHaveAttribute('aria-valuenow', '9');
  await layer(page, 'vehb 2').focus();
  await page.keyboard.press('h');
  await expect(page.getByRole('button', { name: 'Hide vehb 2 in the view' })).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByRole('checkbox', { name: 'Build vehb 2' })).toBeChecked();
  await page.keyboard.press('Delete');
  await expect(layer(page, 'vehb 2')).toHaveCount(0);
  await expect(page.getByRole('list', { name: 'Layers' }).locator('[data-layer]:focus')).toHaveCount(1);
  await saved(page);
  const { revision } = await (await page.request.get(`/api/projects/${id}`)).json();
  const job = await page.request.post(`/api/projects/${id}/exports`, { data: { format: 'glb', revision } });
  const { id: export_ } = await job.json();
  await expect(async () => {
    const file = await page.request.get(`/api/exports/${export_}/file`);
    expect(file.ok() && (await file.body()).includes('vehb')).toBe(true);
  }).toPass();
  expect(trouble).toEqual([]);
});

test('commands, stations, layers and projects are found by typing', async ({ page }) => {
  await openDemo(page);
  const find = async (text: string) => {
    await page.keyboard.press('Control+k');
    await page.getByRole('combobox', { name: 'Find anything' }).fill(text);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('combobox', { name: 'Find anything' })).toHaveCount(0);
  };
  await find('tide');
  await expect(layer(page, 'Tide')).toHaveAttribute('aria-pressed', 'true');
  // From within a field as well.
  await depth(page).focus();
  await find('edges of all');
  await expect(page.getByRole('button', { name: 'Edges of all faces' })).toHaveAttribute('aria-pressed', 'true');
  await find('export');
  await expect(page).toHaveURL(/\/export$/);
  await expect(page).toHaveTitle('Export · Saltmarsh mission patch · Outline Stack');
  await find('crest');
  await proven(page);
  await expect(page).toHaveTitle('Build · Saltmarsh crest · Outline Stack');
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Find anything' }).fill('no such thing');
  await expect(page.getByText('Nothing is called so.')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('combobox', { name: 'Find anything' })).toHaveCount(0);
});

test('every bare icon says its name and its key, on hover and on focus', async ({ page }) => {
  await openDemo(page);
  const undo = page.getByRole('button', { name: 'Help' });
  await undo.hover();
  await expect(page.getByRole('tooltip', { includeHidden: true })).toHaveText('Help?');
  await page.mouse.move(640, 600);
  await expect(page.getByRole('tooltip', { includeHidden: true })).toHaveCount(0);
  await undo.focus();
  await page.keyboard.press('Shift+Tab');
  await expect(page.getByRole('tooltip', { includeHidden: true })).toHaveText('Day or night');
  const bare = page.locator('button:has(svg):not([data-tip])').filter({ hasNotText: /\S/ });
  expect(await bare.evaluateAll((all) => all.map((each) => each.outerHTML))).toEqual([]);
});

test('projects are searched, sorted, renamed, copied, deleted and brought back; one demo is restored by itself', async ({
  page,
}) => {
  const picture = page.waitForResponse(
    (reply) => reply.request().method() === 'PUT' && reply.url().includes('/picture'),
  );
  const id = await openDemo(page);
  await picture;
  await page.goto('/');
  const cards = page.getByRole('list', { name: 'Projects' }).getByRole('link', { name: /^Saltmarsh/ });
  const name = (text: string) => page.getByRole('link', { name: text, exact: true });
  await expect(name('Saltmarsh mission patch').locator('img')).toHaveAttribute('src', /picture/);
  await page.getByRole('searchbox', { name: 'Search the projects' }).fill('salt cr');
  await expect(cards).toHaveText(['Saltmarsh crest']);
  await page.getByRole('searchbox', { name: 'Search the projects' }).fill('saltmarsh');
  await page.getByRole('button', { name: 'Rename Saltmarsh crest' }).click();
  await page.keyboard.type('Saltmarsh arms');
  await page.keyboard.press('Enter');
  await expect(name('Saltmarsh arms')).toBeVisible();
  await page.getByRole('combobox', { name: 'Order' }).selectOption('by name');
  await expect(cards.first()).toHaveText('Saltmarsh arms');
  await page.getByRole('button', { name: 'Copy Saltmarsh arms' }).click();
  await expect(name('Saltmarsh arms 2')).toBeVisible();
  await page.getByRole('button', { name: 'Delete Saltmarsh arms 2' }).click();
  await expect(name('Saltmarsh arms 2')).toHaveCount(0);
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await expect(name('Saltmarsh arms 2')).toBeVisible();
  await page.getByRole('button', { name: 'Delete Saltmarsh arms 2' }).click();
  await page.getByRole('button', { name: 'Restore Saltmarsh arms as it came' }).click();
  await page.getByRole('button', { name: 'Restore', exact: true }).click();
  await expect(name('Saltmarsh crest')).toBeVisible();
  // The other demos are those they were.
  expect((await page.request.get(`/api/projects/${id}`)).ok()).toBe(true);
});

test('two hundred projects are listed, of which only those in sight are made', async ({ page }) => {
  await openDemo(page);
  const made: string[] = [];
  for (let i = 0; i < 200; i++) {
    const { id } = await (await page.request.post('/api/projects', { data: { name: `Sign ${i}` } })).json();
    made.push(id);
  }
  await page.goto('/');
  const list = page.getByRole('list', { name: 'Projects' });
  await expect(page.getByRole('link', { name: 'Sign 199', exact: true })).toBeVisible();
  expect(await list.getByRole('listitem').count()).toBeLessThan(40);
  await page.mouse.move(600, 500);
  await page.mouse.wheel(0, 30_000);
  await expect(page.getByRole('link', { name: 'Saltmarsh mission patch', exact: true })).toBeVisible();
  for (const id of made) await page.request.delete(`/api/projects/${id}`);
});

test('drawings, pictures and the text of a drawing are pasted anywhere, and dropped anywhere', async ({ page }) => {
  await openDemo(page);
  const paste = (text: string) =>
    page.evaluate((svg) => {
      const data = new DataTransfer();
      data.setData('text/plain', svg);
      document.body.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));
    }, text);
  await paste('<svg viewBox="0 0 10 10"><rect id="plate" width="9" height="4" fill="#a0c040"/></svg>');
  await expect(page.getByRole('checkbox', { name: /^Build / })).toHaveCount(8);
  // Text that is no drawing is nobody's business.
  await paste('a letter about <svg>');
  await expect(page.getByRole('checkbox', { name: /^Build / })).toHaveCount(8);
  const transfer = await page.evaluateHandle(() => {
    const data = new DataTransfer();
    data.items.add(new File(['<svg viewBox="0 0 9 9"><circle cx="4" cy="4" r="4"/></svg>'], 'disc.svg'));
    return data;
  });
  const aside = page.getByRole('complementary', { name: 'Stack' });
  for (const event of ['dragenter', 'dragover', 'drop']) await aside.dispatchEvent(event, { dataTransfer: transfer });
  await expect(page.getByRole('checkbox', { name: /^Build / })).toHaveCount(9);
});

test('the guide is found by typing, read page by page, and searched', async ({ page }) => {
  const trouble = troubleOn(page);
  await page.goto('/');
  await page.getByRole('button', { name: 'Find anything' }).waitFor();
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Find anything' }).fill('tidying');
  await page.getByRole('option', { name: /Light, UV and tidying/ }).click();
  await expect(page).toHaveURL(/\/help\/build#light-uv-and-tidying$/);
  await expect(page.getByRole('heading', { name: 'Light, UV and tidying' })).toBeInViewport();
  const guide = page.getByRole('navigation', { name: 'Guide' });
  await page.getByRole('searchbox', { name: 'Search the guide' }).fill('jambs');
  await expect(guide.getByRole('listitem')).toHaveText(['Outline']);
  await page.getByRole('searchbox', { name: 'Search the guide' }).fill('');
  await guide.getByRole('link', { name: 'From a scan to a coin' }).click();
  await page.getByRole('main').getByRole('link', { name: 'Export' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Export');
  const shown = page.getByRole('img').first();
  await expect.poll(() => shown.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBeGreaterThan(600);
  expect(trouble).toEqual([]);
});
