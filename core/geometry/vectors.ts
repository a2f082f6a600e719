// vectors.ts — sums and products of directions in space.
import type { Point } from './rigid.ts';

export const difference = (a: Point, b: Point): Point => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const dot = (a: Point, b: Point): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
/** At right angles to both, as the right hand has it. */
export const cross = (a: Point, b: Point): Point => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];

/** The same direction with a length of 1; what has none stays as it is. */
export function unit([x, y, z]: Point): Point {
  const length = Math.hypot(x, y, z) || 1;
  return [x / length, y / length, z / length];
}
