// For everyone: WCAG 2.2 AA as axe-core checks it at every station and in every dialog, by day and by night; the whole job by keyboard
// alone and by touch alone; narrow windows, forced colours, and browsers that draw no solids.
import { readFileSync } from 'node:fs';
import { expect, type Locator, type Page, test } from '@playwright/test';
import axe from 'axe-core';
import { openCrest, openDemo, openProject, proof, proofNumber, proven, sun } from './steps.ts';

const RULES = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];
/** WCAG 2.2, 2.5.8: 24 by 24 pixels, which axe asks only of targets that stand close. */
const LEAST_TARGET = 24;
const CONTROLS = 'a[href], button, input:not([type=file]), select, textarea, summary, [role=slider], [role=separator]';

/** What is wrong with the page as it is, in words. */
async function wrongs(page: Page): Promise<string[]> {
  await page.mouse.move(0, 0);
  const found = await page.evaluate(
    async ([source, rules]) => {
      if (!('axe' in window)) new Function(source)();
      const { violations } = await (window as unknown as { axe: typeof axe }).axe.run(document, {
        runOnly: [...rules],
        resultTypes: ['violations'],
      });
      return violations.flatMap(({ id, nodes }) => nodes.map(({ html }) => `${id}: ${html.slice(0, 160)}`));
    },
    [axe.source, RULES] as const,
  );
  const small = await page.evaluate(
    ([selector, least]) =>
      [...document.querySelectorAll(selector)]
        .filter((control) => control.checkVisibility({ visibilityProperty: true }))
        .map((control) => ({ control, box: (control.closest('label') ?? control).getBoundingClientRect() }))
        // Half a pixel is rounding.
        .filter(({ box }) => box.width > 1 && Math.min(box.width, box.height) < least - 0.5)
        .map(({ control, box }) => `small, ${box.width} × ${box.height}: ${control.outerHTML.slice(0, 120)}`),
    [CONTROLS, LEAST_TARGET] as const,
  );
  const nested = await page.locator('summary button, summary input').count();
  const unnamed = await page.locator('div[aria-label]:not([role]), span[aria-label]:not([role])').count();
  const headings = await page.locator('h1').count();
  return [
    ...found,
    ...small,
    ...(nested > 0 ? [`${nested} controls inside a summary`] : []),
    ...(unnamed > 0 ? [`${unnamed} labels without a role`] : []),
    ...(headings === 1 ? [] : [`${headings} level-one headings`]),
  ];
}

const station = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name });

