// The workplace: stations, views, stack, keys.
import { expect, test } from '@playwright/test';
import sharp from 'sharp';
import { openCrest, openDemo, proof, proofNumber, proven, saved, troubleOn } from './steps.ts';

test('every station has an address, shows its work and says whether it is current', async ({ page }) => {
  const trouble = troubleOn(page);
  const id = await openDemo(page);
  for (const [station, heading] of [
    ['Source', 'Source'],
    ['Outline', 'Outline'],
    ['Build', 'Recipe'],
    ['Export', 'Export'],
  ] as const) {
    const link = page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: station });
    await link.click();
    await expect(page).toHaveURL(`/projects/${id}/${station.toLowerCase()}`);
    await expect(
      page.getByRole('complementary', { name: 'Station' }).getByRole('heading', { name: heading }),
    ).toBeVisible();
    await expect(link).toHaveAttribute('title', /up to date|nothing yet|coming later/);
  }
  expect(trouble).toEqual([]);
});

test('outlines are switched off and on at the Outline station', async ({ page }) => {
  await openDemo(page, 'outline');
  const volume = await proofNumber(page, 'volume');
  await page.getByRole('complementary', { name: 'Station' }).getByText('Moon', { exact: true }).click();
  const star = (does: string) => page.getByRole('button', { name: `${does} the build: star-1 2`, exact: true });
  await star('Keep out of').click();
  await expect(star('Take into')).toBeVisible();
  await proven(page);
  await expect.poll(() => proofNumber(page, 'volume')).toBeLessThan(volume);
  await star('Take into').click();
  await proven(page);
  await expect.poll(() => proofNumber(page, 'volume')).toBe(volume);
});

test('the size field scales the sheet, the unit restates it', async ({ page }) => {
  await openDemo(page, 'source');
  const side = page.getByRole('spinbutton', { name: 'Longest side' });
  await expect(side).toHaveValue('90');
  await side.fill('18 cm');
  await side.press('Enter');
  await expect(side).toHaveValue('180');
  await page.getByRole('button', { name: /^Unit/ }).click();
  await page.getByRole('option', { name: 'inches', exact: true }).click();
  await expect(side).toHaveValue(/^7\.08/);
  await proven(page);
  await expect(proof(page, 'volume')).toHaveText(/in³$/);
});

test('layers that fill the same space are marked in the stack', async ({ page }) => {
  await openDemo(page);
  await expect(page.locator('[data-shared]')).toHaveCount(0);
  await page.getByRole('button', { name: 'Heron', exact: true }).click();
  const base = page.getByRole('spinbutton', { name: 'Base' });
  await base.fill('4');
  await base.press('Enter');
  await expect(page.getByText(/Heron.* share .* mm of height where they overlap|and Heron share/)).toBeVisible();
  expect(await page.locator('[data-shared]').count()).toBeGreaterThan(1);
});

test('straight views are parallel: seen from its side the stack is as thin as it is', async ({ page }) => {
  await openDemo(page);
  const view = page.getByRole('application', { name: 'Solid' });
  /** Width over height of what is not backdrop, clear of the tools at the edges. */
  const shape = async () => {
    const { data, info } = await sharp(await view.screenshot())
      .removeAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    const [x0, x1, y0, y1] = [0.1 * info.width, 0.9 * info.width, 0.12 * info.height, 0.88 * info.height].map(
      Math.round,
    );
    const at = (x: number, y: number, c: number) => data[3 * (y * info.width + x) + c]!;
    let [left, right, top, bottom] = [x1!, x0!, y1!, y0!];
    for (let y = y0!; y < y1!; y++) {
      for (let x = x0!; x < x1!; x++) {
        if ([0, 1, 2].every((c) => Math.abs(at(x, y, c) - at(x0!, y0!, c)) < 10)) continue;
        [left, right, top, bottom] = [Math.min(left, x), Math.max(right, x), Math.min(top, y), Math.max(bottom, y)];
      }
    }
    return (right - left + 1) / (bottom - top + 1);
  };
  const look = async (from: string) => {
    await page.getByRole('button', { name: /^Look from/ }).click();
    await page.getByRole('option', { name: from, exact: true }).click();
  };
  // The patch is a disc of 90 mm, and its stack is 9 mm high.
  await look('front');
  await expect.poll(shape).toBeCloseTo(1, 1);
  await look('right');
  await expect.poll(async () => Math.abs((await shape()) - 0.1)).toBeLessThan(0.006);
  await look('top');
  await expect.poll(async () => Math.abs((await shape()) - 10)).toBeLessThan(0.6);
  // Turned by a key, and back in perspective.
  await view.focus();
  await page.keyboard.press('ArrowDown');
  await expect.poll(shape).toBeLessThan(9);
  await look('three-quarter');
  await expect.poll(shape).toBeLessThan(1.2);
});

