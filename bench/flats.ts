// flats.ts — `npm run flats`: flat-colour drawings rendered, then compressed, blurred, dithered or enlarged, and traced as they are;
// what comes back against the drawing.
//
//     npm run flats -- [--count 40] [--only png,jpeg70] [--sets FOLDER] [--skip 0] [--list]
//
// Of each drawing, whose colours are flat and few, at 512 px: mean CIEDE2000 between the rendering and that of the trace; overlap
// (intersection over union) of each of its colours, their mean and the worst; pieces of the trace to those of the drawing; slivers,
// under 4 px² or thinner than 0.75 px; regions of the drawing that the trace has lost.
import { parseArgs } from 'node:util';
import { ringsLength } from '../core/outline/measure.ts';
import { componentsOf } from '../core/picture/components.ts';
import type { Picture } from '../core/picture/types.ts';
import { traceFlats } from '../core/trace/flats.ts';
import { TRACE_DEFAULTS } from '../core/trace/settings.ts';
import {
  apart,
  DAMAGES,
  drawingsIn,
  FINE,
  nearestColour,
  pictureOf,
  rendered,
  type Samples,
  SIZE,
  samplesOf,
} from './damages.ts';
import { median } from './median.ts';

/** A region of the drawing counts from so many pixels on. */
const LEAST_REGION = 6;
const SLIVER = { area: 4, width: 0.75 } as const;

interface Figures {
  readonly difference: number;
  readonly overlap: number;
  readonly worst: number;
  readonly slivers: number;
  readonly pieces: number;
  readonly lost: number;
  readonly curves: number;
  readonly colours: number;
  readonly ms: number;
}

/** Regions of one label from so many pixels on, sampled in the middle of each. */
function regionsOf(labels: Uint8Array) {
  const small = new Uint8Array(SIZE * SIZE);
  for (let y = 0; y < SIZE; y++) {
    for (let x = 0; x < SIZE; x++) small[y * SIZE + x] = labels[(y * FINE + 2) * SIZE * FINE + x * FINE + 2]!;
  }
  const { of, areas } = componentsOf(small, SIZE, SIZE);
  return { small, of, areas: Array.from(areas) };
}

