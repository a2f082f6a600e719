// levels.ts — black, white and the middle set anew, by one curve for all three colours.
import { z } from 'zod';
import { toEncoded, toLinear } from '../colour.ts';
import type { Picture, Prepared } from '../types.ts';

export const LevelsSchema = z.object({
  do: z.literal('levels'),
  /** What becomes black and what becomes white, 0 … 1. */
  black: z.number().min(0).max(1),
  white: z.number().min(0).max(1),
  /** Above 1 lightens the middle. */
  gamma: z.number().min(0.1).max(10),
  /** Whether the curve acts on values as encoded in the file (sRGB) or on the light they stand for. */
  space: z.enum(['encoded', 'linear']),
});

export function levels({ picture, frame, level }: Prepared, params: z.infer<typeof LevelsSchema>): Prepared {
  const curve = levelsCurve(params);
  const table = Uint8ClampedArray.from({ length: 256 }, (_, i) => Math.round(255 * curve(i / 255)));
  return { picture: mapped(picture, table), frame, level: level === null ? null : curve(level) };
}

/** The curve on encoded values, 0 … 1 to 0 … 1. */
export function levelsCurve({ black, white, gamma, space }: z.infer<typeof LevelsSchema>): (v: number) => number {
  const [into, back] = space === 'linear' ? [toLinear, toEncoded] : [(v: number) => v, (v: number) => v];
  const [low, high] = [into(Math.min(black, white)), into(Math.max(black, white))];
  return (v) => {
    const share = high > low ? (into(v) - low) / (high - low) : Number(into(v) >= high);
    return back(Math.min(1, Math.max(0, share)) ** (1 / gamma));
  };
}

/** Every colour byte by a table; alpha stays. */
export function mapped({ width, height, data }: Picture, table: Uint8ClampedArray): Picture {
  const result = new Uint8ClampedArray(data.length);
  for (let p = 0; p < data.length; p += 4) {
    result[p] = table[data[p]!]!;
    result[p + 1] = table[data[p + 1]!]!;
    result[p + 2] = table[data[p + 2]!]!;
    result[p + 3] = data[p + 3]!;
  }
  return { width, height, data: result };
}
