// traces.ts — our ink trace beside two well-known open tracing libraries, on icons rendered grey with exact coverage.
// Overlap is intersection over union, computed on the outlines themselves.
import { readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { resolve } from 'node:path';
import { crc32, deflateSync } from 'node:zlib';
import { type Path, type Region, readSvg, regionsArea, ringsOf, type Shape } from '../core/index.ts';
import { sharedArea } from '../core/outline/overlap.ts';
import { regionsOf } from '../core/outline/regions.ts';
import { flatten } from '../core/path/flatten.ts';
import { scaling, transformPath } from '../core/path/matrix.ts';
import { renderCoverage } from '../core/picture/coverage.ts';
import type { Grey } from '../core/picture/types.ts';
import { traceInk } from '../core/trace/ink.ts';
import { median } from './median.ts';
import type { Imagetracer, PotraceClass } from './references.ts';

const sets = createRequire(resolve('bench/sets/package.json'));
const imagetracer: Imagetracer = sets('imagetracerjs');
const { Potrace }: { Potrace: PotraceClass } = sets('potrace');
const FOLDER = 'bench/sets/node_modules/@mdi/svg/svg';
const ICONS = 62;
const SIZES = [256, 512];
/** Tolerance when outlines are compared, px. */
const FINE = 0.005;

interface Result {
  readonly overlap: number;
  readonly pieces: number;
  /** Of the pieces to those of the original. */
  readonly ratio: number;
  readonly ms: number;
}
type Tracer = (grey: Grey) => Promise<{ regions: Region[]; pieces: number; ms: number }>;

export async function compareTraces(): Promise<void> {
  const names = readdirSync(FOLDER).sort();
  const icons = names.filter((_, i) => i % Math.floor(names.length / ICONS) === 7).slice(0, ICONS);
  const tracers: [string, Tracer][] = [
    ['ours', ours],
    ['imagetracerjs', withImagetracer],
    ['potrace', withPotrace],
  ];
  console.log(
    `${icons.length} icons in two tones; medians; the files draw them with ${median(icons.map(originalPieces))} commands, ${median(icons.map(drawnPieces))} lines and curves\n`,
  );
  console.log('px    input     tracer          overlap   pieces   ratio   ms');
  for (const size of SIZES) {
    for (const isOneBit of [false, true]) {
      for (const [name, tracer] of tracers) {
        const results: Result[] = [];
        for (const icon of icons) results.push(await measure(icon, size, isOneBit, tracer));
        const [overlap, pieces, ratio, ms] = (['overlap', 'pieces', 'ratio', 'ms'] as const).map((key) =>
          median(results.map((r) => r[key])),
        );
        const cells = [
          String(size).padEnd(6),
          (isOneBit ? 'one bit' : 'grey').padEnd(10),
          name.padEnd(16),
          overlap!.toFixed(5).padEnd(10),
          String(pieces).padEnd(9),
          ratio!.toFixed(2).padEnd(8),
          ms!.toFixed(1),
        ];
        console.log(cells.join(''));
      }
    }
  }
}

const textOf = (icon: string) => readFileSync(`${FOLDER}/${icon}`, 'utf8');

/** Commands that draw in the file's own path data. */
function originalPieces(icon: string): number {
  const numbers = { l: 2, h: 1, v: 1, c: 6, s: 4, q: 4, t: 2, a: 7 } as const;
  let pieces = 0;
  for (const [, letter, values] of (/ d="([^"]*)"/.exec(textOf(icon))?.[1] ?? '').matchAll(/([a-z])([^a-z]*)/gi)) {
    const each = numbers[letter!.toLowerCase() as keyof typeof numbers];
    const count = values!.match(/-?(?:\d+\.?\d*|\.\d+)/g)?.length ?? 0;
    if (each) pieces += Math.max(1, Math.round(count / each));
  }
  return pieces;
}