test('in plaster everything has one colour, and materials stay', async ({ page }) => {
  await openDemo(page);
  const view = page.getByRole('application', { name: 'Solid' });
  /** Colours in the middle of the solid that are clearly red, as only the heron is. */
  const reds = async () => {
    const { data } = await sharp(await view.screenshot())
      .raw()
      .toBuffer({ resolveWithObject: true });
    let count = 0;
    for (let i = 0; i < data.length; i += 3) if (data[i]! > data[i + 1]! + 60 && data[i]! > data[i + 2]! + 60) count++;
    return count;
  };
  await expect.poll(reds).toBeGreaterThan(2000);
  await page.keyboard.press('p');
  await expect(page.getByRole('button', { name: 'Plaster' })).toHaveAttribute('aria-pressed', 'true');
  await expect.poll(reds).toBeLessThan(50);
  await page.getByRole('button', { name: 'Plaster' }).click();
  await expect.poll(reds).toBeGreaterThan(2000);
});

test('faces, edges and views change as asked', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('button', { name: 'Night', exact: true }).click();
  const faces = await proofNumber(page, 'faces');
  await page.getByRole('button', { name: /^Face mesh/ }).click();
  await page.getByRole('option', { name: 'even triangles' }).click();
  await proven(page);
  await expect.poll(() => proofNumber(page, 'faces')).toBeGreaterThan(faces + 500);
  await page.getByRole('button', { name: /^Edge on/ }).click();
  await page.getByRole('option', { name: 'no edge' }).click();
  await expect(page.getByRole('spinbutton', { name: 'Reach' })).toHaveCount(0);
  await proven(page);
  await expect(proof(page, 'verdict')).toHaveText('Closed, no crossing faces');
  await page.keyboard.press('v');
  await expect(page.getByRole('img', { name: 'Outlines on the sheet' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Both, divided' })).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('e');
  await expect(page.getByRole('button', { name: 'Edges of all faces' })).toHaveAttribute('aria-pressed', 'true');
});

test('several layers are changed at once, and it is said where they differ and which is the narrowest', async ({
  page,
}) => {
  await openDemo(page);
  await page.getByRole('button', { name: 'Choose all that are built' }).click();
  await expect(page.getByText(/^\d+ layers at once: what is changed here is changed in all of them/)).toBeVisible();
  const [depth, edges] = [
    page.getByRole('spinbutton', { name: 'Depth' }),
    page.getByRole('button', { name: 'Closed sides: Front and back are' }),
  ];
  await expect(depth).toHaveValue('mixed');
  await expect(edges).toBeVisible();
  // The tips of the heron's beak and of the moon are narrower than anything of the disc that is shown.
  await expect(
    page.getByText(/A flat front stays everywhere up to a reach of [\d.]+ mm, which \w+ allows/),
  ).toBeVisible();
  const steps = page.getByRole('spinbutton', { name: 'Steps' });
  // Three is what the first of them has: typed, it goes to the others as well.
  await steps.fill('3');
  await steps.press('Enter');
  await expect(steps).toHaveValue('3');
  await depth.fill('thick');
  await depth.press('Enter');
  await expect(page.getByRole('alert')).toContainText('thick');
  await depth.press('Escape');
  await expect(depth).toHaveValue('mixed');
  for (const name of ['Moon', 'Rim']) {
    await page.getByRole('list', { name: 'Layers' }).getByRole('button', { name, exact: true }).click();
    await expect(steps).toHaveValue('3');
    await expect(page.getByText(/layers at once/)).toHaveCount(0);
  }
});

test('the rise follows the reach until it is typed, and a reach that is too far is brought within what is safe', async ({
  page,
}) => {
  await openDemo(page);
  const value = (name: string) => page.getByRole('spinbutton', { name });
  const type = async (name: string, text: string) => {
    await value(name).fill(text);
    await value(name).press('Enter');
  };
  await page.getByRole('list', { name: 'Layers' }).getByRole('button', { name: 'Night', exact: true }).click();
  await type('Reach', '0.7');
  await expect(value('Rise')).toHaveValue('0.7');
  await type('Rise', '0.4');
  await type('Reach', '0.8');
  await expect(value('Rise')).toHaveValue('0.4');
  await page.getByRole('button', { name: 'Rise follows reach' }).click();
  await expect(value('Rise')).toHaveValue('0.8');
  await type('Reach', '50');
  await page.getByRole('button', { name: 'Stay within it' }).click();
  await expect(page.getByRole('button', { name: 'Stay within it' })).toHaveCount(0);
  const [safe, reach] = [page.getByTitle('Show the narrowest place'), value('Reach')];
  expect(Number(await reach.inputValue())).toBeLessThan(Number.parseFloat((await safe.textContent()) ?? ''));
  expect(Number(await reach.inputValue())).toBeGreaterThan(0.9 * Number.parseFloat((await safe.textContent()) ?? ''));
});

test('the view is turned, and moved without letting go of a layer, and a click chooses what is under it', async ({
  page,
}) => {
  await openDemo(page);
  const layer = (name: string) => page.getByRole('list', { name: 'Layers' }).getByRole('button', { name, exact: true });
  await layer('Rim').click();
  await expect(page.getByText(/^Rim is/)).toBeVisible();
  await page.mouse.move(320, 700);
  await page.mouse.down({ button: 'right' });
  await page.mouse.move(400, 700, { steps: 4 });
  await page.mouse.up({ button: 'right' });
  await expect(layer('Rim')).toHaveAttribute('aria-pressed', 'true');
  // The heron's body, where it has been moved to: at once, while the view may still be drawn coarsely, and later.
  await page.mouse.click(722, 410);
  await expect(layer('Heron')).toHaveAttribute('aria-pressed', 'true');
  await page.waitForTimeout(600);
  await page.mouse.click(460, 430);
  await expect(layer('Heron')).toHaveAttribute('aria-pressed', 'false');
  await page.mouse.click(722, 410);
  await expect(layer('Heron')).toHaveAttribute('aria-pressed', 'true');
  // Turned until it is seen from its side, where its front has been there is nothing.
  await page.mouse.move(320, 700);
  await page.mouse.down();
  await page.mouse.move(400, 700, { steps: 8 });
  await page.mouse.up();
  await page.mouse.click(460, 430);
  await expect(page.getByText('Choose a layer in the stack')).toBeVisible();
});

test('undo works wherever the focus is, but not in a text that is being typed', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('list', { name: 'Layers' }).getByRole('button', { name: 'Heron', exact: true }).click();
  const depth = page.getByRole('spinbutton', { name: 'Depth' });
  const bar = page.getByRole('slider', { name: 'Heron: depth' });
  const undo = () => page.keyboard.press('Control+z');
  // A value that was entered.
  await depth.fill('9');
  await depth.press('Enter');
  await expect(bar).toHaveAttribute('aria-valuenow', '9');
  await undo();
  await expect(bar).toHaveAttribute('aria-valuenow', '2.6');
  await expect(depth).toHaveValue('2.6');
  // A value that is still being typed: the text is what is undone.
  await depth.pressSequentially('7');
  await undo();
  await depth.press('Escape');
  await expect(bar).toHaveAttribute('aria-valuenow', '2.6');
  // A bar that was dragged has the focus.
  const box = (await bar.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y - 30, { steps: 4 });
  await page.mouse.up();
  await expect(bar).not.toHaveAttribute('aria-valuenow', '2.6');
  await undo();
  await expect(bar).toHaveAttribute('aria-valuenow', '2.6');
});

test('a value is typed as a sum, a share or in other units, and what cannot be read is said', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('list', { name: 'Layers' }).getByRole('button', { name: 'Heron', exact: true }).click();
  const depth = page.getByRole('spinbutton', { name: 'Depth' });
  const reach = page.getByRole('spinbutton', { name: 'Reach' });
  const type = async (field: typeof depth, text: string) => {
    await field.fill(text);
    await field.press('Enter');
  };
  for (const [text, shown] of [
    ['3*4', '12'],
    ['½ in', '12.7'],
    ['1e1', '10'],
    ['(2 + 6) / 2', '4'],
  ] as const) {
    await type(depth, text);
    await expect(depth).toHaveValue(shown);
    // Entered, the field is free: a letter is a key again.
    await expect(depth).not.toBeFocused();
  }
  await type(reach, 'depth/10');
  await expect(reach).toHaveValue('0.4');
  await type(reach, '5 %');
  await expect(reach).toHaveValue('0.2');

  await type(depth, '3 ** 4');
  await expect(page.getByRole('alert').filter({ hasText: '“3 ** 4” cannot be read from “* 4” on.' })).toBeVisible();
  await expect(depth).toBeFocused();
  await expect(depth).toHaveAttribute('aria-invalid', 'true');
  await depth.press('Escape');
  await expect(depth).not.toBeFocused();
  await expect(depth).toHaveValue('4');
  await page.keyboard.press('Control+z');
  await expect(reach).not.toHaveValue('0.2');
});

