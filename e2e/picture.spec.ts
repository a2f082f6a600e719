// Pictures in: prepared, traced, compared, measured, and brought in by hand.
import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import sharp from 'sharp';
import { drag, dropFile, openCrest, openDemo, proofNumber, proven, saved, troubleOn } from './steps.ts';

/** Flat colours with soft edges, as a browser saves them. */
const POSTER = `<svg xmlns="http://www.w3.org/2000/svg" width="420" height="300"><rect width="420" height="300" fill="#f8f5ec"/>
  <rect x="40" y="40" width="340" height="220" fill="#2f6f60"/><circle cx="150" cy="150" r="60" fill="#c9593f"/>
  <circle cx="280" cy="150" r="60" fill="#efdfb6"/><path d="M250 60L310 60L280 110Z" fill="#20344a"/></svg>`;
const poster = () => sharp(Buffer.from(POSTER)).png().toBuffer();

/** Numbers of the trace's sentence: pieces, curves, points. */
async function traceFigures(page: import('@playwright/test').Page): Promise<number[]> {
  const text = await page.locator('[data-trace-stats]').innerText();
  return [...text.replace(/\u202f/g, '').matchAll(/\d+(?:\.\d+)?/g)].map(([figure]) => Number(figure));
}

test('a scan is prepared and traced live; the steps stay open', async ({ page }) => {
  const trouble = troubleOn(page);
  await openCrest(page);
  const [pieces] = await traceFigures(page);

  await test.step('without despeckling there are specks; it can be switched on again', async () => {
    await page.getByRole('checkbox', { name: 'Despeckle: on' }).uncheck();
    await expect.poll(async () => (await traceFigures(page))[0]).toBeGreaterThan(pieces!);
    await page.getByRole('checkbox', { name: 'Despeckle: on' }).check();
    await expect.poll(async () => (await traceFigures(page))[0]).toBe(pieces);
  });

  await test.step('the threshold moves the edge: less ink, less volume', async () => {
    await proven(page);
    const volume = await proofNumber(page, 'volume');
    await page.getByRole('button', { name: 'Threshold', exact: true }).click();
    await expect(page.getByRole('img', { name: 'Histogram of the greys' })).toBeVisible();
    await page.getByRole('slider', { name: 'Threshold' }).fill('0.35');
    await expect.poll(() => proofNumber(page, 'volume')).toBeLessThan(volume);
    await page.getByRole('button', { name: 'Find it' }).click();
    await expect.poll(() => proofNumber(page, 'volume')).toBeCloseTo(volume, -1);
  });

  await test.step('steps are reordered by keys and removed', async () => {
    await page.getByRole('button', { name: 'Threshold', exact: true }).click();
    const names = () =>
      page
        .getByRole('list', { name: 'Steps of the preparation' })
        .getByRole('checkbox')
        .evaluateAll((boxes) => boxes.map((box) => box.getAttribute('aria-label')!.replace(': on', '')));
    expect(await names()).toEqual(['Straighten', 'Threshold', 'Despeckle']);
    await page.getByRole('button', { name: 'Move Straighten', exact: true }).focus();
    for (const key of ['Space', 'ArrowDown', 'Space']) {
      await page.keyboard.press(key);
      // The list says what happened to those who cannot see it; the next key means something only after that.
      await page.waitForTimeout(250);
    }
    await expect.poll(names).toEqual(['Threshold', 'Straighten', 'Despeckle']);
    const traced = page.locator('[data-trace-stats="current"]');
    await traced.waitFor();
    await page.getByRole('button', { name: 'Remove Straighten' }).click();
    await expect.poll(names).toEqual(['Threshold', 'Despeckle']);
    await traced.waitFor();
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect.poll(names).toEqual(['Threshold', 'Straighten', 'Despeckle']);
  });

  await test.step('before and after lie side by side; the difference has a number', async () => {
    await page.getByRole('button', { name: 'Before and after, divided' }).click();
    await expect(page.getByRole('separator', { name: 'Divide between before and after' })).toBeVisible();
    await expect(page.getByRole('img', { name: 'The picture as it came' })).toBeVisible();
    await page.getByRole('button', { name: 'Show where picture and outlines disagree' }).click();
    const share = page.locator('[data-difference] b');
    await expect(share).toBeVisible();
    expect(Number.parseFloat(await share.innerText())).toBeLessThan(1);
  });
  await saved(page);
  expect(trouble).toEqual([]);
});

test('a known length gives the size', async ({ page }) => {
  await openCrest(page);
  await page.getByRole('button', { name: 'Draw a line over a known length' }).click();
  const box = (await page.locator('[data-picture-desk]').boundingBox())!;
  await page.mouse.move(box.x + 200, box.y + 300);
  await page.mouse.down();
  await page.mouse.move(box.x + 400, box.y + 300, { steps: 4 });
  await page.mouse.up();
  const length = page.getByRole('spinbutton', { name: 'Known length' });
  const longest = page.getByRole('spinbutton', { name: 'Longest side' });
  const [before, size] = [Number(await length.inputValue()), Number(await longest.inputValue())];
  await length.fill(String(2 * before));
  await length.press('Enter');
  await expect.poll(async () => Number(await longest.inputValue()) / size).toBeCloseTo(2, 2);
});

