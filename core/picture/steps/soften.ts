// soften.ts — a slight blur by a Gaussian, rows and columns apart: a jagged scan of one bit gets greys that say where its
// edges run.
import { z } from 'zod';
import type { Prepared } from '../types.ts';

export const SoftenSchema = z.object({
  do: z.literal('soften'),
  /** Standard deviation, pixels. */
  radius: z.number().min(0.1).max(20),
});

export function soften(prepared: Prepared, { radius }: z.infer<typeof SoftenSchema>): Prepared {
  const { width, height, data } = prepared.picture;
  const reach = Math.ceil(3 * radius);
  const weights = Float64Array.from({ length: 2 * reach + 1 }, (_, i) =>
    Math.exp(-((i - reach) ** 2) / (2 * radius ** 2)),
  );
  const sum = weights.reduce((total, w) => total + w, 0);
  for (let i = 0; i < weights.length; i++) weights[i]! /= sum;
  const rows = blurred(data, width, height, 4, 4 * width, weights);
  return { ...prepared, picture: { width, height, data: blurred(rows, height, width, 4 * width, 4, weights) } };
}

function blurred(
  data: Uint8ClampedArray,
  count: number,
  lines: number,
  step: number,
  across: number,
  weights: Float64Array,
): Uint8ClampedArray {
  const reach = (weights.length - 1) / 2;
  const result = new Uint8ClampedArray(data.length);
  for (let line = 0; line < lines; line++) {
    for (let i = 0; i < count; i++) {
      let [r, g, b, a] = [0, 0, 0, 0];
      for (let k = -reach; k <= reach; k++) {
        const at = Math.min(count - 1, Math.max(0, i + k)) * step + line * across;
        const alpha = weights[k + reach]! * data[at + 3]!;
        r += alpha * data[at]!;
        g += alpha * data[at + 1]!;
        b += alpha * data[at + 2]!;
        a += alpha;
      }
      const to = i * step + line * across;
      if (a <= 0) continue;
      result[to] = r / a;
      result[to + 1] = g / a;
      result[to + 2] = b / a;
      result[to + 3] = a;
    }
  }
  return result;
}
