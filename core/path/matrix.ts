// matrix.ts — affine maps of the plane and what they do to paths.
import type { Matrix, Path, Segment } from './types.ts';

/** The map that applies `inner` first and `outer` after it. */
export function multiply(outer: Matrix, inner: Matrix): Matrix {
  const [a, b, c, d, e, f] = outer;
  const [g, h, i, j, k, l] = inner;
  return [a * g + c * h, b * g + d * h, a * i + c * j, b * i + d * j, a * k + c * l + e, b * k + d * l + f];
}

export const translation = (x: number, y: number): Matrix => [1, 0, 0, 1, x, y];
export const scaling = (x: number, y = x): Matrix => [x, 0, 0, y, 0, 0];

/** `angle` in radians, positive from +x towards +y. */
export function rotation(angle: number): Matrix {
  const cos = Math.cos(angle);
  const sin = Math.sin(angle);
  return [cos, sin, -sin, cos, 0, 0];
}

export function transformPath(path: Path, [a, b, c, d, e, f]: Matrix): Path {
  const x = (px: number, py: number) => a * px + c * py + e;
  const y = (px: number, py: number) => b * px + d * py + f;
  return path.map((s): Segment => {
    switch (s[0]) {
      case 'M':
      case 'L':
        return [s[0], x(s[1], s[2]), y(s[1], s[2])];
      case 'C':
        return ['C', x(s[1], s[2]), y(s[1], s[2]), x(s[3], s[4]), y(s[3], s[4]), x(s[5], s[6]), y(s[5], s[6])];
      default:
        return s;
    }
  });
}