for (const theme of ['day', 'night'] as const) {
  test.describe(`by ${theme}`, () => {
    test.use({ colorScheme: theme === 'day' ? 'light' : 'dark' });

    test('list, stations and dialogs of a drawing', async ({ page }) => {
      await page.request.post('/api/demo/restore');
      await page.goto('/');
      await page.getByRole('link', { name: /^Saltmarsh mission patch/ }).waitFor();
      expect(await wrongs(page)).toEqual([]);
      await openDemo(page);
      expect(await wrongs(page)).toEqual([]);
      await test.step('recipe, everything unfolded, of one layer and of several', async () => {
        await page.getByRole('button', { name: 'Heron', exact: true }).click();
        for (const summary of await page.locator('summary').all()) await summary.click();
        await page.getByRole('button', { name: 'Keep this recipe' }).click();
        expect(await wrongs(page)).toEqual([]);
        await page.getByRole('button', { name: 'Moon', exact: true }).click({ modifiers: ['Shift'] });
        await page.getByText('By a rule').click();
        await page.locator('[data-ghost]').first().waitFor();
        expect(await wrongs(page)).toEqual([]);
      });
      await test.step('a group, its handles, and variants side by side', async () => {
        await page.getByRole('button', { name: 'Moon', exact: true }).click({ modifiers: ['ControlOrMeta'] });
        await page.keyboard.press('ControlOrMeta+g');
        await page.keyboard.press('Enter');
        await page.keyboard.press('t');
        await page.locator('[data-handles]').waitFor();
        expect(await wrongs(page)).toEqual([]);
        await page.keyboard.press('t');
        await page.getByRole('button', { name: 'Contact sheet' }).click();
        await expect(page.getByText('All made')).toBeVisible();
        await page
          .getByRole('button', { name: /^Look at/ })
          .first()
          .click();
        expect(await wrongs(page)).toEqual([]);
        await page.keyboard.press('Escape');
      });
      for (const name of ['Source', 'Outline', 'Export']) {
        await test.step(name, async () => {
          await station(page, name).click();
          await expect(page.getByRole('heading', { level: 1, name: new RegExp(name) })).toBeAttached();
          if (name === 'Outline') {
            await page.locator('[data-outline-desk="ready"]').waitFor();
            await page.locator('[data-shape] path').last().click({ force: true });
            await page.getByRole('button', { name: /^Points and handles/ }).click();
            expect(await wrongs(page)).toEqual([]);
            await page.getByRole('button', { name: 'Done' }).click();
          }
          if (name === 'Export') {
            await page.getByRole('button', { name: 'Make the GLB file' }).click();
            await expect(page.locator('[data-read-back="true"]')).toBeVisible();
          }
          expect(await wrongs(page)).toEqual([]);
        });
      }
      await test.step('proof, search, keys, steps, menu', async () => {
        await page.getByRole('link', { name: 'Proof', exact: true }).click();
        await expect(page.getByRole('heading', { name: 'Proof', exact: true })).toBeVisible();
        expect(await wrongs(page)).toEqual([]);
        await page.keyboard.press('Control+k');
        await expect(page.getByRole('combobox')).toBeVisible();
        expect(await wrongs(page)).toEqual([]);
        await page.keyboard.press('Escape');
        await page.keyboard.press('?');
        await expect(page.getByRole('heading', { name: 'Keys' })).toBeVisible();
        expect(await wrongs(page)).toEqual([]);
        await page.keyboard.press('Escape');
        await page.getByRole('button', { name: 'Steps' }).click();
        expect(await wrongs(page)).toEqual([]);
        await page.keyboard.press('Escape');
      });
    });

    test('the guide', async ({ page }) => {
      for (const name of ['', '/source', '/command-line']) {
        await page.goto(`/help${name}`);
        await page.getByRole('navigation', { name: 'Guide' }).waitFor();
        expect(await wrongs(page)).toEqual([]);
      }
    });

    test('a picture, a text, a plan with its tools, an empty project', async ({ page }) => {
      await openCrest(page);
      for (const name of ['Straighten', 'Threshold']) {
        await page.getByRole('button', { name, exact: true }).click();
      }
      expect(await wrongs(page)).toEqual([]);
      await station(page, 'Outline').click();
      await page.locator('[data-outline-desk="ready"]').waitFor();
      expect(await wrongs(page)).toEqual([]);
      await openProject(page, 'Saltmarsh word', 'source');
      await proven(page);
      expect(await wrongs(page)).toEqual([]);
      await openProject(page, 'Saltmarsh hall', 'outline');
      await page.locator('[data-outline-desk="ready"]').waitFor();
      for (const tool of [/^Draw lines/, /^Walls and/, /^Measure/]) {
        await page.getByRole('button', { name: tool }).first().click();
        expect(await wrongs(page)).toEqual([]);
      }
      const { id } = await (await page.request.post('/api/projects', { data: { name: 'Empty' } })).json();
      await page.goto(`/projects/${id}/source`);
      await expect(page.getByRole('heading', { name: 'An empty sheet' })).toBeVisible();
      expect(await wrongs(page)).toEqual([]);
    });
  });
}

