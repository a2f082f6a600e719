// ground.ts — the ground taken away: made transparent from the border inward as far as its colour reaches, or where the
// picture is nearly transparent already. Fringe pixels become as transparent as they are mixed with it.
import { z } from 'zod';
import { labDistance, labOf } from '../colour.ts';
import type { Picture, Prepared } from '../types.ts';

export const GroundSchema = z.object({
  do: z.literal('ground'),
  by: z.enum(['colour', 'alpha']),
  /** How far a colour may lie from the ground's (OKLab), or the least alpha that is kept, 0 … 1. */
  reach: z.number().min(0).max(1),
});

export function ground(prepared: Prepared, { by, reach }: z.infer<typeof GroundSchema>): Prepared {
  const { picture } = prepared;
  return { ...prepared, picture: by === 'alpha' ? withoutFaint(picture, reach) : withoutGround(picture, reach) };
}

/** Alpha stretched so that `least` becomes nothing: shadows and glows go, edges keep their place in the middle. */
function withoutFaint({ width, height, data }: Picture, least: number): Picture {
  const result = data.slice();
  const table = Uint8ClampedArray.from({ length: 256 }, (_, i) =>
    i / 255 <= least ? 0 : Math.round((255 * (i / 255 - least)) / Math.max(1e-9, 1 - least)),
  );
  for (let p = 3; p < data.length; p += 4) result[p] = table[data[p]!]!;
  return { width, height, data: result };
}

/** Fringe pixels lie at most this many steps from the ground. */
const FRINGE = 2;

function withoutGround(picture: Picture, reach: number): Picture {
  const { width, height, data } = picture;
  const paper = borderColour(picture);
  const paperLab = labOf(paper[0], paper[1], paper[2]);
  const known = new Map<number, boolean>();
  const isPaper = (i: number): boolean => {
    const p = 4 * i;
    if (data[p + 3] === 0) return true;
    const key = (data[p]! << 16) | (data[p + 1]! << 8) | data[p + 2]!;
    let near = known.get(key);
    if (near === undefined) {
      near = labDistance(labOf(data[p]!, data[p + 1]!, data[p + 2]!), paperLab) <= reach;
      known.set(key, near);
    }
    return near;
  };
  // (1) A flood from the border. Steps from the ground are counted on, two pixels into what is not ground.
  const steps = new Uint8Array(width * height).fill(255);
  let front: number[] = [];
  for (let x = 0; x < width; x++) front.push(x, (height - 1) * width + x);
  for (let y = 0; y < height; y++) front.push(y * width, y * width + width - 1);
  const filled: number[] = [];
  for (const i of front) {
    if (steps[i] !== 255 || !isPaper(i)) continue;
    steps[i] = 0;
    filled.push(i);
  }
  front = filled.slice();
  while (front.length > 0) {
    const next: number[] = [];
    for (const i of front) {
      for (const j of neighbours(i, width, height)) {
        if (steps[j] !== 255 || !isPaper(j)) continue;
        steps[j] = 0;
        next.push(j);
        filled.push(j);
      }
    }
    front = next;
  }
  const result = data.slice();
  for (const i of filled) result[4 * i + 3] = 0;
  // (2) The fringe: between the ground's colour and the nearest one further in.
  front = filled;
  for (let step = 1; step <= FRINGE; step++) {
    const next: number[] = [];
    for (const i of front) {
      for (const j of neighbours(i, width, height)) {
        if (steps[j] !== 255) continue;
        steps[j] = step;
        next.push(j);
      }
    }
    front = next;
    for (const i of front) unmix(result, data, i, inner(i, steps, width, height), paper);
  }
  return { width, height, data: result };
}

function neighbours(i: number, width: number, height: number): number[] {
  const x = i % width;
  const found: number[] = [];
  if (x > 0) found.push(i - 1);
  if (x + 1 < width) found.push(i + 1);
  if (i >= width) found.push(i - width);
  if (i + width < width * height) found.push(i + width);
  return found;
}

/** The pixel two steps on, away from the ground: what a fringe pixel is a mixture of besides the ground. */
function inner(i: number, steps: Uint8Array, width: number, height: number): number {
  const [x, y] = [i % width, Math.floor(i / width)];
  let [dx, dy] = [0, 0];
  for (let v = -1; v <= 1; v++) {
    for (let u = -1; u <= 1; u++) {
      if (x + u < 0 || y + v < 0 || x + u >= width || y + v >= height) continue;
      if (steps[(y + v) * width + x + u]! < steps[i]!) [dx, dy] = [dx - u, dy - v];
    }
  }
  const length = Math.hypot(dx, dy) || 1;
  const u = Math.min(width - 1, Math.max(0, Math.round(x + (2 * dx) / length)));
  const v = Math.min(height - 1, Math.max(0, Math.round(y + (2 * dy) / length)));
  return v * width + u;
}

/** Sets a pixel's alpha to its share of the inner colour, and its colour to that. */
function unmix(
  result: Uint8ClampedArray,
  data: Uint8ClampedArray,
  i: number,
  from: number,
  paper: readonly number[],
): void {
  let [along, length] = [0, 0];
  for (let c = 0; c < 3; c++) {
    const whole = data[4 * from + c]! - paper[c]!;
    along += (data[4 * i + c]! - paper[c]!) * whole;
    length += whole * whole;
  }
  const share = length > 0 ? along / length : 1;
  if (share >= 0.98 || share <= 0) return;
  for (let c = 0; c < 3; c++) result[4 * i + c] = data[4 * from + c]!;
  result[4 * i + 3] = Math.round(share * data[4 * i + 3]!);
}

/** The colour that most of a picture's border has: red, green, blue, alpha, each the median along it. */
export function borderColour({ width, height, data }: Picture): [r: number, g: number, b: number, a: number] {
  const pixels: number[] = [];
  for (let x = 0; x < width; x++) pixels.push(x, (height - 1) * width + x);
  for (let y = 1; y + 1 < height; y++) pixels.push(y * width, y * width + width - 1);
  const middle = (c: number) => pixels.map((i) => data[4 * i + c]!).sort((a, b) => a - b)[pixels.length >> 1]!;
  return [middle(0), middle(1), middle(2), middle(3)];
}
