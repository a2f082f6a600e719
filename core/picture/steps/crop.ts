// crop.ts — a rectangle cut out.
import { z } from 'zod';
import type { Prepared } from '../types.ts';
import { PartSchema, partPixels } from './part-pixels.ts';

export const CropSchema = z.object({
  do: z.literal('crop'),
  area: PartSchema,
  /** Width over height that the rectangle keeps while it is dragged; null is free. */
  ratio: z.number().positive().max(100).nullable(),
});

export function crop({ picture, frame, level }: Prepared, { area }: z.infer<typeof CropSchema>): Prepared {
  const { left, top, width, height } = partPixels(picture, area);
  const data = new Uint8ClampedArray(4 * width * height);
  for (let y = 0; y < height; y++) {
    const from = 4 * ((top + y) * picture.width + left);
    data.set(picture.data.subarray(from, from + 4 * width), 4 * y * width);
  }
  const place = { scale: frame.scale, x: frame.x + frame.scale * left, y: frame.y + frame.scale * top };
  return { picture: { width, height, data }, frame: place, level };
}
