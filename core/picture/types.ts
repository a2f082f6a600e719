// types.ts — pictures as plain arrays.

/** One value a pixel, row by row from the top; pixel (x, y) covers [x, x + 1] × [y, y + 1], y down. */
export interface Grey {
  readonly width: number;
  readonly height: number;
  /** 0 is black (ink), 1 is white (paper). */
  readonly values: Float32Array;
}
