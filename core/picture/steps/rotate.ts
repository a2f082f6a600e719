// rotate.ts — a picture turned by quarters, pixel for pixel.
import { z } from 'zod';
import type { Prepared } from '../types.ts';
import { centred, rearranged } from './rearrange.ts';

export const RotateSchema = z.object({
  do: z.literal('rotate'),
  /** Clockwise, degrees. */
  by: z.union([z.literal(90), z.literal(180), z.literal(270)]),
});

export function rotate({ picture, frame, level }: Prepared, { by }: z.infer<typeof RotateSchema>): Prepared {
  const { width: w, height: h } = picture;
  const [width, height] = by === 180 ? [w, h] : [h, w];
  const from = {
    90: (x: number, y: number) => (h - 1 - x) * w + y,
    180: (x: number, y: number) => (h - 1 - y) * w + w - 1 - x,
    270: (x: number, y: number) => x * w + w - 1 - y,
  }[by];
  return { picture: rearranged(picture, width, height, from), frame: centred(frame, picture, width, height), level };
}