test('the whole job by keyboard alone', async ({ page }) => {
  /** Goes on with Tab until the control has the focus. */
  const reach = async (control: Locator) => {
    for (let press = 0; press < 80; press++) {
      if (await control.evaluate((element) => element === document.activeElement)) return;
      await page.keyboard.press('Tab');
    }
    throw new Error(`Tab does not lead to ${control}`);
  };
  // Asked for early: the browser is told to hand choosers over, which takes longer than a key.
  const chooser = page.waitForEvent('filechooser');
  await page.request.post('/api/demo/restore');
  await page.goto('/');
  await page.getByRole('link', { name: /^Saltmarsh mission patch/ }).waitFor();
  const begin = page.getByRole('button', { name: 'choose one' });
  await begin.waitFor();
  await reach(begin);
  await page.keyboard.press('Enter');
  await (await chooser).setFiles({ name: 'sun.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(sun(60)) });
  await proven(page);
  /** Goes to a station by its name. */
  const go = async (name: string) => {
    await page.keyboard.press('Control+k');
    await expect(page.getByRole('combobox')).toBeFocused();
    await page.keyboard.type(name);
    await page.keyboard.press('Enter');
  };
  await go('Build');
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('button', { name: 'Sun', exact: true })).toHaveAttribute('aria-pressed', 'true');
  const depth = page.getByRole('spinbutton', { name: 'Depth' });
  await reach(depth);
  await page.keyboard.type('9');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('slider', { name: 'Sun: depth' })).toHaveAttribute('aria-valuenow', '9');
  const lid = page.getByRole('slider', { name: 'Sun: depth' });
  await reach(lid);
  await page.keyboard.press('PageDown');
  await expect.poll(async () => Number(await lid.getAttribute('aria-valuenow'))).toBeLessThan(9);
  await proven(page);
  // The solid is turned by arrow keys.
  const solid = page.getByRole('application', { name: 'Solid' });
  await reach(solid);
  const before = await page.screenshot();
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowRight');
  await expect.poll(async () => (await page.screenshot()).equals(before)).toBe(false);
  await go('Export');
  const make = page.getByRole('button', { name: 'Make the GLB file' });
  await make.waitFor();
  await reach(make);
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-read-back="true"]')).toBeVisible();
  await expect(make).toBeFocused();
  const file = page.getByRole('link', { name: /\.glb/ });
  await reach(file);
  const [download] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('Enter')]);
  expect(
    readFileSync((await download.path())!)
      .subarray(0, 4)
      .toString(),
  ).toBe('glTF');
});

test('what is removed leaves the focus in its part of the page', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('button', { name: 'Tide', exact: true }).focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Delete');
  await expect(page.getByRole('button', { name: 'Tide', exact: true })).toHaveCount(0);
  await expect
    .poll(() => page.evaluate(() => document.activeElement?.closest('[aria-label="Stack"]') !== null))
    .toBe(true);
});

test.describe('by touch', () => {
  test.use({ hasTouch: true });

  test('the whole job by touch alone', async ({ page }) => {
    await page.request.post('/api/demo/restore');
    await page.goto('/');
    await page.getByRole('link', { name: /^Saltmarsh mission patch/ }).tap();
    await proven(page);
    await page.getByRole('button', { name: 'Rim', exact: true }).tap();
    const depth = page.getByRole('spinbutton', { name: 'Depth' });
    await depth.tap();
    await page.keyboard.insertText('6');
    await page.getByRole('heading', { name: 'Recipe' }).tap();
    await expect(page.getByRole('slider', { name: 'Rim: depth' })).toHaveAttribute('aria-valuenow', '6');
    await station(page, 'Export').tap();
    await page.getByRole('button', { name: 'Make the GLB file' }).tap();
    await expect(page.locator('[data-read-back="true"]')).toBeVisible();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: /\.glb/ }).tap(),
    ]);
    expect(
      readFileSync((await download.path())!)
        .subarray(0, 4)
        .toString(),
    ).toBe('glTF');
  });

  test('two fingers and Ctrl with the wheel come nearer in every flat view, and the page never zooms', async ({
    page,
  }) => {
    await openDemo(page);
    const touch = await page.context().newCDPSession(page);
    const views = [
      ['build', page.getByRole('img', { name: 'Outlines on the sheet' })],
      ['outline', page.getByRole('img', { name: 'Outlines, to be worked on' })],
    ] as const;
    await page.getByRole('button', { name: 'Flat outlines' }).tap();
    for (const [name, view] of views) {
      if (name === 'outline') await station(page, 'Outline').tap();
      await view.waitFor();
      await page.waitForTimeout(300);
      const width = async () => Number((await view.getAttribute('viewBox'))!.split(' ')[2]);
      const { x, y, width: across, height } = (await view.boundingBox())!;
      const [cx, cy] = [x + across / 2, y + height / 2];
      const fingers = (apart: number) => [
        { x: cx - apart, y: cy, id: 1 },
        { x: cx + apart, y: cy, id: 2 },
      ];
      const first = await width();
      await touch.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: fingers(40) });
      for (const apart of [55, 70, 80])
        await touch.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: fingers(apart) });
      await touch.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
      await expect.poll(width).toBeCloseTo(first / 2, 0);
      const second = await width();
      await page.mouse.move(cx, cy);
      await page.keyboard.down('Control');
      await page.mouse.wheel(0, -40);
      await page.keyboard.up('Control');
      await expect.poll(width).toBeLessThan(second * 0.9);
      expect(await page.evaluate(() => window.visualViewport!.scale)).toBe(1);
    }
  });
});

