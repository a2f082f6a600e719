// The solid: edges drawn and dragged, meshes tidied, brought in and proven, and places found in the view.
import { expect, type Page, test } from '@playwright/test';
import { dropFile, openDemo, openProject, proof, proofNumber, proven, sun, troubleOn } from './steps.ts';

const choose = async (page: Page, label: RegExp, option: string | RegExp) => {
  await page.getByRole('button', { name: label }).click();
  await page.getByRole('option', { name: option }).click();
};
const unfold = (page: Page, title: string) => page.locator('summary', { hasText: title }).click();
const set = async (page: Page, label: string, value: string) => {
  const field = page.getByRole('spinbutton', { name: label, exact: true });
  await field.fill(value);
  await field.press('Enter');
};

test('a profile is drawn, named, used again and taken away', async ({ page }) => {
  const trouble = troubleOn(page);
  await openDemo(page);
  await page.getByRole('button', { name: 'Rim', exact: true }).click();
  const volume = await proofNumber(page, 'volume');
  await choose(page, /^Profile/, 'drawn by hand…');
  const field = page.getByLabel('Profile 1, from the wall up to the front');
  await expect(field).toBeVisible();
  await proven(page);
  await expect.poll(() => proofNumber(page, 'volume')).not.toBe(volume);
  const drawn = await proofNumber(page, 'volume');
  // A point is dragged up, another one added and moved by keys.
  const point = page.getByRole('slider', { name: 'Point 1 of 2' });
  const at = (await point.boundingBox())!;
  await page.mouse.move(at.x + at.width / 2, at.y + at.height / 2);
  await page.mouse.down();
  await page.mouse.move(at.x + at.width / 2 - 20, at.y - 40, { steps: 5 });
  await page.mouse.up();
  await proven(page);
  await expect.poll(() => proofNumber(page, 'volume')).toBeGreaterThan(drawn);
  const box = (await field.boundingBox())!;
  await page.mouse.click(box.x + 0.85 * box.width, box.y + 0.3 * box.height);
  const added = page.getByRole('slider', { name: 'Point 3 of 3' });
  await added.focus();
  await page.keyboard.press('ArrowUp');
  await expect(added).toHaveAttribute('aria-valuetext', /% in, \d+ % up/);
  await proven(page);
  await expect(proof(page, 'verdict')).toHaveText('Closed, no crossing faces');
  // Under its name it serves another layer too.
  const name = page.getByRole('textbox', { name: 'Name of the profile' });
  await name.fill('Tide lip');
  await name.press('Enter');
  await page.getByRole('button', { name: 'Moon', exact: true }).click();
  await choose(page, /^Profile/, 'shaped as “Tide lip”');
  await expect(page.getByLabel('Tide lip, from the wall up to the front')).toBeVisible();
  await page.getByRole('button', { name: 'Remove this profile' }).click();
  await expect(page.getByRole('button', { name: /^Profile: chamfered/ })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: /^Profile: shaped as “Tide lip”/ })).toBeVisible();
  expect(trouble).toEqual([]);
});

test('the proof is a page that leads to every place', async ({ page }) => {
  const trouble = troubleOn(page);
  const id = await openDemo(page);
  await page.getByRole('link', { name: 'Proof', exact: true }).click();
  await expect(page).toHaveURL(`/projects/${id}/proof`);
  const station = page.getByRole('complementary', { name: 'Station' });
  await expect(station.getByRole('img', { name: /^Smallest angle of each triangle/ })).toBeVisible();
  await expect(station.getByRole('img', { name: /^Length of the edges, mm: / })).toBeVisible();
  await expect(station.getByText('exact: every point as far in as the profile says').first()).toBeVisible();
  // A thin place is pointed at and framed.
  const work = page.getByRole('main', { name: 'Work' });
  await expect(work).not.toHaveAttribute('data-place', /./);
  await station
    .getByRole('button', { name: /^[\d.]+ mm$/ })
    .first()
    .click();
  await expect(work).toHaveAttribute('data-place', /^-?[\d.]+ -?[\d.]+ [\d.]+$/);
  // What changed since the last proof stands beside it.
  await page.getByRole('button', { name: 'Night', exact: true }).click();
  await station.getByRole('button', { name: 'Back to the recipe' }).click();
  await choose(page, /^Face mesh/, 'even triangles');
  await proven(page);
  await page.getByRole('link', { name: 'Proof', exact: true }).click();
  await expect(station.getByRole('columnheader', { name: 'before' })).toBeVisible();
  await expect(station.getByRole('heading', { name: 'Night' })).toHaveCount(2);
  expect(trouble).toEqual([]);
});

