// screenshots.mjs — `npm run screenshots`: one current picture of each main view, from the demo, into docs/screenshots.
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { withPage } from './browser.mjs';
import { ROOT } from './setup.mjs';

const OUT = join(ROOT, 'docs', 'screenshots');

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

  await page.goto('/');
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
  await page.getByRole('button', { name: 'Add a step' }).click();
  await page.getByRole('menuitem', { name: 'Crop' }).click();
  await page.getByRole('img', { name: 'Frame of the crop' }).waitFor();
  await page.waitForTimeout(2500);
  await shoot('picture-prepare');
  await page.getByRole('button', { name: 'Remove Crop' }).click();
  await page.getByRole('button', { name: 'Show where picture and outlines disagree' }).click();
  await page.locator('[data-difference]').waitFor();
  await page.locator('[data-trace-stats="current"]').scrollIntoViewIfNeeded();
  await page.waitForTimeout(1500);
  await shoot('picture-difference');
  await page.getByRole('button', { name: 'Show where picture and outlines disagree' }).click();
  await station('Outline');
  await page.locator('[data-outline-desk="ready"]').waitFor();
  await page.getByRole('button', { name: 'Draw lines, curves and figures' }).click();
  await page.waitForTimeout(1200);
  // The outer edge of the crescent, point by point: pressed, then pulled along the curve.
  for (const [x, y, dx, dy] of [
    [766, 199, -42, -40],
    [608, 136, -60, 0],
    [445, 204, -43, 43],
    [377, 367, 0, 61],
  ]) {
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + dx, y + dy, { steps: 4 });
    await page.mouse.up();
  }
  await page.mouse.move(445, 530);
  await page.waitForTimeout(600);
  await page.screenshot({ path: join(OUT, 'outline-draw.png') });
  for (let i = 0; i < 4; i++) await page.keyboard.press('Backspace');
  await page.keyboard.press('Escape');
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
  await station('Outline');
  await layer('Stars');
  await page.locator('[data-outline-desk="ready"]').waitFor();
  await page.getByRole('button', { name: 'all', exact: true }).click();
  await shoot('outline-word');
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
  await page.getByRole('button', { name: 'Both, divided' }).click();
  await page.getByRole('button', { name: 'Edges of all faces' }).click();
  await layer('Heron');
  await shoot('build-divided');
  await page.getByRole('button', { name: 'Edges of all faces' }).click();
  await page.getByRole('button', { name: 'Solid', exact: true }).click();
  await page.keyboard.press('Alt+1');
  await page.getByRole('button', { name: 'Day or night' }).click();
  await shoot('build-night');
  await page.getByRole('button', { name: 'Day or night' }).click();
  for (const name of ['Stage', 'Motion']) {
    await station(name);
    await shoot(name.toLowerCase());
  }
  await station('Export');
  await page.getByRole('button', { name: /^Make the GLB/ }).click();
  await page.locator('[data-read-back]').waitFor();
  await shoot('export');
});
