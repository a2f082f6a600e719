// screenshots.mjs — `npm run screenshots`: one current picture of each main view, from the demo, into docs/screenshots.
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { withPage } from './browser.mjs';
import { spoiltPictures } from './pictures.mjs';
import { ROOT } from './setup.mjs';

const OUT = join(ROOT, 'docs', 'screenshots');

/** Demo projects, and what their pictures are called. */
const DEMOS = {
  'Saltmarsh mission patch': 'patch',
  'Saltmarsh crest': 'crest',
  'Saltmarsh word': 'word',
  'Saltmarsh hall': 'hall',
  'Saltmarsh tide tiles': 'tiles',
};

/** Pictures as they came with the trace beside them, and as the solids they are at first, untouched: two of each, in turns. */
async function picturesBroughtIn(page) {
  const shots = [];
  for (const [name, buffer] of Object.entries(await spoiltPictures())) {
    await page.goto('/');
    await page.locator('input[type=file]').first().setInputFiles({ name, mimeType: 'image/*', buffer });
    await page.locator('[aria-label="Proof"][data-fresh="true"]').waitFor({ timeout: 120_000 });
    await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Source' }).click();
    await page.locator('[data-picture-desk="ready"]').waitFor();
    await page.locator('[data-look]').waitFor();
    await page.getByRole('button', { name: 'Before and after, divided' }).click();
    await page.waitForTimeout(1500);
    shots.push(await page.screenshot());
    await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Build' }).click();
    await page.waitForTimeout(3000);
    shots.push(await page.screenshot());
  }
  return shots;
}

/** Shots in four columns, a third as large. */
async function writeSheet(shots) {
  const [width, height, columns] = [480, 300, 4];
  const tiles = await Promise.all(
    shots.map(async (shot, i) => ({
      input: await sharp(shot).resize(width, height).png().toBuffer(),
      left: (i % columns) * width,
      top: Math.floor(i / columns) * height,
    })),
  );
  const sheet = { width: columns * width, height: Math.ceil(shots.length / columns) * height, channels: 3 };
  await sharp({ create: { ...sheet, background: '#ffffff' } })
    .composite(tiles)
    .png({ palette: true, quality: 90 })
    .toFile(join(OUT, 'pictures.png'));
}

