// palette.ts — the few colours a picture is made of: k-means in OKLab over a histogram of its flat places, started by
// k-means++ (Arthur & Vassilvitskii 2007) from the same seed every time.
import { type Lab, labDistance, labOf, type Rgb, rgbOf } from '../picture/colour.ts';
import type { Picture } from '../picture/types.ts';

/** Bits of each channel that a histogram bin keeps. */
const BITS = 5;
const SHIFT = 8 - BITS;
export const BINS = 1 << (3 * BITS);

export const binOf = (r: number, g: number, b: number) =>
  ((r >> SHIFT) << (2 * BITS)) | ((g >> SHIFT) << BITS) | (b >> SHIFT);

/** The colour in the middle of a bin. */
export function binColour(bin: number): Rgb {
  const mask = (1 << BITS) - 1;
  const middle = (v: number) => Math.round((v * 255) / mask);
  return [middle(bin >> (2 * BITS)), middle((bin >> BITS) & mask), middle(bin & mask)];
}

/** Pixels of one colour, as far as they count. */
export interface Swatch {
  readonly lab: Lab;
  readonly weight: number;
}

/** A pixel is flat where its neighbours on opposite sides differ by no more than this, summed over the channels. */
const FLAT = 36;

/**
 * How the colour runs through a pixel: 0 flat, 1 a crest (further out than both neighbours, as the middle of a thin line),
 * 2 a slope, as the fringe of an edge is.
 */
export function runThrough({ width, height, data }: Picture, x: number, y: number): 0 | 1 | 2 {
  const p = 4 * (y * width + x);
  const across = axis(data, p, x > 0 ? p - 4 : p, x + 1 < width ? p + 4 : p);
  if (across === 2) return 2;
  const down = axis(data, p, y > 0 ? p - 4 * width : p, y + 1 < height ? p + 4 * width : p);
  return down > across ? down : across;
}

function axis(data: Uint8ClampedArray, p: number, q: number, r: number): 0 | 1 | 2 {
  let difference = 0;
  let fold = 0;
  for (let c = 0; c < 4; c++) {
    const before = data[q + c]!;
    const here = data[p + c]!;
    const behind = data[r + c]!;
    difference += Math.abs(behind - before);
    fold += (here - before) * (here - behind);
  }
  if (difference <= FLAT) return 0;
  return fold > FLAT * FLAT ? 1 : 2;
}

/** Pixels of a large picture that are looked at: colours of flat places need no more. */
const LOOKED_AT = 1_000_000;

/** What a picture's flat places are made of. @param isGrey only lightness counts */
export function swatchesOf(picture: Picture, isGrey: boolean): Swatch[] {
  const { width, height, data } = picture;
  const counts = new Uint32Array(BINS);
  const sums = new Float64Array(3 * BINS);
  const step = Math.ceil(Math.sqrt((width * height) / LOOKED_AT));
  for (let y = 0; y < height; y += step) {
    for (let x = 0; x < width; x += step) {
      const p = 4 * (y * width + x);
      if (data[p + 3]! < 128 || runThrough(picture, x, y) !== 0) continue;
      const bin = binOf(data[p]!, data[p + 1]!, data[p + 2]!);
      counts[bin]!++;
      for (let c = 0; c < 3; c++) sums[3 * bin + c]! += data[p + c]!;
    }
  }
  const swatches: Swatch[] = [];
  for (let bin = 0; bin < BINS; bin++) {
    const weight = counts[bin]!;
    if (weight === 0) continue;
    const mean = (c: number) => Math.round(sums[3 * bin + c]! / weight);
    const [l, a, b] = labOf(mean(0), mean(1), mean(2));
    swatches.push({ lab: isGrey ? [l, 0, 0] : [l, a, b], weight });
  }
  return swatches.sort((p, q) => q.weight - p.weight);
}

/** Colours nearer than this are shades of one. */
const APART = 0.055;
/** A colour counts from this share of the flat places on. */
const LEAST_SHARE = 0.0015;

/** The colours that stand apart, the most frequent first. @param most where the search ends */
export function distinctColours(swatches: readonly Swatch[], most: number): Lab[] {
  const total = swatches.reduce((sum, { weight }) => sum + weight, 0);
  const found: Lab[] = [];
  const free = new Set(swatches);
  for (const seed of swatches) {
    if (found.length >= most) break;
    if (!free.has(seed)) continue;
    let weight = 0;
    for (const other of free) {
      if (labDistance(other.lab, seed.lab) > APART) continue;
      weight += other.weight;
      free.delete(other);
    }
    if (weight >= LEAST_SHARE * total && found.every((lab) => labDistance(lab, seed.lab) > APART)) found.push(seed.lab);
  }
  return found;
}

const ROUNDS = 40;

/**
 * `count` colours that stand for the swatches with the least squared distance.
 * @param start colours to begin with; without them they are picked at random, from the same seed every time
 */
export function palette(swatches: readonly Swatch[], count: number, start?: readonly Lab[]): Rgb[] {
  if (swatches.length === 0) return [];
  let centres: Lab[] = start ? [...start] : seeded(swatches, count);
  for (let round = 0; round < ROUNDS; round++) {
    const sums = centres.map(() => [0, 0, 0, 0]);
    for (const { lab, weight } of swatches) {
      const sum = sums[nearest(centres, lab)]!;
      for (let c = 0; c < 3; c++) sum[c]! += weight * lab[c]!;
      sum[3]! += weight;
    }
    const moved = centres.map((centre, i): Lab => {
      const [l, a, b, weight] = sums[i] as [number, number, number, number];
      return weight > 0 ? [l / weight, a / weight, b / weight] : centre;
    });
    const isSettled = moved.every((lab, i) => labDistance(lab, centres[i]!) < 1e-4);
    centres = moved;
    if (isSettled) break;
  }
  return centres.map(rgbOf);
}

export function nearest(centres: readonly Lab[], lab: Lab): number {
  let [best, least] = [0, Infinity];
  for (let i = 0; i < centres.length; i++) {
    const distance = labDistance(centres[i]!, lab);
    if (distance < least) [best, least] = [i, distance];
  }
  return best;
}

function seeded(swatches: readonly Swatch[], count: number): Lab[] {
  const random = randomNumbers(1);
  const centres: Lab[] = [swatches[0]!.lab];
  const gaps = swatches.map(({ lab }) => labDistance(lab, centres[0]!) ** 2);
  while (centres.length < Math.min(count, swatches.length)) {
    const total = swatches.reduce((sum, { weight }, i) => sum + weight * gaps[i]!, 0);
    if (total === 0) break;
    let rest = random() * total;
    const at = swatches.findIndex(({ weight }, i) => {
      rest -= weight * gaps[i]!;
      return rest <= 0;
    });
    const centre = swatches[at < 0 ? swatches.length - 1 : at]!.lab;
    centres.push(centre);
    for (const [i, { lab }] of swatches.entries()) gaps[i] = Math.min(gaps[i]!, labDistance(lab, centre) ** 2);
  }
  return centres;
}

/** Even numbers 0 … 1 from a linear congruential generator (Numerical Recipes, §7.1: 1664525, 1013904223). */
function randomNumbers(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
}
