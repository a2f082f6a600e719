// The whole way: a vector file becomes a bevelled solid on screen and a file on disk.
import { expect, test } from '@playwright/test';
import { readGlb } from '../core/formats/glb/glb.ts';
import { audit } from '../core/testing/audit.ts';
import { validateBytes } from '../core/testing/validator.ts';
import { dropFile, exported, openDemo, proof, proofNumber, proven, saved, troubleOn } from './steps.ts';

const SIGN = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 120 80">
  <rect id="paper" width="120" height="80" fill="#fbfaf4"/>
  <path id="board" d="M10 10H110V70H10Z" fill="#2f6f60"/>
  <circle id="lamp" cx="60" cy="40" r="20" fill="#efdfb6"/>
</svg>`;

test('from the demo over a file of one’s own to a GLB that the validator passes', async ({ page }) => {
  const trouble = troubleOn(page);
  await page.request.post('/api/demo/restore');
  await page.goto('/');
  await page.getByRole('link', { name: /^Saltmarsh mission patch/ }).click();
  await proven(page);
  await expect(proof(page, 'verdict')).toHaveText('Closed, no crossing faces');
  const demoFaces = await proofNumber(page, 'faces');

  await test.step('drop an SVG: it lands with its own layers, paper off, and says so', async () => {
    await dropFile(page, 'sign.svg', SIGN);
    await expect(page.getByRole('list', { name: 'Layers' })).toContainText('Board');
    await expect(page.getByRole('list', { name: 'Layers' })).toContainText('not built');
    await expect.poll(() => proofNumber(page, 'faces')).toBeGreaterThan(demoFaces);
    await page.getByRole('link', { name: 'Source' }).click();
    await expect(page.getByText(/sign\.svg came in as 3 layers, 100 mm at its longest/)).toBeVisible();
    await expect(page.getByRole('heading', { name: 'sign.svg' })).toBeVisible();
    await page.getByRole('button', { name: 'Remove patch.svg and its layers' }).click();
    await page.getByRole('link', { name: 'Build' }).click();
    await proven(page);
  });

  await test.step('drag the top of a bar: the depth, the mesh and the proof change', async () => {
    const volume = await proofNumber(page, 'volume');
    const top = page.getByRole('slider', { name: 'Lamp: depth' });
    const before = Number(await top.getAttribute('aria-valuenow'));
    const box = (await top.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2, box.y - 40, { steps: 8 });
    await page.mouse.up();
    expect(Number(await top.getAttribute('aria-valuenow'))).toBeGreaterThan(before);
    await expect.poll(() => proofNumber(page, 'volume')).toBeGreaterThan(volume);
  });

  await test.step('type a depth, in another unit too', async () => {
    await page.getByRole('button', { name: 'Board', exact: true }).click();
    const depth = page.getByRole('spinbutton', { name: 'Depth' });
    await depth.fill('12.5');
    await depth.press('Enter');
    await expect(page.getByRole('slider', { name: 'Board: depth' })).toHaveAttribute('aria-valuenow', '12.5');
    await depth.fill('1 cm');
    await depth.press('Enter');
    await expect(page.getByRole('slider', { name: 'Board: depth' })).toHaveAttribute('aria-valuenow', '10');
    await proven(page);
  });

  await test.step('reload: it is still there', async () => {
    await saved(page);
    const volume = await proofNumber(page, 'volume');
    await page.reload();
    await proven(page);
    await expect(page.getByRole('slider', { name: 'Board: depth' })).toHaveAttribute('aria-valuenow', '10');
    expect(await proofNumber(page, 'volume')).toBe(volume);
  });

  await test.step('download a GLB: valid, closed, with the numbers of the proof', async () => {
    const [points, volume] = [await proofNumber(page, 'points'), await proofNumber(page, 'volume')];
    const bytes = new Uint8Array(await exported(page));
    const { issues } = await validateBytes(bytes);
    expect(issues.messages).toEqual([]);
    const parts = await readGlb(bytes);
    expect(parts.map(({ name }) => name)).toEqual(['Board', 'Lamp']);
    const audits = parts.map(({ mesh }) => audit(mesh.positions, mesh.corners));
    expect(audits.map(({ loose, flat }) => [loose, flat])).toEqual([
      [0, 0],
      [0, 0],
    ]);
    expect(audits.reduce((sum, part) => sum + part.points, 0)).toBe(points);
    // The file is in metres, the project in millimetres.
    expect((1e9 * audits.reduce((sum, part) => sum + part.volume, 0)) / volume).toBeCloseTo(1, 3);
  });

  expect(trouble).toEqual([]);
});

test('everything can be undone and redone, by button and by key', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('button', { name: 'Heron', exact: true }).click();
  const depth = page.getByRole('spinbutton', { name: 'Depth' });
  const depths = () => depth.inputValue();
  const first = await depths();
  await depth.fill('9');
  await depth.press('Enter');
  await page.getByRole('checkbox', { name: 'Build Rim' }).uncheck();
  await expect(page.getByRole('slider', { name: 'Rim: depth' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('slider', { name: 'Rim: depth' })).toHaveCount(1);
  await page.getByRole('heading', { name: 'Stack' }).click();
  await page.keyboard.press('Control+z');
  expect(await depths()).toBe(first);
  await page.keyboard.press('Control+Shift+z');
  expect(await depths()).toBe('9');
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(page.getByRole('slider', { name: 'Rim: depth' })).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Redo' })).toBeDisabled();
});

test('a drag undoes as one change', async ({ page }) => {
  await openDemo(page);
  const top = page.getByRole('slider', { name: 'Night: depth' });
  const before = await top.getAttribute('aria-valuenow');
  const box = (await top.boundingBox())!;
  await page.mouse.move(box.x + 10, box.y + 5);
  await page.mouse.down();
  for (let k = 1; k <= 10; k++) await page.mouse.move(box.x + 10, box.y + 5 - 3 * k);
  await page.mouse.up();
  expect(await top.getAttribute('aria-valuenow')).not.toBe(before);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(top).toHaveAttribute('aria-valuenow', before!);
});