await withPage(async (page) => {
  mkdirSync(OUT, { recursive: true });
  const shoot = async (name) => {
    await page.mouse.move(640, 775);
    await page.waitForTimeout(900);
    await page.screenshot({ path: join(OUT, `${name}.png`) });
  };
  const proven = () => page.locator('[aria-label="Proof"][data-fresh="true"]').waitFor();
  const station = (name) => page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name }).click();
  const project = (name) => page.getByRole('link', { name: new RegExp(`^${name}`) });
  const layer = (name) => page.getByRole('list', { name: 'Layers' }).getByRole('button', { name, exact: true }).click();

  // What the list shows of the demo before anybody has opened it.
  await page.goto('/');
  for (const [name, file] of Object.entries(DEMOS)) {
    const kept = page.waitForResponse((reply) => reply.request().method() === 'PUT' && /\/picture\?/.test(reply.url()));
    await project(name).click();
    await proven();
    const { id } = /projects\/(?<id>[^/]+)\/picture/.exec((await kept).url()).groups;
    const picture = await page.request.get(`/api/projects/${id}/picture`);
    writeFileSync(join(ROOT, 'demo', 'pictures', `${file}.png`), await picture.body());
    await page.getByRole('link', { name: 'All projects' }).or(page.getByTitle('All projects')).first().click();
  }
  await project('Saltmarsh crest').waitFor();
  await shoot('projects');
  await project('Saltmarsh crest').click();
  await proven();
  await shoot('picture-built');
  await station('Source');
  await page.locator('[data-picture-desk="ready"]').waitFor();
  await page.getByRole('button', { name: 'Threshold', exact: true }).click();
  await page.getByRole('button', { name: 'Before and after, divided' }).click();
  await page.getByRole('img', { name: 'Histogram of the greys' }).waitFor();
  await shoot('picture');
  await page.getByRole('button', { name: 'Before and after, divided' }).click();
  await page.getByRole('button', { name: 'Threshold', exact: true }).click();
  await page.getByRole('button', { name: 'Show where picture and outlines disagree' }).click();
  await page.locator('[data-difference]').waitFor();
  await page.locator('[data-trace-stats="current"]').scrollIntoViewIfNeeded();
  await page.waitForTimeout(1500);
  await shoot('picture-difference');
  await page.getByRole('button', { name: 'Show where picture and outlines disagree' }).click();
  await page.goto('/');
  await project('Saltmarsh hall').click();
  await proven();
  await station('Outline');
  await layer('WALLS');
  await page.locator('[data-outline-desk="ready"]').waitFor();
  await page.getByRole('button', { name: 'Walls and their openings' }).click();
  await page.waitForTimeout(600);
  const glass = await page.locator('[data-opening="window"]').first().boundingBox();
  await page.mouse.click(glass.x + glass.width / 2, glass.y + glass.height / 2);
  await shoot('outline-walls');
  await page.goto('/');
  await project('Saltmarsh word').click();
  await proven();
  await station('Source');
  await shoot('lettering');
  await page.goto('/');
  await project('Saltmarsh mission patch').click();
  await proven();
  await station('Source');
  await shoot('source');
  await station('Outline');
  await page.locator('[data-outline-desk="ready"]').waitFor();
  await page.getByRole('list', { name: 'Findings' }).getByRole('button').first().click();
  await shoot('outline');
  await page.locator('[data-shape="#heron"] path').first().click();
  await page.getByRole('button', { name: 'Points and handles of the chosen shape' }).click();
  await page.locator('[data-points]').waitFor({ state: 'attached' });
  await page.mouse.click(739, 458);
  await shoot('outline-points');
  await page.keyboard.press('Escape');
  await station('Build');
  await layer('Rim');
  await shoot('build');
  await page.getByRole('link', { name: 'Proof', exact: true }).click();
  await page.getByRole('img', { name: /^Smallest angle/ }).waitFor();
  await shoot('proof');
  await station('Build');
  await page.keyboard.press('Alt+1');
  await page.getByRole('button', { name: 'Day or night' }).click();
  await shoot('build-night');
  await page.getByRole('button', { name: 'Day or night' }).click();
  await page.getByRole('button', { name: 'Marsh', exact: true }).click({ modifiers: ['Shift'] });
  await page.getByText('By a rule').click();
  await page.locator('[data-ghost]').first().waitFor();
  await shoot('build-rule');
  await page.keyboard.press('c');
  await page.getByRole('button', { name: 'Varied down the columns: nothing' }).click();
  await page.getByRole('option', { name: 'edge profile' }).click();
  await page.getByText('All made').waitFor();
  await shoot('build-sheet');
  await page.keyboard.press('Escape');
  await layer('Rim');
  await station('Export');
  await page.getByRole('button', { name: /^Make the GLB/ }).click();
  await page.locator('[data-read-back]').waitFor();
  await shoot('export');
  await station('Build');
  await layer('Rim');
  await page.getByRole('button', { name: 'Closed sides' }).click();
  await page.getByRole('option', { name: 'Only the back is' }).click();
  await page.keyboard.press('Alt+1');
  await proven();
  await shoot('build-open');
  await page.goto('/');
  await project('Saltmarsh tide tiles').click();
  await proven();
  await layer('Rosette');
  await page.keyboard.press('t');
  await page.getByRole('heading', { name: 'Placement' }).scrollIntoViewIfNeeded();
  await shoot('build-ring');
  await page.goto('/help/build');
  await page.getByRole('img').first().waitFor();
  await shoot('guide');
  await writeSheet(await picturesBroughtIn(page));
});
