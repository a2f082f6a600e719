// flip.ts — a picture mirrored left to right or top to bottom.
import { z } from 'zod';
import type { Prepared } from '../types.ts';
import { rearranged } from './rearrange.ts';

export const FlipSchema = z.object({ do: z.literal('flip'), way: z.enum(['across', 'upside-down']) });

export function flip(prepared: Prepared, { way }: z.infer<typeof FlipSchema>): Prepared {
  const { width, height } = prepared.picture;
  const from =
    way === 'across'
      ? (x: number, y: number) => y * width + width - 1 - x
      : (x: number, y: number) => (height - 1 - y) * width + x;
  return { ...prepared, picture: rearranged(prepared.picture, width, height, from) };
}
