// What goes wrong is said in one sentence, and nothing is lost.
import { expect, type Route, test } from '@playwright/test';
import { dropFile, openDemo, proofNumber, proven, saved, troubleOn } from './steps.ts';

const BAD: [name: string, content: string, message: RegExp][] = [
  ['photo.svg', 'GIF89a…', /The GIF file is damaged or ends early/],
  ['letter.svg', 'Dear observatory', /This is neither a drawing \(SVG, DXF\)/],
  ['broken.svg', '<svg><g></svg>', /not well-formed XML: line 1, column \d+/],
  ['empty.svg', '', /The file is empty/],
  [
    'hollow.svg',
    '<svg viewBox="0 0 9 9"><path fill="none" d="M0 0L9 9"/><text>Hi</text></svg>',
    /no filled shape and no stroke.*1 × text/,
  ],
  ['far.svg', '<svg><path d="M0 0L1e308 1e308L5 5NaN"/></svg>', /no filled shape/],
  ['loop.svg', '<svg><g id="a"><use href="#a"/></g></svg>', /use that contains itself/],
];

test('a bad file leaves the project as it was and says what is wrong', async ({ page }) => {
  await openDemo(page, 'source');
  const points = await proofNumber(page, 'points');
  for (const [name, content, message] of BAD) {
    await dropFile(page, name, content);
    const note = page.getByText(`${name} was not brought in.`, { exact: false });
    await expect(note).toBeVisible();
    await expect(note).toHaveText(message);
    await expect(note).toHaveText(/The project is as it was\.$/);
  }
  expect(await proofNumber(page, 'points')).toBe(points);
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
});

test('a bad file is spoken of at whatever station it is dropped', async ({ page }) => {
  await openDemo(page, 'build');
  await dropFile(page, 'broken.stl', 'solid plinth\n facet normal 0 0');
  const note = page.getByRole('alert').filter({ hasText: 'broken.stl was not brought in.' });
  await expect(note).toHaveText(/The project is as it was\.$/);
  await page.getByRole('button', { name: 'Put these notes aside' }).click();
  await expect(note).toBeHidden();
});

test('50 MB of path are refused at once', async ({ page }) => {
  await openDemo(page, 'source');
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.items.add(new File([`<svg><path d="M0 0${'L1 1'.repeat(13_000_000)}"/></svg>`], 'coast.svg'));
    for (const type of ['dragenter', 'dragover', 'drop']) {
      document.querySelector('[data-drop]')!.dispatchEvent(new DragEvent(type, { dataTransfer: data, bubbles: true }));
    }
  });
  await expect(page.getByText(/coast\.svg was not brought in\. It is 50 MB; vector files up to 24 MB/)).toBeVisible();
});

test('two windows cannot overwrite each other: the choice is offered, both versions live', async ({
  page,
  context,
}) => {
  const id = await openDemo(page);
  const other = await context.newPage();
  await other.goto(`/projects/${id}/build`);
  await proven(other);
  const setDepth = async (window: typeof page, value: string) => {
    await window.getByRole('button', { name: 'Heron', exact: true }).click();
    await window.getByRole('spinbutton', { name: 'Depth' }).fill(value);
    await window.getByRole('spinbutton', { name: 'Depth' }).press('Enter');
  };
  await setDepth(other, '5');
  await saved(other);
  await setDepth(page, '7');
  const dialog = page.getByRole('dialog', { name: 'Changed in another window' });
  await expect(dialog.getByRole('heading')).toBeVisible();
  await dialog.getByRole('button', { name: 'Go on with the other version' }).click();
  await expect(page.getByRole('slider', { name: 'Heron: depth' })).toHaveAttribute('aria-valuenow', '5');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('slider', { name: 'Heron: depth' })).toHaveAttribute('aria-valuenow', '7');
  await saved(page);
  await setDepth(other, '6');
  await other.getByRole('button', { name: 'Save mine over it' }).click();
  await saved(other);
  await other.reload();
  await expect(other.getByRole('slider', { name: 'Heron: depth' })).toHaveAttribute('aria-valuenow', '6');
});

