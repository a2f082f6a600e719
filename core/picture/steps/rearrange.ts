// rearrange.ts — a picture whose pixels are those of another in another order.
import type { Frame, Picture } from '../types.ts';

/** @param from number of the old pixel that comes to (x, y) */
export function rearranged(
  { data }: Picture,
  width: number,
  height: number,
  from: (x: number, y: number) => number,
): Picture {
  const old = new Uint32Array(data.buffer, data.byteOffset, data.length / 4);
  const moved = new Uint32Array(width * height);
  for (let y = 0, i = 0; y < height; y++) for (let x = 0; x < width; x++, i++) moved[i] = old[from(x, y)]!;
  return { width, height, data: new Uint8ClampedArray(moved.buffer) };
}

/** The frame of a picture of another size that keeps its middle where it was. */
export function centred({ scale, x, y }: Frame, before: Picture, width: number, height: number): Frame {
  return { scale, x: x + (scale * (before.width - width)) / 2, y: y + (scale * (before.height - height)) / 2 };
}