/** Lines and curves of the shapes, arcs as the eighths of an ellipse that they become. */
const drawnPieces = (icon: string) =>
  readSvg(textOf(icon))
    .shapes.flatMap(({ path }) => path)
    .filter(([letter]) => letter === 'L' || letter === 'C').length;

async function measure(icon: string, size: number, isOneBit: boolean, tracer: Tracer): Promise<Result> {
  const { shapes } = readSvg(textOf(icon));
  const paths = shapes.map(({ path }) => transformPath(path, scaling(size / 24)));
  const original = filled(paths, shapes[0]!.fillRule);
  const grey = renderCoverage(ringsOf(original), size, size);
  const input = isOneBit ? { ...grey, values: grey.values.map((v) => (v < 0.5 ? 0 : 1)) } : grey;
  const { regions, pieces, ms } = await tracer(input);
  const shared = sharedArea(original, regions);
  const overlap = shared / (regionsArea(original) + regionsArea(regions) - shared);
  return { overlap, pieces, ratio: pieces / drawnPieces(icon), ms };
}

const filled = (paths: readonly Path[], rule: Shape['fillRule']) =>
  regionsOf(
    paths.flatMap((path) => flatten(path, FINE)),
    rule,
  );

async function ours(grey: Grey) {
  const started = performance.now();
  const { path, pieces } = traceInk(grey);
  return { ms: performance.now() - started, regions: filled([path], 'evenodd'), pieces };
}

async function withPotrace(grey: Grey) {
  const tracer = new Potrace();
  const png = pngOf(grey);
  await new Promise<void>((done, fail) => tracer.loadImage(png, (error) => (error ? fail(error) : done())));
  const started = performance.now();
  const tag = tracer.getPathTag();
  const ms = performance.now() - started;
  return { ms, ...fromSvg(`<svg viewBox="0 0 ${grey.width} ${grey.height}">${tag}</svg>`) };
}

async function withImagetracer(grey: Grey) {
  const data = new Uint8ClampedArray(4 * grey.values.length);
  for (const [i, v] of grey.values.entries()) data.set([255 * v, 255 * v, 255 * v, 255], 4 * i);
  const tones = [0, 255].map((v) => ({ r: v, g: v, b: v, a: 255 }));
  const started = performance.now();
  const svg = imagetracer.imagedataToSVG(
    { width: grey.width, height: grey.height, data },
    { pal: tones, colorquantcycles: 1 },
  );
  const ms = performance.now() - started;
  return { ms, ...fromSvg(svg) };
}

/** The dark shapes of a traced SVG and how many pieces draw them. */
function fromSvg(svg: string) {
  const dark = readSvg(svg).shapes.filter(({ colour }) => Number.parseInt(colour.slice(1, 3), 16) < 128);
  const each = dark.map(({ path, fillRule }) => filled([path], fillRule));
  const pieces = dark.flatMap(({ path }) => path).filter(([letter]) => letter === 'L' || letter === 'C').length;
  return { regions: regionsOf(each.flatMap(ringsOf), 'nonzero'), pieces };
}

/** An 8-bit grey PNG (PNG specification, third edition, §5 and §9: no filter). */
function pngOf({ width, height, values }: Grey): Uint8Array {
  const rows = Buffer.alloc((width + 1) * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) rows[y * (width + 1) + 1 + x] = Math.round(255 * values[y * width + x]!);
  }
  const chunk = (name: string, body: Buffer) => {
    const named = Buffer.concat([Buffer.from(name, 'latin1'), body]);
    const frame = Buffer.alloc(8);
    frame.writeUInt32BE(body.length, 0);
    frame.writeUInt32BE(crc32(named), 4);
    return Buffer.concat([frame.subarray(0, 4), named, frame.subarray(4)]);
  };
  const header = Buffer.alloc(13);
  header.writeUInt32BE(width, 0);
  header.writeUInt32BE(height, 4);
  header[8] = 8;
  const signature = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
  return Buffer.concat([
    signature,
    chunk('IHDR', header),
    chunk('IDAT', deflateSync(rows)),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}
