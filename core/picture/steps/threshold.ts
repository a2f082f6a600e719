// threshold.ts — where ink ends and paper begins. The greys are kept: an edge is placed by them later; this sets the level
// at which they are parted.
import { z } from 'zod';
import { greyOf, histogramOf, type Ink } from '../grey.ts';
import type { Picture, Prepared } from '../types.ts';

export const ThresholdSchema = z.object({
  do: z.literal('threshold'),
  /** 0 … 1; null finds it in the picture. */
  level: z.number().min(0).max(1).nullable(),
});

export function threshold(prepared: Prepared, { level }: z.infer<typeof ThresholdSchema>): Prepared {
  return { ...prepared, level: level ?? levelFor(prepared.picture) };
}

/** The level for a picture of dark ink, 0 … 1. */
export function levelFor(picture: Picture): number {
  return otsu(histogramOf(greyOf(picture))).level;
}

/** The level that a step has set, on the greys as `ink` takes them; null where none has. */
export function setLevel({ level }: Prepared, ink: Ink): number | null {
  return level !== null && ink === 'light' ? 1 - level : level;
}

export interface Parting {
  /** Bins up to this one are the darker class. */
  readonly bin: number;
  /** Between the means of both classes, 0 … 1: where the edge of a soft scan lies. */
  readonly level: number;
  /** Variance between the classes, in bins². 0 for a picture of one tone. */
  readonly between: number;
  /** That variance as a share of the whole, Otsu's measure of how well two classes part a histogram: 1 for two tones. */
  readonly separation: number;
}

/**
 * The parting of a histogram into two classes that lie furthest apart (Otsu, "A threshold selection method from gray-level
 * histograms", 1979).
 */
export function otsu(histogram: ArrayLike<number>): Parting {
  let [total, sum, squares] = [0, 0, 0];
  for (let i = 0; i < histogram.length; i++) {
    total += histogram[i]!;
    sum += i * histogram[i]!;
    squares += i * i * histogram[i]!;
  }
  let [dark, darkSum] = [0, 0];
  const whole = squares / total - (sum / total) ** 2;
  let best: Parting = { bin: 0, level: 0.5, between: 0, separation: 0 };
  for (let i = 0; i + 1 < histogram.length; i++) {
    dark += histogram[i]!;
    darkSum += i * histogram[i]!;
    const light = total - dark;
    if (dark === 0) continue;
    if (light === 0) break;
    const [darkMean, lightMean] = [darkSum / dark, (sum - darkSum) / light];
    const between = (dark / total) * (light / total) * (lightMean - darkMean) ** 2;
    if (between > best.between * (1 + 1e-12)) {
      best = {
        bin: i,
        level: (darkMean + lightMean) / 2 / (histogram.length - 1),
        between,
        separation: between / whole,
      };
    }
  }
  return best;
}
