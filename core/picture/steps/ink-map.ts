// ink-map.ts — which pixels are ink, and how parts of a drawing are painted over with what surrounds them.
import { greyOf } from '../grey.ts';
import type { Picture, Prepared } from '../types.ts';
import { levelFor } from './threshold.ts';

/** 1 where a pixel is ink at the prepared level, or at the one that fits the picture. */
export function inkMap({ picture, level }: Prepared): Uint8Array {
  const { values } = greyOf(picture);
  const at = level ?? levelFor(picture);
  const map = new Uint8Array(values.length);
  for (let i = 0; i < map.length; i++) if (values[i]! < at) map[i] = 1;
  return map;
}

type Colour = readonly [r: number, g: number, b: number, a: number];

/** The mean colours of ink and paper. */
export function toneColours({ data }: Picture, ink: Uint8Array): { ink: Colour; paper: Colour } {
  const sums = [new Float64Array(5), new Float64Array(5)] as const;
  for (let i = 0; i < ink.length; i++) {
    const sum = sums[ink[i] as 0 | 1];
    for (let c = 0; c < 4; c++) sum[c]! += data[4 * i + c]!;
    sum[4]!++;
  }
  const mean = (s: Float64Array): Colour => [s[0]! / s[4]!, s[1]! / s[4]!, s[2]! / s[4]!, s[3]! / s[4]!];
  return { ink: mean(sums[1]), paper: mean(sums[0]) };
}

/** Grey fringes reach this far around what is painted over. */
const FRINGE = 2;

/**
 * Parts painted over with one colour, their fringe with them where it borders on no other part of the same kind.
 * @param of the part of each pixel
 * @param goes 1 for parts that are painted over
 */
export function painted(
  { width, height, data }: Picture,
  of: Int32Array,
  goes: Uint8Array | Uint32Array,
  colour: Colour,
): Picture {
  const result = data.slice();
  for (let y = 0, i = 0; y < height; y++) {
    for (let x = 0; x < width; x++, i++) {
      if (!goes[of[i]!]) continue;
      for (let v = Math.max(0, y - FRINGE); v <= Math.min(height - 1, y + FRINGE); v++) {
        for (let u = Math.max(0, x - FRINGE); u <= Math.min(width - 1, x + FRINGE); u++) {
          const j = v * width + u;
          if (goes[of[j]!] || isFringe(j, u, v, width, height, of, goes)) result.set(colour, 4 * j);
        }
      }
    }
  }
  return { width, height, data: result };
}

/** Whether every part around a pixel is its own or one that goes. */
function isFringe(
  j: number,
  x: number,
  y: number,
  width: number,
  height: number,
  of: Int32Array,
  goes: Uint8Array | Uint32Array,
): boolean {
  for (let v = Math.max(0, y - 1); v <= Math.min(height - 1, y + 1); v++) {
    for (let u = Math.max(0, x - 1); u <= Math.min(width - 1, x + 1); u++) {
      const other = of[v * width + u]!;
      if (other !== of[j] && !goes[other]) return false;
    }
  }
  return true;
}
