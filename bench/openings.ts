// openings.ts — how soon the address of a demo project shows its outlines, and its solid, when server and browser know the application.
import type { Page } from '@playwright/test';
import { median } from './median.ts';

const ROUNDS = 5;
const CACHED_MS = 4000;

export async function timeOpenings(page: Page): Promise<void> {
  console.log(`\nDemo projects by their address, ${ROUNDS} times, from the address to what is seen, ms\n`);
  console.log('project                    outlines   solid');
  await page.request.post('/api/demo/restore');
  const projects: { id: string; name: string }[] = await (await page.request.get('/api/projects')).json();
  await page.addInitScript(watch);
  for (const { id, name } of projects) {
    const times: Opening[] = [];
    for (let round = 0; round <= ROUNDS; round++) {
      await page.goto(`/projects/${id}/build`);
      const opening = await page.evaluate(() => (window as unknown as Watching).opening);
      // The first fills the browser's caches, which takes a moment.
      if (round > 0) times.push(opening);
      else await page.waitForTimeout(CACHED_MS);
      await page.goto('/');
    }
    const of = (key: keyof Opening) => median(times.map((opening) => opening[key])).toFixed(0);
    console.log(`${name.padEnd(26)} ${of('outlines').padEnd(10)} ${of('solid')}`);
  }
}

interface Opening {
  readonly outlines: number;
  readonly solid: number;
}

interface Watching {
  readonly opening: Promise<Opening>;
}

/** Runs in the page before anything else: when outlines are in it, and when the frame in which the first mesh is drawn ends. */
function watch(): void {
  const drawn = new Promise<number>((resolve) => {
    const { prototype } = WebGL2RenderingContext;
    for (const name of ['drawArrays', 'drawElements'] as const) {
      const draw = prototype[name] as (...args: unknown[]) => void;
      prototype[name] = function drawn(this: WebGL2RenderingContext, ...args: unknown[]) {
        draw.apply(this, args);
        setTimeout(() => resolve(performance.now()));
      };
    }
  });
  const outlined = new Promise<number>((resolve) => {
    const look = () => {
      const isThere = document.querySelector('svg[aria-label="Outlines on the sheet"] path') !== null;
      if (isThere) setTimeout(() => resolve(performance.now()));
      else requestAnimationFrame(look);
    };
    requestAnimationFrame(look);
  });
  const opening = Promise.all([outlined, drawn]).then(([outlines, solid]) => ({ outlines, solid }));
  Object.assign(window, { opening });
}