test('a mesh is tidied with counts, and laid on pictures under a checker', async ({ page }) => {
  const trouble = troubleOn(page);
  await openDemo(page);
  await page.getByRole('button', { name: 'Night', exact: true }).click();
  await choose(page, /^Face mesh/, 'a grid of squares');
  await set(page, 'Wall rows', '4');
  await proven(page);
  const faces = await proofNumber(page, 'faces');
  await unfold(page, 'Tidying');
  await choose(page, /^Tidying/, 'tidied');
  const report = page.getByRole('table', { name: 'What tidying changed' });
  await expect(report.getByRole('row', { name: /faces merged into others/ })).toBeVisible();
  // Nothing moved further than was allowed, and the volume stayed.
  await expect(report.getByRole('row', { name: /points dropped 0(\.00\d+)? [\d\s.]+$/ })).toBeVisible();
  await proven(page);
  await expect.poll(() => proofNumber(page, 'faces')).toBeLessThan(faces - 200);
  await expect(proof(page, 'verdict')).toHaveText('Closed, no crossing faces');
  await unfold(page, 'UV');
  await choose(page, /^UV layout/, 'have UVs packed side by side');
  await page.getByRole('button', { name: 'Show a checker on it' }).click();
  await expect(page.getByRole('button', { name: 'Checker where layers lie on pictures' })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await page.waitForTimeout(500);
  expect(trouble).toEqual([]);
});

test('a mesh file comes in as layers, is tidied, proven and exported', async ({ page }) => {
  const trouble = troubleOn(page);
  await openProject(page, 'Saltmarsh word', 'source');
  await proven(page);
  const corners = [0, 1, 2, 3, 4, 5, 6, 7].map((i) => `v ${30 * (i & 1)} ${20 * ((i >> 1) & 1)} ${8 * (i >> 2)}`);
  // One face looks the wrong way.
  const faces = ['1 3 4 2', '5 6 8 7', '1 2 6 5', '3 7 8 4', '1 5 7 3', '6 8 4 2'].map((face) => `f ${face}`);
  await dropFile(page, 'plinth.obj', ['o Plinth', ...corners, ...faces, ''].join('\n'));
  const layer = page.getByRole('list', { name: 'Layers' }).getByRole('button', { name: 'Plinth', exact: true });
  await expect(layer).toBeVisible();
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Build' }).click();
  await layer.click();
  await expect(page.getByRole('spinbutton', { name: 'Depth' })).toHaveValue('8');
  await expect(page.getByRole('spinbutton', { name: 'Reach' })).toHaveCount(0);
  await unfold(page, 'Tidying');
  await expect(page.getByRole('row', { name: /^1 face turned outward/ })).toBeVisible();
  await proven(page);
  await expect(proof(page, 'verdict')).toHaveText('Closed, no crossing faces');
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Export' }).click();
  await page.getByRole('button', { name: /^Make/ }).click();
  await expect(page.getByText(/read back/i).first()).toBeVisible();
  await expect(page.getByRole('cell', { name: /Plinth/ }).first()).toBeVisible();
  expect(trouble).toEqual([]);
});

test('a reach dragged on a mark of 2,000 points ends closed, and undoes as one change', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'New project' }).click();
  await dropFile(page, 'sun.svg', sun(2000));
  await proven(page);
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Build' }).click();
  await page.getByRole('list', { name: 'Layers' }).getByRole('button', { name: 'Sun', exact: true }).click();
  const reach = page.getByRole('spinbutton', { name: 'Reach', exact: true });
  const [before, volume] = [await reach.inputValue(), await proofNumber(page, 'volume')];
  const box = (await reach.boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let k = 1; k <= 20; k++) {
    await page.mouse.move(x + 3 * k, y);
    await page.evaluate(() => new Promise((frame) => requestAnimationFrame(frame)));
  }
  await page.mouse.up();
  expect(Number(await reach.inputValue())).toBeGreaterThan(Number(before));
  await proven(page);
  await expect(proof(page, 'verdict')).toHaveText('Closed, no crossing faces');
  await expect.poll(() => proofNumber(page, 'volume')).toBeLessThan(volume);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(reach).toHaveValue(before);
  await expect.poll(() => proofNumber(page, 'volume')).toBe(volume);
});