test('a picture dropped in becomes a layer a colour, is retraced without losing them, and cropped', async ({
  page,
}) => {
  const trouble = troubleOn(page);
  await openDemo(page, 'source');
  await dropFile(page, 'poster.png', await poster());
  await expect(
    page.getByText(/poster\.png came in as 5 layers, 100 mm at its longest\. The paper around the drawing/),
  ).toBeVisible();
  await page.locator('[data-picture-desk="ready"]').waitFor();
  const layers = () => page.getByRole('list', { name: 'Layers' }).getByRole('button', { pressed: undefined }).count();
  const count = await layers();

  await test.step('a piece is discarded by a click and kept by another', async () => {
    const toggle = page.getByRole('button', { name: /^Discard piece \d+ of/ }).first();
    const name = (await toggle.getAttribute('aria-label'))!.replace('Discard', 'Keep');
    await toggle.click();
    await page.getByRole('button', { name }).click();
    await expect(page.getByRole('button', { name: name.replace('Keep', 'Discard') })).toBeVisible();
  });

  await test.step('fewer colours: what was merged is said, layers keep standing', async () => {
    await page.getByRole('button', { name: 'How many: as many as stand apart' }).click();
    await page.getByRole('option', { name: 'a given number' }).click();
    await expect(page.getByText('5 colours merged into 4.')).toBeVisible();
    expect(await layers()).toBe(count);
    await expect(page.getByRole('heading', { name: 'Stranded' })).toBeVisible();
    await page.getByRole('button', { name: 'Take as many colours as stand apart' }).click();
    await expect(page.getByRole('heading', { name: 'Stranded' })).toBeHidden();
    expect(await layers()).toBe(count);
  });

  await test.step('cut to a part with the frame in the view', async () => {
    await page.getByRole('button', { name: 'Add a step' }).click();
    await page.getByRole('menuitem', { name: 'Crop' }).click();
    await expect(page.getByRole('img', { name: 'Frame of the crop' })).toBeVisible();
    const box = (await page.locator('[data-picture-desk]').boundingBox())!;
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + 60, y, { steps: 3 });
    await page.mouse.up();
    await expect(page.getByText(/of the width and .* of the height, as framed/)).toBeVisible();
  });
  await saved(page);
  expect(trouble).toEqual([]);
});

test('a photograph says how many pieces it has before layers are made of them', async ({ page }) => {
  await openDemo(page, 'source');
  const layers = page.getByRole('list', { name: 'Layers' }).getByRole('listitem');
  const before = await layers.count();
  // Grain over soft waves: nothing flat in it.
  const pixels = Buffer.from(
    Array.from({ length: 400 * 300 }, (_, i) => {
      const v = 128 + 70 * Math.sin((i % 400) / 31) * Math.cos(Math.floor(i / 400) / 23) + ((i * 7919) % 61);
      return [v, 0.8 * v, 255 - v];
    }).flat(),
  );
  const photo = await sharp(pixels, { raw: { width: 400, height: 300, channels: 3 } })
    .png()
    .toBuffer();
  await dropFile(page, 'marsh.png', photo);
  const dialog = page.getByRole('alertdialog', { name: 'marsh.png has many pieces' });
  await expect(dialog).toContainText(/The trace has \d+ pieces of \d+ lines and curves/);
  expect(await layers.count()).toBe(before);
  await dialog.getByRole('button', { name: 'Leave it' }).click();
  await expect(dialog).toHaveCount(0);
  expect(await layers.count()).toBe(before);
});

test('a picture is only an underlay that is drawn over, and can be traced after all', async ({ page }) => {
  const trouble = troubleOn(page);
  await openCrest(page);
  await page.getByRole('button', { name: /^Traced as/ }).click();
  await page.getByRole('option', { name: 'nothing, only an underlay' }).click();
  const layers = page.getByRole('list', { name: 'Layers' }).getByRole('listitem');
  await expect(layers).toHaveCount(0);
  await page.getByRole('button', { name: 'draw over it' }).click();
  await page.locator('[data-outline-desk="ready"]').waitFor();
  await expect(page.getByRole('img', { name: 'The picture beneath' })).toBeVisible();
  await page.getByRole('button', { name: /^Figure/ }).click();
  await page.getByRole('option', { name: 'ellipses' }).click();
  await drag(page, [0.3, 0.3], [0.6, 0.7]);
  await expect(page.locator('[data-shape]')).toHaveCount(1);
  await expect(layers).toHaveCount(1);
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Source' }).click();
  await page.getByRole('button', { name: /^Traced as/ }).click();
  await page.getByRole('option', { name: 'ink', exact: true }).click();
  await expect(page.locator('[data-trace-stats="current"]')).toBeVisible();
  await expect(layers).not.toHaveCount(1);
  // Taken back step by step it is as it was: traced, with the one layer.
  for (const left of [1, 0, 1]) {
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(layers).toHaveCount(left);
  }
  expect(trouble).toEqual([]);
});