test('leaving at once loses nothing, and coming back shows the newest revision', async ({ page }) => {
  const id = await openDemo(page);
  await page.getByRole('checkbox', { name: 'Build Moon' }).click();
  await page.getByRole('link', { name: 'Outline Stack' }).click();
  await page.getByRole('link', { name: /^Saltmarsh mission patch/ }).click();
  await proven(page);
  await expect(page).toHaveURL(`/projects/${id}/build`);
  await expect(page.getByRole('checkbox', { name: 'Build Moon' })).not.toBeChecked();
  await page.getByRole('checkbox', { name: 'Build Rim' }).uncheck();
  await saved(page);
  await expect(page.getByRole('dialog')).toHaveCount(0);
});

test('a change made without the server is kept and saved when it is back', async ({ page }) => {
  await openDemo(page);
  await page.route('**/api/projects/*', (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.continue(),
  );
  await page.getByRole('checkbox', { name: 'Build Moon' }).click();
  await expect(page.getByRole('button', { name: 'Not saved: try again' })).toBeVisible();
  await page.unroute('**/api/projects/*');
  await page.getByRole('button', { name: 'Not saved: try again' }).click();
  await saved(page);
});

test('a change made without the server outlives leaving its project, and even the page', async ({ page }) => {
  await openDemo(page);
  const isSaving = (route: Route) => (route.request().method() === 'PUT' ? route.abort() : route.continue());
  await page.route('**/api/projects/*', isSaving);
  const name = page.getByRole('textbox', { name: 'Project name' });
  await name.fill('Patch of the night');
  await name.press('Enter');
  await expect(page.getByRole('button', { name: 'Not saved: try again' })).toBeVisible();
  await page.getByRole('link', { name: 'Outline Stack' }).click();
  const note = page.getByText(/Changes to “Patch of the night” are not on the server yet/);
  await expect(note).toBeVisible();
  await page.reload();
  await expect(note).toBeVisible();
  await page.unroute('**/api/projects/*', isSaving);
  await page.getByRole('button', { name: 'Try now' }).click();
  await expect(note).toHaveCount(0);
  await expect(page.getByRole('link', { name: /^Patch of the night/ })).toBeVisible();
});

test('an edge that reaches too far ends in a ridge, holds back, or is made safe', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('button', { name: 'Heron', exact: true }).click();
  const reach = page.getByRole('spinbutton', { name: 'Reach' });
  await reach.fill('3');
  await reach.press('Enter');
  const beyond = page.getByRole('button', { name: /^Beyond the safe reach/ });
  await expect(beyond).toHaveText('rises to a ridge');
  await proven(page);
  const volume = page.locator('[data-proof="volume"]');
  const [verdict, ridged] = [page.locator('[data-proof="verdict"]'), await volume.textContent()];
  await expect(verdict).toHaveText('Closed, no crossing faces');
  await beyond.click();
  await page.getByRole('option', { name: 'holds back and keeps a flat front' }).click();
  await expect(volume).not.toHaveText(ridged!);
  await proven(page);
  await expect(verdict).toHaveText('Closed, no crossing faces');
  await page.getByRole('button', { name: 'Stay within it' }).click();
  await expect(beyond).toHaveCount(0);
});

test('an unknown address and an unknown project say so', async ({ page }) => {
  await page.goto('/nowhere');
  await expect(page.getByText('There is no such page.')).toBeVisible();
  await page.goto('/projects/nobody/build');
  await expect(page.getByText('There is no project nobody.')).toBeVisible();
  await page.getByRole('link', { name: 'Back to the projects' }).click();
  await expect(page.getByRole('heading', { name: 'Outline Stack' })).toBeVisible();
});

test('nothing is asked of any other host', async ({ page }) => {
  const trouble = troubleOn(page);
  const hosts = new Set<string>();
  page.on('request', (request) => {
    const { protocol, host } = new URL(request.url());
    if (protocol.startsWith('http')) hosts.add(host);
  });
  await openDemo(page);
  expect([...hosts]).toHaveLength(1);
  expect(trouble).toEqual([]);
});
