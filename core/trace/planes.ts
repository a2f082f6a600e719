// planes.ts — a picture as luma and chroma, in which distances of colours are measured: bytes, as renderers blend and cameras
// compress them, because a space that follows the eye is so steep near black that the noise there looks like colours.
import type { Rgb } from '../picture/colour.ts';
import type { Picture } from '../picture/types.ts';

/** Luma 0 … 255, then two differences of colour, weighed below it. */
export type Shade = readonly [y: number, u: number, v: number];

export interface Planes {
  readonly width: number;
  readonly height: number;
  readonly y: Float32Array;
  readonly u: Float32Array;
  readonly v: Float32Array;
  /** 1 where the picture can be seen through. */
  readonly isClear: Uint8Array;
}

/** What a step of chroma counts beside one of luma: compression spares the luma. */
const CHROMA = 0.6;

// With the weights of ITU-R BT.601, which JPEG uses (JFIF 1.02).
export const lumaOf = (r: number, g: number, b: number) => 0.299 * r + 0.587 * g + 0.114 * b;
const blueness = (r: number, g: number, b: number) => CHROMA * (-0.168736 * r - 0.331264 * g + 0.5 * b);
const redness = (r: number, g: number, b: number) => CHROMA * (0.5 * r - 0.418688 * g - 0.081312 * b);

export const shadeOf = (rgb: Rgb): Shade => [lumaOf(...rgb), blueness(...rgb), redness(...rgb)];

/** The nearest colour of bytes. */
export function rgbOfShade([y, u, v]: Shade): Rgb {
  const [cb, cr] = [u / CHROMA, v / CHROMA];
  const byte = (value: number) => Math.min(255, Math.max(0, Math.round(value)));
  return [byte(y + 1.402 * cr), byte(y - 0.344136 * cb - 0.714136 * cr), byte(y + 1.772 * cb)];
}

export const apart = (a: Shade, b: Shade): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

/** @param isGrey only lightness counts */
export function planesOf({ width, height, data }: Picture, isGrey: boolean): Planes {
  const count = width * height;
  const [y, u, v] = [new Float32Array(count), new Float32Array(count), new Float32Array(count)];
  const isClear = new Uint8Array(count);
  for (let i = 0; i < count; i++) {
    const [r, g, b] = [data[4 * i]!, data[4 * i + 1]!, data[4 * i + 2]!];
    y[i] = lumaOf(r, g, b);
    if (!isGrey) {
      u[i] = blueness(r, g, b);
      v[i] = redness(r, g, b);
    }
    if (data[4 * i + 3]! < 128) isClear[i] = 1;
  }
  return { width, height, y, u, v, isClear };
}