test('a scan in bad light is evened out by itself, which is said, seen and can be taken back', async ({ page }) => {
  const trouble = troubleOn(page);
  const mark = Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="520" height="400"><rect width="520" height="400" fill="#eeeeee"/>
     <path fill="#505050" fill-rule="evenodd" d="M150 60a130 130 0 1 1-.1 0zM150 110a80 80 0 1 0 .1 0z"/>
     <rect x="340" y="70" width="120" height="260" fill="#505050"/></svg>`,
  );
  const { data, info } = await sharp(mark).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  // Down to a quarter from left to right.
  for (let i = 0; i < data.length; i++)
    data[i] = data[i]! * (1 - (0.75 * (Math.floor(i / 3) % info.width)) / info.width);
  const buffer = await sharp(data, { raw: { width: info.width, height: info.height, channels: 3 } })
    .jpeg({ quality: 85 })
    .toBuffer();
  await page.goto('/');
  await page.getByLabel('Begin with files').setInputFiles({ name: 'lantern.jpg', mimeType: 'image/jpeg', buffer });
  await page.waitForURL(/\/projects\/.+\/source/);
  await expect(page.getByText(/lantern\.jpg came in .*Its light falls off to 2\d %/s)).toBeVisible();
  await proven(page);
  await expect(page.locator('[data-look]')).toContainText(/520 × 400 px · .*light falls off to 2\d %/);
  const traced = page.locator('[data-trace-stats="current"]');
  await expect(traced).toContainText('2 pieces');
  const evened = await traced.innerText();
  await page.getByRole('button', { name: 'Even out the light', exact: true }).click();
  await expect(page.getByText('Paper becomes as light everywhere as where it is lit best.')).toBeVisible();
  await page.getByRole('checkbox', { name: 'Even out the light: on' }).uncheck();
  await expect(traced).not.toHaveText(evened);
  await page.getByRole('checkbox', { name: 'Even out the light: on' }).check();
  await expect(traced).toHaveText(evened);
  await saved(page);
  await page.request.delete(`/api/projects/${new URL(page.url()).pathname.split('/')[2]}`);
  expect(trouble).toEqual([]);
});

test('what cannot be traced is said, and nothing is lost', async ({ page }) => {
  await openDemo(page, 'source');
  const layers = page.getByRole('list', { name: 'Layers' }).getByRole('listitem');
  const before = await layers.count();
  const flat = await sharp({ create: { width: 60, height: 60, channels: 3, background: '#888' } })
    .png()
    .toBuffer();
  await dropFile(page, 'flat.png', flat);
  await expect(
    page.getByText(/flat\.png was not brought in\. Nothing to trace: the picture has one tone/),
  ).toBeVisible();
  await dropFile(page, 'half.png', (await poster()).subarray(0, 900));
  await expect(page.getByText(/half\.png was not brought in\. The PNG file is damaged or ends early/)).toBeVisible();
  await dropFile(page, 'letter.png', Buffer.from('Dear observatory,'));
  await expect(page.getByText(/letter\.png was not brought in\. This is neither a drawing/)).toBeVisible();
  expect(await layers.count()).toBe(before);
});

test('a crop takes any typed ratio and is centred on what is drawn', async ({ page }) => {
  await openCrest(page);
  await page.getByRole('button', { name: 'Add a step' }).click();
  await page.getByRole('menuitem', { name: 'Crop' }).click();
  await page.getByRole('button', { name: /^Shape of the frame/ }).click();
  await page.getByRole('option', { name: 'as I type it…' }).click();
  await page.getByRole('textbox', { name: 'Width to height' }).fill('2:1');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Shape of the frame: 2 : 1' })).toBeVisible();
  const frame = page.getByRole('img', { name: 'Frame of the crop' }).locator('rect').first();
  const { width, height } = (await frame.boundingBox())!;
  const before = (await frame.boundingBox())!;
  expect(width / height).toBeCloseTo(2, 1);
  await page.getByRole('button', { name: 'Centre it on what is drawn' }).click();
  await expect.poll(async () => (await frame.boundingBox())!.y).not.toBe(before.y);
});

test('a picture in place of another says what matched, what is new and what is gone', async ({ page }) => {
  await openCrest(page);
  // The same picture with another hash: bytes behind its end belong to nothing.
  const crest = Buffer.concat([readFileSync('demo/crest.jpg'), Buffer.from([0])]);
  await page
    .getByLabel('Another picture for crest.jpg')
    .setInputFiles({ name: 'better.jpg', mimeType: 'image/jpeg', buffer: crest });
  await expect(
    page.getByText(
      /^\d+ pieces match what was there and keep their recipe, 0 of them larger or smaller; 0 are new, 0 are gone\.$/,
    ),
  ).toBeVisible();
  await proven(page);
});
