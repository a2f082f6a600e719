// scans.ts — `npm run scans`: icons as ink on paper, photographed in bad light, and traced with what suits them; what comes back
// against the icons.
//
//     npm run scans -- [--count 60] [--list]
//
// The light falls off to a quarter, by turns from one side, from one corner, about a bright place; the pictures are blurred by 0.7 px,
// have noise of 3, and are compressed at quality 80.
import { readdirSync, readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { type Region, readSvg, regionsArea, ringsOf, type Shape } from '../core/index.ts';
import { sharedArea } from '../core/outline/overlap.ts';
import { regionsOf } from '../core/outline/regions.ts';
import { flatten } from '../core/path/flatten.ts';
import { scaling, transformPath } from '../core/path/matrix.ts';
import type { Path } from '../core/path/types.ts';
import { renderCoverage } from '../core/picture/coverage.ts';
import { prepare } from '../core/picture/prepare.ts';
import type { Grey, Picture } from '../core/picture/types.ts';
import { noisy } from '../core/testing/pictures.ts';
import { lookAt } from '../core/trace/look.ts';
import { startFor } from '../core/trace/start.ts';
import { trace } from '../core/trace/trace.ts';
import { imageOf, reopened } from './damages.ts';
import { median } from './median.ts';

const FOLDER = 'bench/sets/node_modules/@mdi/svg/svg';
const SIZE = 512;
const UNITS = 24;
/** Tolerance when outlines are compared, px. */
const FINE = 0.02;
/** Luma of paper and ink in full light, bytes, and what is left of the light where it is worst. */
const [PAPER, INK, WORST] = [238, 28, 0.25];

/** Light at a place, 0 … 1 each. */
const LIGHTS: Readonly<Record<string, (x: number, y: number) => number>> = {
  even: () => 1,
  side: (x) => 1 - (1 - WORST) * x,
  corner: (x, y) => 1 - (1 - WORST) * Math.min(1, Math.hypot(x, y) / Math.SQRT2),
  spot: (x, y) => WORST + (1 - WORST) * Math.exp(-4 * ((x - 0.35) ** 2 + (y - 0.4) ** 2)),
};

async function photographed(
  { width, height, values }: Grey,
  light: (x: number, y: number) => number,
): Promise<Picture> {
  const data = new Uint8ClampedArray(4 * width * height);
  for (const [i, share] of values.entries()) {
    const lit = light(((i % width) + 0.5) / width, (Math.floor(i / width) + 0.5) / height);
    const v = lit * (INK + (PAPER - INK) * share);
    data.set([v, v, v, 255], 4 * i);
  }
  const blurred = await reopened(await imageOf({ width, height, data }).blur(0.7).png().toBuffer());
  return reopened(await imageOf(noisy(blurred, 3)).jpeg({ quality: 80 }).toBuffer());
}

const filled = (paths: readonly Path[], rule: Shape['fillRule']): Region[] =>
  regionsOf(
    paths.flatMap((path) => flatten(path, FINE)),
    rule,
  );

const options = { count: { type: 'string', default: '60' }, list: { type: 'boolean', default: false } } as const;
const { count, list } = parseArgs({ options }).values;
const names = readdirSync(FOLDER).sort();
const icons = names.filter((_, i) => i % Math.floor(names.length / Number(count)) === 3).slice(0, Number(count));
console.log('light     overlap  least    under .97  parts    ink only  even light  specks  ms');
for (const [light, at] of Object.entries(LIGHTS)) {
  const rows: {
    icon: string;
    overlap: number;
    parts: number;
    mode: string;
    flat: number;
    after: number;
    steps: string;
    ms: number;
  }[] = [];
  for (const icon of icons) {
    const { shapes } = readSvg(readFileSync(`${FOLDER}/${icon}`, 'utf8'));
    const path = shapes.flatMap((shape) => transformPath(shape.path, scaling(SIZE / UNITS)));
    const original = filled([path], 'nonzero');
    const picture = await photographed(renderCoverage(ringsOf(original), SIZE, SIZE), at);
    const started = performance.now();
    const start = startFor(picture);
    const { drawing } = trace(prepare(picture, start.prepare), start.trace);
    const ms = performance.now() - started;
    const kept = drawing.shapes.filter(({ id }) => !drawing.ground?.includes(id));
    const found = filled(
      kept.map((shape) => shape.path),
      'evenodd',
    );
    const shared = sharedArea(original, found);
    rows.push({
      icon,
      overlap: shared / (regionsArea(original) + regionsArea(found) - shared),
      parts: ringsOf(found).length / ringsOf(original).length,
      mode: start.trace.mode,
      flat: lookAt(picture).flat,
      after: lookAt(prepare(picture, start.prepare).picture).flat,
      steps: start.prepare.map(({ action }) => action.do).join(' '),
      ms,
    });
  }
  const overlaps = rows.map(({ overlap }) => overlap);
  const share = (is: (row: (typeof rows)[number]) => boolean) => `${rows.filter(is).length}/${rows.length}`;
  console.log(
    [
      light.padEnd(10),
      median(overlaps).toFixed(4).padEnd(9),
      Math.min(...overlaps)
        .toFixed(4)
        .padEnd(9),
      share(({ overlap }) => overlap < 0.97).padEnd(11),
      median(rows.map(({ parts }) => parts))
        .toFixed(2)
        .padEnd(9),
      share(({ mode }) => mode === 'ink').padEnd(10),
      share(({ steps }) => steps.includes('light')).padEnd(12),
      share(({ steps }) => steps.includes('specks')).padEnd(8),
      median(rows.map(({ ms }) => ms)).toFixed(0),
    ].join(''),
  );
  if (list) for (const row of rows.sort((a, b) => a.overlap - b.overlap).slice(0, 12)) console.log(JSON.stringify(row));
}