async function figuresOf(truth: Samples, picture: Picture, original: Picture): Promise<Figures> {
  const started = performance.now();
  const traced = traceFlats(picture, {
    ...TRACE_DEFAULTS,
    isGrey: false,
    layering: 'abutting',
    corner: (TRACE_DEFAULTS.corner * Math.PI) / 180,
  });
  const ms = performance.now() - started;
  const pieces = traced.colours.flatMap(({ pieces: own }) => own);
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${SIZE}" height="${SIZE}" viewBox="0 0 ${SIZE} ${SIZE}">${traced.colours
    .map(({ colour, pieces: own }) =>
      own
        .map(({ path }) => `<path fill="${colour}" fill-rule="evenodd" d="${path.map((s) => s.join(' ')).join('')}"/>`)
        .join(''),
    )
    .join('')}</svg>`;
  const data = await rendered(svg, SIZE * FINE);
  const own = traced.colours.map(({ colour }) => Number.parseInt(colour.slice(1), 16));
  const nearest = new Map(own.map((colour) => [colour, nearestColour(truth.colours, colour)]));
  const labels = new Uint8Array(truth.labels.length);
  const shown = new Uint8Array(truth.labels.length);
  for (let i = 0; i < labels.length; i++) {
    const colour = (data[3 * i]! << 16) | (data[3 * i + 1]! << 8) | data[3 * i + 2]!;
    labels[i] = nearest.get(colour) ?? nearestColour(truth.colours, colour);
    shown[i] = Math.max(0, own.indexOf(colour));
  }
  const [both, either] = [truth.colours.map(() => 0), truth.colours.map(() => 0)];
  for (let i = 0; i < labels.length; i++) {
    const [a, b] = [truth.labels[i]!, labels[i]!];
    either[a]!++;
    if (a === b) both[a]!++;
    else either[b]!++;
  }
  const overlaps = both.map((n, i) => n / either[i]!);
  const seen = pictureOf({ colours: own, labels: shown });
  let sum = 0;
  for (let p = 0; p < seen.data.length; p += 4) {
    const at = ({ data: d }: Picture) => (d[p]! << 16) | (d[p + 1]! << 8) | d[p + 2]!;
    sum += apart(at(seen), at(original));
  }
  const wanted = regionsOf(truth.labels);
  const found = regionsOf(labels);
  const kept = new Float64Array(wanted.areas.length);
  for (let i = 0; i < SIZE * SIZE; i++) if (wanted.small[i] === found.small[i]) kept[wanted.of[i]!]!++;
  const counted = wanted.areas.flatMap((area, k) => (area >= LEAST_REGION ? [k] : []));
  return {
    difference: sum / (SIZE * SIZE),
    overlap: overlaps.reduce((s, v) => s + v, 0) / overlaps.length,
    worst: Math.min(...overlaps),
    slivers: pieces.filter(({ area, rings }) => area < SLIVER.area || (2 * area) / ringsLength(rings) < SLIVER.width)
      .length,
    pieces: pieces.length / counted.length,
    lost: counted.filter((k) => kept[k]! < wanted.areas[k]! / 2).length / counted.length,
    curves: traced.network.pieces,
    colours: own.length - truth.colours.length,
    ms,
  };
}

const options = {
  count: { type: 'string', default: '40' },
  only: { type: 'string', default: '' },
  sets: { type: 'string', default: 'bench/sets/node_modules' },
  skip: { type: 'string', default: '0' },
  list: { type: 'boolean', default: false },
} as const;
const { count, only, sets, skip, list } = parseArgs({ options }).values;
const all = drawingsIn(sets);
const wanted = Number(count);
const kinds = Object.keys(DAMAGES).filter((kind) => only === '' || only.split(',').includes(kind));
const rows = new Map<string, Figures[]>(kinds.map((kind) => [kind, []]));
let taken = 0;
const stride = Math.max(1, Math.floor(all.length / (2 * wanted)));
for (let i = Number(skip); i < all.length && taken < wanted; i += stride) {
  const truth = await samplesOf(all[i]!.svg).catch(() => null);
  if (!truth) continue;
  taken++;
  const original = pictureOf(truth);
  for (const kind of kinds) {
    const figures = await figuresOf(truth, await DAMAGES[kind]!(original), original);
    rows.get(kind)!.push(figures);
    if (list)
      console.log(
        all[i]!.name,
        kind,
        JSON.stringify(figures, (_, v) => (typeof v === 'number' ? Number(v.toPrecision(4)) : v)),
      );
  }
}
console.log(`${taken} drawings of flat colours, ${SIZE} px; medians (slivers: mean)\n`);
console.log('            ΔE      IoU     worst   slivers  pieces  lost %  curves  colours  ms');
for (const [kind, figures] of rows) {
  const mid = (key: keyof Figures) => median(figures.map((each) => each[key]));
  const mean = (key: keyof Figures) => figures.reduce((s, each) => s + each[key], 0) / figures.length;
  console.log(
    [
      kind.padEnd(12),
      mid('difference').toFixed(3).padEnd(8),
      mid('overlap').toFixed(4).padEnd(8),
      mid('worst').toFixed(4).padEnd(8),
      `${mid('slivers')} (${mean('slivers').toFixed(1)})`.padEnd(12),
      `${mid('pieces').toFixed(2)} (${mean('pieces').toFixed(2)})`.padEnd(14),
      `${(100 * mid('lost')).toFixed(1)} (${(100 * mean('lost')).toFixed(1)})`.padEnd(12),
      String(mid('curves')).padEnd(8),
      mean('colours').toFixed(1).padEnd(6),
      mid('ms').toFixed(0),
    ].join(''),
  );
}
