// bleed.ts — pieces of a picture made wider all round, so that what is seen between pixels along their rims is their own colour.
import { NOTHING } from './texels.ts';

/** To the pixels beside one, and to those across its corners. */
const STEPS = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
  [1, 1],
  [-1, 1],
  [1, -1],
  [-1, -1],
] as const;

/**
 * Gives pixels that nothing is on the colour of the nearest one within `bleed` steps that something is on, and all others the mean.
 * @param pixels four bytes a pixel, changed in place
 */
export function spread(pixels: Uint8Array, texels: Uint32Array, size: number, bleed: number): void {
  const colours = new Uint32Array(pixels.buffer, pixels.byteOffset, texels.length);
  const isDone = new Uint8Array(texels.length);
  const sum = [0, 0, 0, 0];
  let count = 0;
  for (let i = 0; i < texels.length; i++) {
    if (texels[i] === NOTHING) continue;
    isDone[i] = 1;
    for (let k = 0; k < 4; k++) sum[k]! += pixels[4 * i + k]!;
    count++;
  }
  if (count === 0) return;
  /** Gives its colour to what is beside a pixel and has none. */
  const give = (i: number, to: number[]) => {
    const [x, y] = [i % size, Math.trunc(i / size)];
    for (const [dx, dy] of STEPS) {
      const beside = i + dy * size + dx;
      if (x + dx < 0 || x + dx >= size || y + dy < 0 || y + dy >= size || isDone[beside] !== 0) continue;
      isDone[beside] = 1;
      colours[beside] = colours[i]!;
      to.push(beside);
    }
  };
  let rim: number[] = [];
  for (let i = 0; i < texels.length; i++) {
    if (texels[i] === NOTHING) continue;
    const isWithin = STEPS.every(([dx, dy]) => texels[i + dy * size + dx] !== NOTHING);
    if (!isWithin) give(i, rim);
  }
  for (let step = 1; step < bleed; step++) {
    const next: number[] = [];
    for (const i of rim) give(i, next);
    rim = next;
  }
  const mean = sum.map((v) => Math.round(v / count));
  for (let i = 0; i < isDone.length; i++) if (isDone[i] === 0) pixels.set(mean, 4 * i);
}
