// resample.ts — more or fewer pixels by a Lanczos filter of three lobes (Duchon 1979), rows and columns apart. Colours are
// weighted by their alpha, so that what is transparent does not bleed in.
import { z } from 'zod';
import { GeometryError } from '../../base/errors.ts';
import { PICTURE_LIMITS, type Picture, type Prepared } from '../types.ts';

export const ResampleSchema = z.object({
  do: z.literal('resample'),
  /** New pixels for one old one, along each side: 5 brings 120 dpi to 600. */
  factor: z.number().min(0.02).max(16),
});

/** @throws {GeometryError} 'too-large' when the result would have too many pixels */
export function resample({ picture, frame, level }: Prepared, { factor }: z.infer<typeof ResampleSchema>): Prepared {
  const resized = scaled(picture, factor);
  return { picture: resized, frame: { ...frame, scale: frame.scale / factor }, level };
}

/** A picture of `factor` times the size, each side rounded to whole pixels; the first pixel's corner stays in place. */
export function scaled(picture: Picture, factor: number): Picture {
  const width = Math.max(1, Math.round(picture.width * factor));
  const height = Math.max(1, Math.round(picture.height * factor));
  if (width * height > PICTURE_LIMITS.pixels) {
    const most = Math.floor(100 * Math.sqrt(PICTURE_LIMITS.pixels / (picture.width * picture.height))) / 100;
    throw new GeometryError(
      'too-large',
      `Resampling ×${factor} would make ${width} × ${height} pixels; ×${most} is the most for this picture.`,
    );
  }
  if (factor === 1) return picture;
  const premultiplied = new Float32Array(picture.data.length);
  for (let p = 0; p < premultiplied.length; p += 4) {
    const alpha = picture.data[p + 3]!;
    for (let c = 0; c < 3; c++) premultiplied[p + c] = (picture.data[p + c]! * alpha) / 255;
    premultiplied[p + 3] = alpha;
  }
  const wide = stretched(premultiplied, picture.width, picture.height, width, factor, 4, 4 * picture.width);
  // Columns: the same with the steps along and across exchanged.
  const full = stretched(wide, picture.height, width, height, factor, 4 * width, 4);
  const data = new Uint8ClampedArray(4 * width * height);
  for (let p = 0; p < data.length; p += 4) {
    const alpha = full[p + 3]!;
    if (alpha <= 0) continue;
    for (let c = 0; c < 3; c++) data[p + c] = (255 * full[p + c]!) / alpha;
    data[p + 3] = alpha;
  }
  return { width, height, data };
}

const LOBES = 3;

/**
 * Every line of `count` pixels to `wanted` pixels.
 * @param step,across places in the array from a pixel to the next along a line, and from a line to the next; when lines
 * are rows, the result's rows are `wanted` long
 */
function stretched(
  values: Float32Array,
  count: number,
  lines: number,
  wanted: number,
  factor: number,
  step: number,
  across: number,
): Float32Array {
  const isRows = step < across;
  const result = new Float32Array(4 * wanted * lines);
  const [toStep, toAcross] = isRows ? [4, 4 * wanted] : [step, across];
  const { taps, weights, firsts } = kernelsFor(wanted, factor);
  const pixel = (i: number, line: number) => {
    let [r, g, b, a] = [0, 0, 0, 0];
    for (let k = 0; k < taps; k++) {
      const weight = weights[i * taps + k]!;
      const at = Math.min(count - 1, Math.max(0, firsts[i]! + k)) * step + line * across;
      r += weight * values[at]!;
      g += weight * values[at + 1]!;
      b += weight * values[at + 2]!;
      a += weight * values[at + 3]!;
    }
    const to = i * toStep + line * toAcross;
    result[to] = r;
    result[to + 1] = g;
    result[to + 2] = b;
    result[to + 3] = a;
  };
  // In the order in which the pixels lie.
  if (isRows) for (let line = 0; line < lines; line++) for (let i = 0; i < wanted; i++) pixel(i, line);
  else for (let i = 0; i < wanted; i++) for (let line = 0; line < lines; line++) pixel(i, line);
  return result;
}

/** For each new pixel of a line the first old one that has a part in it, and the parts of that and the next ones. */
function kernelsFor(wanted: number, factor: number) {
  const widening = Math.max(1, 1 / factor);
  const taps = Math.ceil(2 * LOBES * widening) + 1;
  const weights = new Float64Array(wanted * taps);
  const firsts = new Int32Array(wanted);
  for (let i = 0; i < wanted; i++) {
    const middle = (i + 0.5) / factor - 0.5;
    const first = Math.ceil(middle - LOBES * widening);
    firsts[i] = first;
    let sum = 0;
    for (let k = 0; k < taps; k++) sum += weights[i * taps + k] = lanczos((first + k - middle) / widening);
    for (let k = 0; k < taps; k++) weights[i * taps + k]! /= sum;
  }
  return { taps, weights, firsts };
}

function lanczos(x: number): number {
  if (x === 0) return 1;
  if (Math.abs(x) >= LOBES) return 0;
  const t = Math.PI * x;
  return (LOBES * Math.sin(t) * Math.sin(t / LOBES)) / (t * t);
}
