// damages.ts — drawings of flat colours, rendered, and what happens to such pictures before anyone traces them.
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { converter, differenceCiede2000 } from 'culori';
import sharp from 'sharp';
import type { Picture } from '../core/picture/types.ts';
import { noisy } from '../core/testing/pictures.ts';

export const SIZE = 512;
/** Samples of a pixel along each axis by which drawings and traces are rendered. */
export const FINE = 4;
/** Drawings of more colours are not flat. */
const MOST_COLOURS = 12;
/** A colour of the drawing counts from so many pixels on. */
const LEAST_COLOUR = 16;

export interface Drawing {
  readonly name: string;
  readonly svg: string;
}

/** Samples of a drawing: numbers of its colours, from 0. */
export interface Samples {
  readonly colours: readonly number[];
  readonly labels: Uint8Array;
}

const rgbOf = (colour: number) => [colour >> 16, (colour >> 8) & 255, colour & 255] as const;

export async function rendered(svg: string, side: number): Promise<Uint8Array> {
  const crisp = svg.replace('<svg', '<svg shape-rendering="crispEdges"');
  const density = 72;
  const { width = side, height = side } = await sharp(Buffer.from(crisp), { density }).metadata();
  const scale = side / Math.max(width, height);
  const { data } = await sharp(Buffer.from(crisp), { density: density * scale, limitInputPixels: false })
    .resize(side, side, { fit: 'contain', background: '#ffffff', kernel: 'nearest' })
    .flatten({ background: '#ffffff' })
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return data;
}

/** Null for a drawing that is not flat. */
export async function samplesOf(svg: string): Promise<Samples | null> {
  const side = SIZE * FINE;
  const data = await rendered(svg, side);
  const counts = new Map<number, number>();
  const colourAt = (p: number) => (data[p]! << 16) | (data[p + 1]! << 8) | data[p + 2]!;
  for (let p = 0; p < data.length; p += 3) counts.set(colourAt(p), (counts.get(colourAt(p)) ?? 0) + 1);
  const colours = [...counts].filter(([, n]) => n >= LEAST_COLOUR * FINE * FINE).map(([colour]) => colour);
  const rest = [...counts].reduce((sum, [colour, n]) => sum + (colours.includes(colour) ? 0 : n), 0);
  if (colours.length < 3 || colours.length > MOST_COLOURS || rest > 0.001 * side * side) return null;
  const numbers = new Map(colours.map((colour, i) => [colour, i]));
  const labels = Uint8Array.from({ length: side * side }, (_, i) => {
    const colour = colourAt(3 * i);
    return numbers.get(colour) ?? nearestColour(colours, colour);
  });
  return { colours, labels };
}

const lab = converter('lab65');
const difference = differenceCiede2000();
const known = new Map<number, ReturnType<typeof lab>>();
function labOf(colour: number) {
  const found = known.get(colour);
  if (found) return found;
  const [r, g, b] = rgbOf(colour);
  const made = lab({ mode: 'rgb', r: r / 255, g: g / 255, b: b / 255 });
  known.set(colour, made);
  return made;
}
export const apart = (a: number, b: number) => (a === b ? 0 : difference(labOf(a)!, labOf(b)!));
export const nearestColour = (colours: readonly number[], colour: number) =>
  colours.reduce((best, each, i) => (apart(each, colour) < apart(colours[best]!, colour) ? i : best), 0);

/** Averaged in encoded values, as renderers blend. */
export function pictureOf({ colours, labels }: Samples): Picture {
  const data = new Uint8ClampedArray(4 * SIZE * SIZE);
  for (let y = 0; y < SIZE; y++) {
    for (let x = 0; x < SIZE; x++) {
      const sum = [0, 0, 0];
      for (let v = 0; v < FINE; v++) {
        for (let u = 0; u < FINE; u++) {
          const rgb = rgbOf(colours[labels[(y * FINE + v) * SIZE * FINE + x * FINE + u]!]!);
          for (let c = 0; c < 3; c++) sum[c]! += rgb[c]!;
        }
      }
      const p = 4 * (y * SIZE + x);
      for (let c = 0; c < 3; c++) data[p + c] = Math.round(sum[c]! / FINE ** 2);
      data[p + 3] = 255;
    }
  }
  return { width: SIZE, height: SIZE, data };
}

type Damage = (picture: Picture) => Promise<Picture>;

export const imageOf = ({ data, width, height }: Picture) =>
  sharp(Buffer.from(data.buffer, data.byteOffset, data.length), { raw: { width, height, channels: 4 } }).removeAlpha();

export async function reopened(bytes: Buffer): Promise<Picture> {
  const { data, info } = await sharp(bytes).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, data: new Uint8ClampedArray(data) };
}

const jpeg =
  (quality: number): Damage =>
  async (picture) =>
    reopened(await imageOf(picture).jpeg({ quality }).toBuffer());

export const DAMAGES: Readonly<Record<string, Damage>> = {
  png: async (picture) => picture,
  jpeg90: jpeg(90),
  jpeg70: jpeg(70),
  jpeg40: jpeg(40),
  noise: async (picture) => noisy(await reopened(await imageOf(picture).blur(1).png().toBuffer()), 6),
  gif: async (picture) => reopened(await imageOf(picture).gif({ colours: 16, dither: 1 }).toBuffer()),
  half: async (picture) => {
    const small = await imageOf(picture)
      .resize(SIZE / 2, SIZE / 2)
      .png()
      .toBuffer();
    return reopened(await sharp(small).resize(SIZE, SIZE, { kernel: 'cubic' }).png().toBuffer());
  },
};

export function drawingsIn(folder: string): Drawing[] {
  const files = (path: string) => {
    const at = `${folder}/${path}`;
    if (!existsSync(at)) return [];
    return readdirSync(at)
      .filter((name) => name.endsWith('.svg'))
      .sort()
      .map((name) => ({ name: `${path}/${name}`, svg: readFileSync(`${at}/${name}`, 'utf8') }));
  };
  const json = (path: string) => {
    const at = `${folder}/${path}/icons.json`;
    if (!existsSync(at)) return [];
    const { icons, width = 16, height = 16 } = JSON.parse(readFileSync(at, 'utf8'));
    return Object.entries(icons as Record<string, { body: string; width?: number; height?: number }>).map(
      ([name, icon]) => {
        const [w, h] = [icon.width ?? width, icon.height ?? height];
        const svg = `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="${w}" height="${h}" viewBox="0 0 ${w} ${h}">${icon.body}</svg>`;
        return { name: `${path}/${name}`, svg };
      },
    );
  };
  return [
    ...files('flag-icons/flags/1x1'),
    ...files('@twemoji/svg'),
    ...json('@iconify-json/fluent-emoji-flat'),
    ...json('@iconify-json/flat-color-icons'),
  ];
}