test('an open body says so everywhere, shows its inside, and is closed with one click', async ({ page }) => {
  await openDemo(page);
  const strip = page.getByRole('region', { name: 'Proof' });
  const volume = await strip.locator('[data-proof="volume"]').textContent();
  await page.getByRole('button', { name: 'Heron', exact: true }).first().click();
  await page.getByRole('button', { name: 'Closed sides' }).click();
  await page.getByRole('option', { name: 'Only the back is' }).click();
  await expect(strip.locator('[data-proof="verdict"]')).toHaveText('Open');
  await expect(strip.locator('[data-proof="volume of what is closed"]')).not.toHaveText(volume!);
  // Clicking what was found chooses the mesh and points at the place.
  await page.keyboard.press('Escape');
  await strip.locator('[data-proof="verdict"]').click();
  await expect(page.getByRole('button', { name: 'Heron', exact: true }).first()).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await expect(page.getByText('Heron is open: no volume is enclosed.')).toBeVisible();
  await page.getByRole('link', { name: 'Proof', exact: true }).click();
  await expect(page.getByText('no volume: it is open')).toBeVisible();
  await page.getByRole('link', { name: 'Export' }).click();
  await page.getByRole('radio', { name: /STL/ }).check();
  await expect(page.getByText(/Heron is open: .*a printer cannot tell/)).toBeVisible();
  await page.getByRole('button', { name: 'Make the STL file' }).click();
  await expect(page.getByRole('row', { name: /open parts 1 1/ })).toBeVisible();
  await page.getByRole('button', { name: 'Close it' }).click();
  await expect(strip.locator('[data-proof="volume"]')).toHaveText(volume!);
  await expect(strip.locator('[data-proof="verdict"]')).toHaveText('Closed, no crossing faces');
});

test('a division into very many faces is told beforehand and made only when it is wanted', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('button', { name: 'Night', exact: true }).first().click();
  const faces = await proofNumber(page, 'faces');
  await choose(page, /^Face mesh/, 'a grid of squares');
  await proven(page);
  await set(page, 'Cell', '0.15');
  const note = page.getByText(/That makes about [\d\s]+000 faces, which takes about \d+.(s|min) here/);
  await expect(note).toBeVisible();
  await page.getByRole('button', { name: 'Leave it as it is' }).click();
  await expect(note).toBeHidden();
  await set(page, 'Cell', '0.25');
  await page.getByRole('button', { name: 'Make them' }).click();
  await proven(page);
  expect(await proofNumber(page, 'faces')).toBeGreaterThan(faces + 80_000);
});

test('flat faces are joined and edges made hard by hand, which a new division of the front does not hold', async ({
  page,
}) => {
  const trouble = troubleOn(page);
  await page.goto('/');
  await page.getByRole('button', { name: 'New project' }).click();
  const square =
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 40"><path fill="#4a7b9d" d="M0 0h40v40H0z"/></svg>';
  await dropFile(page, 'block.svg', square);
  await proven(page);
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Build' }).click();
  await page.locator('[data-layer]').click();
  await choose(page, /^Face mesh/, 'a grid of squares');
  await page.keyboard.press('Alt+2');
  await unfold(page, 'Edges and faces by hand');
  await proven(page);
  const faces = await proofNumber(page, 'faces');
  const solid = page.getByRole('application', { name: 'Solid' });
  const view = (await solid.boundingBox())!;
  /** @param x from the middle of the view, where the square is */
  const click = (x: number, modifiers: 'Shift'[] = []) =>
    solid.click({ position: { x: view.width / 2 + x, y: view.height / 2 + 3 }, modifiers });

  await choose(page, /^Picked by a click/, 'faces');
  await click(3);
  await expect(page.getByText('1 face:')).toBeVisible();
  await page.getByRole('button', { name: 'Join' }).click();
  await expect(page.getByText('Pick two faces or more that lie beside each other.')).toBeVisible();
  // As many as it takes to meet the next one.
  for (let x = 6; (await page.getByText('2 faces:').count()) === 0; x += 6) {
    await click(x, ['Shift']);
    await expect(page.getByText(/^\d faces?:$/)).toBeVisible();
  }
  await page.getByRole('button', { name: 'Join' }).click();
  await expect(page.getByText('By hand: 1 edge gone between joined faces.')).toBeVisible();
  await proven(page);
  expect(await proofNumber(page, 'faces')).toBe(faces - 1);

  await choose(page, /^Picked by a click/, 'single edges');
  await click(-40);
  await page.getByRole('button', { name: 'Make hard' }).click();
  await expect(page.getByText('By hand: 1 edge hard, 1 edge gone between joined faces.')).toBeVisible();
  await choose(page, /^Face mesh/, 'as few faces as possible');
  await expect(page.getByText('2 marks have no such edge on this mesh.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('By hand: 1 edge hard, 1 edge gone between joined faces.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await proven(page);
  expect(await proofNumber(page, 'faces')).toBe(faces);
  expect(trouble).toEqual([]);
});
