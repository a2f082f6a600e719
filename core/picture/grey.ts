// grey.ts — a picture's greys: what ink and tones are traced from.
import { luma } from './colour.ts';
import type { Grey, Picture } from './types.ts';

/** What is taken as ink: what is dark, what is light, or what is opaque whatever its colour. */
export const INKS = ['dark', 'light', 'opaque'] as const;
export type Ink = (typeof INKS)[number];

/** Greys of a picture with ink as black; what is transparent counts as paper. */
export function greyOf({ width, height, data }: Picture, ink: Ink = 'dark'): Grey {
  const values = new Float32Array(width * height);
  for (let i = 0, p = 0; i < values.length; i++, p += 4) {
    const alpha = data[p + 3]! / 255;
    if (ink === 'opaque') values[i] = 1 - alpha;
    else {
      const v = luma(data[p]!, data[p + 1]!, data[p + 2]!);
      values[i] = 1 - alpha * (ink === 'dark' ? 1 - v : v);
    }
  }
  return { width, height, values };
}

/** How many pixels have each of 256 greys. */
export function histogramOf({ values }: Grey): Uint32Array {
  const bins = new Uint32Array(256);
  for (let i = 0; i < values.length; i++) bins[(255 * values[i]! + 0.5) | 0]!++;
  return bins;
}

/** Whether some of the picture can be seen through. */
export function isTransparent({ data }: Picture): boolean {
  let clear = 0;
  for (let p = 3; p < data.length; p += 4) if (data[p]! < 128) clear++;
  return clear > 0.001 * (data.length / 4);
}