for (const [name, size] of [
  ['1,024 pixels', { width: 1024, height: 768 }],
  ['200 % of a window of 1,280', { width: 640, height: 400 }],
] as const) {
  test(`at ${name} nothing is cut off`, async ({ page }) => {
    await page.setViewportSize(size);
    await openDemo(page);
    for (const each of ['source', 'outline', 'build', 'proof', 'export']) {
      await page.goto(page.url().replace(/[^/]*$/, each));
      await proven(page);
      await page.getByRole('button', { name: 'Heron', exact: true }).first().click();
      const cut = await page.evaluate(() =>
        [...document.querySelectorAll('a[href], button, input:not([type=file]), summary')]
          .filter((control) => control.checkVisibility({ visibilityProperty: true }))
          .map((control) => ({ control, box: control.getBoundingClientRect() }))
          .filter(({ box }) => box.width > 1 && (box.left < -1 || box.right > window.innerWidth + 1))
          .map(({ control }) => control.outerHTML.slice(0, 120)),
      );
      expect(cut).toEqual([]);
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(size.width);
    }
  });
}

test('panels are made wider, narrower and folded away, also by keys, and stay so', async ({ page }) => {
  await openDemo(page);
  const work = page.getByRole('main', { name: 'Work' });
  const width = async () => (await work.boundingBox())!.width;
  const first = await width();
  await page.getByRole('separator', { name: 'Width of the stack' }).focus();
  await page.keyboard.press('ArrowRight');
  await expect.poll(width).toBe(first - 16);
  await page.getByRole('button', { name: 'Fold the station away' }).click();
  await expect.poll(width).toBe(first - 16 + 328);
  await page.reload();
  await proven(page);
  await expect.poll(width).toBe(first - 16 + 328);
  await page.getByRole('button', { name: 'Show the station' }).click();
  await expect.poll(width).toBe(first - 16);
});

test('in forced colours every mark can still be seen', async ({ page }) => {
  await page.emulateMedia({ forcedColors: 'active' });
  await openDemo(page);
  await page.getByRole('button', { name: 'Heron', exact: true }).click();
  // What is chosen, and what is current on the route, are told by more than a colour that is taken away.
  const row = page.locator('[data-layer][aria-pressed="true"]').first();
  expect(await row.evaluate((element) => getComputedStyle(element).outlineStyle)).not.toBe('none');
  const current = station(page, 'Build');
  expect(await current.evaluate((element) => getComputedStyle(element).textDecorationLine)).toContain('underline');
});

test.describe('without WebGL', () => {
  test('flat view, stack and export work, and it is said', async ({ page }) => {
    await page.addInitScript(() => {
      const get = HTMLCanvasElement.prototype.getContext;
      HTMLCanvasElement.prototype.getContext = function (this: HTMLCanvasElement, kind: string, ...rest: unknown[]) {
        return /webgl/.test(kind) ? null : (get as (...all: unknown[]) => unknown).call(this, kind, ...rest);
      } as typeof get;
    });
    await openDemo(page);
    await expect(page.getByText(/This browser draws no solids/)).toBeVisible();
    await expect(page.getByRole('img', { name: 'Outlines on the sheet' })).toBeVisible();
    await page.getByRole('button', { name: 'Rim', exact: true }).click();
    const volume = await proofNumber(page, 'volume');
    await page.getByRole('spinbutton', { name: 'Depth' }).fill('7');
    await page.keyboard.press('Enter');
    await expect.poll(() => proofNumber(page, 'volume')).toBeGreaterThan(volume);
    await expect(proof(page, 'verdict')).toHaveText('Closed, no crossing faces');
    await station(page, 'Export').click();
    await page.getByRole('button', { name: 'Make the GLB file' }).click();
    await expect(page.locator('[data-read-back="true"]')).toBeVisible();
  });
});
