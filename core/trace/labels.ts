// labels.ts — each pixel to one of a few colours. Flat places take the nearest; the fringe between two of them is a
// mixture and goes to the one it has more of, never to a third that happens to look like it.
import { labOf, type Rgb } from '../picture/colour.ts';
import { componentsOf } from '../picture/components.ts';
import type { Picture } from '../picture/types.ts';
import { BINS, binColour, binOf, nearest, runThrough } from './palette.ts';

const PENDING = 255;
/** Flat neighbours of a fringe pixel are looked for this far. */
const WINDOW = 2;
/** A thin line is of its own colour where that lies this much nearer than any mixture of what is around, in bytes. */
const OWN = 24;

/** Labels of a picture's pixels: 0 for what can be seen through, n + 1 for the palette's colour n. */
export function labelled(picture: Picture, palette: readonly Rgb[], isGrey: boolean): Uint8Array {
  const { width, height, data } = picture;
  const byBin = binLabels(palette, isGrey);
  const nearestTo = (p: number) => byBin[binOf(data[p]!, data[p + 1]!, data[p + 2]!)]!;
  const flat = new Uint8Array(width * height);
  for (let y = 0, i = 0; y < height; y++) {
    for (let x = 0; x < width; x++, i++) {
      if (data[4 * i + 3]! < 128) continue;
      flat[i] = runThrough(picture, x, y) === 0 ? nearestTo(4 * i) : PENDING;
    }
  }
  const labels = flat.slice();
  for (let y = 0, i = 0; y < height; y++) {
    for (let x = 0; x < width; x++, i++) {
      if (flat[i] !== PENDING) continue;
      const p = 4 * i;
      const { label, stray } = purer(data, p, labelsNear(flat, x, y, width, height), palette);
      const own = nearestTo(p);
      const isThin = stray > OWN && runThrough(picture, x, y) === 1;
      labels[i] = label === 0 || (isThin && strayFrom(data, p, palette[own - 1]!) < stray - OWN) ? own : label;
    }
  }
  return labels;
}

function binLabels(palette: readonly Rgb[], isGrey: boolean): Uint8Array {
  const centres = palette.map(([r, g, b]) => labOf(r, g, b));
  return Uint8Array.from({ length: BINS }, (_, bin) => {
    const [r, g, b] = binColour(bin);
    const [l, ...hue] = labOf(r, g, b);
    return nearest(centres, isGrey ? [l, 0, 0] : [l, ...hue]) + 1;
  });
}

/** Settled colours around a pixel, without repeats. */
function labelsNear(labels: Uint8Array, x: number, y: number, width: number, height: number): number[] {
  const found: number[] = [];
  for (let v = Math.max(0, y - WINDOW); v <= Math.min(height - 1, y + WINDOW); v++) {
    for (let u = Math.max(0, x - WINDOW); u <= Math.min(width - 1, x + WINDOW); u++) {
      const label = labels[v * width + u]!;
      if (label !== PENDING && label !== 0 && !found.includes(label)) found.push(label);
    }
  }
  return found;
}

/**
 * Of the two colours whose mixture comes nearest to a pixel, the one with the larger share, and how far the pixel lies from
 * the mixture, in bytes. Label 0 where there is none near.
 */
function purer(data: Uint8ClampedArray, p: number, near: readonly number[], palette: readonly Rgb[]) {
  if (near.length < 2) return { label: near[0] ?? 0, stray: near[0] ? strayFrom(data, p, palette[near[0] - 1]!) : 0 };
  let best = { label: 0, stray: Infinity };
  for (let i = 0; i < near.length; i++) {
    for (let j = i + 1; j < near.length; j++) {
      const [a, b] = [palette[near[i]! - 1]!, palette[near[j]! - 1]!];
      const t = Math.min(1, Math.max(0, shareOf(data, p, a, b)));
      const mix = (c: 0 | 1 | 2) => a[c] + t * (b[c] - a[c]);
      const stray = strayFrom(data, p, [mix(0), mix(1), mix(2)]);
      if (stray < best.stray) best = { label: t > 0.5 ? near[j]! : near[i]!, stray };
    }
  }
  return best;
}

function strayFrom(data: Uint8ClampedArray, p: number, [r, g, b]: Rgb): number {
  return Math.hypot(data[p]! - r, data[p + 1]! - g, data[p + 2]! - b);
}

/** Where a pixel lies from colour a (0) to colour b (1), in encoded values as renderers blend them. */
export function shareOf(data: Uint8ClampedArray, p: number, a: Rgb, b: Rgb): number {
  let [along, length] = [0, 0];
  for (let c = 0; c < 3; c++) {
    const whole = b[c]! - a[c]!;
    along += (data[p + c]! - a[c]!) * whole;
    length += whole * whole;
  }
  return length > 0 ? along / length : 0;
}

/** Small pieces given to small pieces may need another round. */
const MERGE_ROUNDS = 4;

/** The map with every piece smaller than `detail` given to the neighbour it borders on most. */
export function withoutSmall(labels: Uint8Array, width: number, height: number, detail: number): Uint8Array {
  let result = labels;
  for (let round = 0; round < MERGE_ROUNDS && detail > 1; round++) {
    const { of, areas } = componentsOf(result, width, height);
    const borders = new Map<number, Map<number, number>>();
    const meet = (i: number, j: number) => {
      if (areas[of[i]!]! >= detail || result[i] === result[j]) return;
      const border = borders.get(of[i]!) ?? new Map<number, number>();
      // What is small itself counts little, so that two specks do not just exchange their colours.
      border.set(result[j]!, (border.get(result[j]!) ?? 0) + (areas[of[j]!]! >= detail ? 1 : 0.001));
      borders.set(of[i]!, border);
    };
    for (let y = 0, i = 0; y < height; y++) {
      for (let x = 0; x < width; x++, i++) {
        if (x + 1 < width && of[i] !== of[i + 1]) {
          meet(i, i + 1);
          meet(i + 1, i);
        }
        if (y + 1 < height && of[i] !== of[i + width]) {
          meet(i, i + width);
          meet(i + width, i);
        }
      }
    }
    if (borders.size === 0) break;
    const given = new Map(
      [...borders].map(([piece, border]) => [
        piece,
        [...border].reduce((most, next) => (next[1] > most[1] ? next : most))[0],
      ]),
    );
    result = result.map((label, i) => given.get(of[i]!) ?? label);
  }
  return result;
}