test('undo works after a box was ticked', async ({ page }) => {
  await openCrest(page);
  const step = page.getByRole('checkbox', { name: /^Straighten.*: on$/ });
  await step.click();
  await expect(step).not.toBeChecked();
  await expect(page.getByRole('button', { name: 'Undo' })).toBeEnabled();
  await page.keyboard.press('Control+z');
  await expect(step).toBeChecked();
});

test('colours picked one after another are undone one by one', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('list', { name: 'Layers' }).getByRole('button', { name: 'Heron', exact: true }).click();
  const colour = page.getByLabel('Colour', { exact: true });
  const first = await colour.inputValue();
  // As a browser's own picker tells of it: every colour on the way, then the one that was taken.
  const pick = (...ways: string[]) =>
    colour.evaluate((input: HTMLInputElement, values) => {
      const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!;
      for (const value of values) {
        set.call(input, value);
        input.dispatchEvent(new Event('input', { bubbles: true }));
      }
      input.dispatchEvent(new Event('change', { bubbles: true }));
    }, ways);
  await pick('#102030', '#203040');
  await pick('#a0b0c0', '#b0c0d0');
  await expect(colour).toHaveValue('#b0c0d0');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(colour).toHaveValue('#203040');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(colour).toHaveValue(first);
});

test('the keys are listed on ?', async ({ page }) => {
  await openDemo(page);
  await page.keyboard.press('?');
  const dialog = page.getByRole('dialog', { name: 'Keys' });
  await expect(dialog.getByText('Ctrl Z', { exact: true })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(dialog).toHaveCount(0);
});

test('projects are made, named, deleted; the demo comes back', async ({ page }) => {
  await openDemo(page);
  // More than a window of them, of which only the cards in sight are made.
  for (let i = 0; i < 30; i++) await page.request.post('/api/projects', { data: { name: `Log ${i}` } });
  await page.goto('/');
  await page.getByRole('button', { name: 'New project' }).click();
  await expect(page.getByRole('heading', { name: 'An empty sheet' })).toBeVisible();
  const name = page.getByRole('textbox', { name: 'Project name' });
  await name.fill('Tide tables');
  await name.press('Enter');
  await saved(page);
  await page.getByRole('link', { name: 'Outline Stack' }).click();
  await expect(page.getByRole('link', { name: /^Tide tables/ })).toBeVisible();
  await page.getByRole('button', { name: 'Delete Tide tables' }).click();
  await expect(page.getByRole('link', { name: /^Tide tables/ })).toHaveCount(0);
  const search = page.getByRole('searchbox', { name: 'Search the projects' });
  await search.fill('Saltmarsh');
  for (const demo of ['hall', 'word', 'crest', 'tide tiles', 'mission patch']) {
    await page.getByRole('button', { name: `Delete Saltmarsh ${demo}` }).click();
    await expect(page.getByRole('link', { name: new RegExp(`^Saltmarsh ${demo}`) })).toHaveCount(0);
  }
  await search.fill('');
  await page.getByRole('button', { name: 'Bring the demo projects back' }).click();
  await expect(page.getByRole('link', { name: /^Saltmarsh mission patch/ })).toBeInViewport();
});
