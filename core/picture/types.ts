// types.ts — pictures as plain arrays. Pixel (x, y) covers [x, x + 1] × [y, y + 1], y down, rows from the top.

/** Colour as it comes from a file: four bytes a pixel, sRGB-encoded red, green, blue, and alpha, not premultiplied. */
export interface Picture {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray;
}

/** One value a pixel. */
export interface Grey {
  readonly width: number;
  readonly height: number;
  /** 0 is black (ink), 1 is white (paper). */
  readonly values: Float32Array;
}

/** Where a picture lies in its source: source pixels = offset + scale · own pixels. */
export interface Frame {
  readonly scale: number;
  readonly x: number;
  readonly y: number;
}

/** A picture on its way through the steps. */
export interface Prepared {
  readonly picture: Picture;
  readonly frame: Frame;
  /** Grey at which ink ends, 0 … 1, where a step has set it; null leaves it to the trace. */
  readonly level: number | null;
}

/** A rectangle as shares of a picture's width and height, so that a better scan of the same thing is cut alike. */
export interface Part {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** What is accepted: pixels of a picture as it comes in and as any step leaves it, and bytes of a file. */
export const PICTURE_LIMITS = { pixels: 40_000_000, bytes: 64 * 2 ** 20, side: 30_000 } as const;
