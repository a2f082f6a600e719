// length.ts — arc length of pieces, by Gauss–Legendre quadrature on halves, quarters … until two agree.
import { type Piece, slopeAt } from './cubic.ts';

/** Nodes and weights of order 8 on [−1, 1] (Abramowitz & Stegun 1964, table 25.4), one half; the other is its mirror image. */
const NODES = [
  [0.1834346424956498, 0.362683783378362],
  [0.525532409916329, 0.3137066458778873],
  [0.7966664774136267, 0.2223810344533745],
  [0.9602898564975363, 0.1012285362903763],
] as const;

/** Relative; far finer than a length is ever drawn. */
const ACCURACY = 1e-9;
const MAX_DEPTH = 12;

/** Length of a piece up to parameter t. */
export function lengthOf({ isLine, cubic: c }: Piece, t = 1): number {
  if (isLine) return t * Math.hypot(c[6] - c[0], c[7] - c[1]);
  const quadrature = (from: number, to: number) => {
    const [middle, half] = [(from + to) / 2, (to - from) / 2];
    let sum = 0;
    for (const [node, weight] of NODES) {
      for (const place of [middle - half * node, middle + half * node]) {
        sum += weight * Math.hypot(slopeAt(c, 0, place), slopeAt(c, 1, place));
      }
    }
    return half * sum;
  };
  const refine = (from: number, to: number, whole: number, depth: number): number => {
    const middle = (from + to) / 2;
    const [head, tail] = [quadrature(from, middle), quadrature(middle, to)];
    if (depth >= MAX_DEPTH || Math.abs(head + tail - whole) <= ACCURACY * whole) return head + tail;
    return refine(from, middle, head, depth + 1) + refine(middle, to, tail, depth + 1);
  };
  return t > 0 ? refine(0, t, quadrature(0, t), 0) : 0;
}

/** The parameter at a length along a piece, clamped to its ends. */
export function parameterAt(piece: Piece, length: number): number {
  const whole = lengthOf(piece);
  if (!(length > 0) || !(whole > 0)) return 0;
  if (length >= whole) return 1;
  let [low, high] = [0, 1];
  let t = length / whole;
  if (piece.isLine) return t;
  // Newton's method, kept between bounds: the speed may vanish at a cusp.
  for (let round = 0; round < 60; round++) {
    const off = lengthOf(piece, t) - length;
    if (Math.abs(off) <= ACCURACY * whole) return t;
    if (off > 0) high = t;
    else low = t;
    const speed = Math.hypot(slopeAt(piece.cubic, 0, t), slopeAt(piece.cubic, 1, t));
    const next = t - off / speed;
    t = next > low && next < high ? next : (low + high) / 2;
  }
  return t;
}
