// drags.ts — how soon the browser shows what is dragged, and whether it is held up meanwhile. Turning the view, for which nothing is
// built, says how fast this machine draws.
import type { Page } from '@playwright/test';
import { dropFile, openDemo, proven, sun } from '../e2e/steps.ts';
import { median } from './median.ts';

const SUN_POINTS = 2000;
/** Steps that are measured, and those before them, which compile code and shaders. */
const STEPS = 90;
const FIRST_STEPS = 30;
/** Where the view is empty. */
const EMPTY = { x: 320, y: 700 };

export async function timeDrags(page: Page): Promise<void> {
  console.log(`\nDrags in the browser, ${STEPS} steps each, from a step to the frame that shows it\n`);
  console.log('                      median ms   95 % within ms   tasks over 50 ms');
  await openDemo(page);
  await timeDrag(page, 'patch turned', EMPTY);
  await layer(page, 'Heron').click();
  await timeDrag(page, 'depth of its heron', await middleOf(page, 'slider', 'Heron: depth'));
  await page.goto('/');
  await page.getByRole('button', { name: 'New project' }).click();
  await dropFile(page, 'sun.svg', sun(SUN_POINTS));
  await proven(page);
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Build' }).click();
  await timeDrag(page, `${SUN_POINTS} points turned`, EMPTY);
  await layer(page, 'Sun').click();
  await timeDrag(page, `reach of ${SUN_POINTS} points`, await middleOf(page, 'spinbutton', 'Reach'));
}

const layer = (page: Page, name: string) =>
  page.getByRole('list', { name: 'Layers' }).getByRole('button', { name, exact: true });

interface Place {
  readonly x: number;
  readonly y: number;
}

async function middleOf(page: Page, role: 'slider' | 'spinbutton', name: string): Promise<Place> {
  const box = (await page.getByRole(role, { name, exact: true }).boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
}

/** Drags from a place to and fro, aslant, since some things follow one direction and some the other. */
async function timeDrag(page: Page, name: string, { x, y }: Place): Promise<void> {
  await page.mouse.move(x, y);
  // What is drawn finely or proven once things stand still is no part of a drag.
  await page.waitForTimeout(2500);
  await page.mouse.down();
  await page.evaluate(watch);
  for (let k = 1; k <= FIRST_STEPS + STEPS; k++) {
    if (k === FIRST_STEPS + 1) await page.evaluate(() => (window as unknown as Watching).watched.forget());
    await page.mouse.move(x + 5 + 30 * Math.sin(k / 9), y - 20 * Math.sin(k / 9));
    await page.evaluate(() => (window as unknown as Watching).watched.shown);
  }
  await page.mouse.up();
  const { times, tasks } = await page.evaluate(() => (window as unknown as Watching).watched.seen());
  const late = times.toSorted((a, b) => a - b)[Math.floor(0.95 * times.length)]!;
  const longest = tasks.length > 0 ? `, the longest ${Math.max(...tasks).toFixed(0)} ms` : '';
  console.log(
    `${name.padEnd(21)} ${median(times).toFixed(0).padEnd(11)} ${late.toFixed(0).padEnd(16)} ${tasks.length}${longest}`,
  );
  await proven(page);
}

interface Watching {
  readonly watched: Watched;
}

interface Watched {
  /** Settles when the last step is on screen. */
  readonly shown: Promise<void>;
  readonly seen: () => { times: number[]; tasks: number[] };
  /** Begins anew. */
  readonly forget: () => void;
}

/** Runs in the page: times from each step to the end of the frame that shows it. The Build stop says whether meshes are current. */
function watch(): void {
  if ('watched' in window) return;
  const stop = document.querySelector('nav[aria-label="Stations"] a[title^="Build"]')!;
  const isCurrent = () => stop.getAttribute('title')!.endsWith('up to date');
  let [times, tasks]: [number[], number[]] = [[], []];
  let [changed, began] = [0, 0];
  new MutationObserver(() => {
    changed = performance.now();
  }).observe(stop, { attributes: true, attributeFilter: ['title'] });
  const frame = () =>
    new Promise<void>((drawn) =>
      requestAnimationFrame(() => {
        began = performance.now();
        setTimeout(drawn);
      }),
    );
  const show = async (since: number) => {
    do await frame();
    while (!isCurrent() || changed > began);
    times.push(performance.now() - since);
  };
  const watched = {
    shown: Promise.resolve(),
    seen: () => ({ times, tasks }),
    forget: () => {
      [times, tasks] = [[], []];
    },
  };
  addEventListener('pointermove', ({ timeStamp }) => (watched.shown = show(timeStamp)), { capture: true });
  new PerformanceObserver((list) => tasks.push(...list.getEntries().map(({ duration }) => duration))).observe({
    type: 'longtask',
  });
  Object.assign(window, { watched });
}
