// sweep.ts — the edge of an outline of which nothing is used up: every row has all corners of the rim, and all strips are
// quads. Most edges are like that, and this is much less work than writing down a roof.
import { type BoundedTriangles, flipToDelaunay } from '../triangulate.ts';
import { cornerSpeed, type Lines } from './lines.ts';
import type { Roof } from './roof.ts';

/** Sine of the least angle of a quad. */
const FLAT = 1e-3;

/**
 * @param rim flat x, y
 * @param next the point that follows each one; edge i leaves point i
 * @param triangles what the rim encloses, as the last level will have it; changed
 * @param limits the least length of an edge, and the least area of a triangle
 * @returns null where an edge or a triangle becomes too small
 */
export function sweptRoof(
  rim: Float64Array,
  next: Uint32Array,
  lines: Lines,
  levels: readonly number[],
  triangles: BoundedTriangles,
  limits: { readonly length: number; readonly area: number },
): Roof | null {
  const [n, rows] = [next.length, levels.length];
  const [vx, vy] = [new Float64Array(n), new Float64Array(n)];
  for (let i = 0; i < n; i++) {
    const [x, y] = cornerSpeed(lines, i, next[i]!);
    vx[next[i]!] = x;
    vy[next[i]!] = y;
  }
  const reach = levels.at(-1)!;
  for (let i = 0; i < n; i++) {
    const j = next[i]!;
    const [dx, dy] = [lines.ny[i]!, -lines.nx[i]!];
    const along = (rim[2 * j]! - rim[2 * i]! + reach * (vx[j]! - vx[i]!)) * dx;
    if (!(along + (rim[2 * j + 1]! - rim[2 * i + 1]! + reach * (vy[j]! - vy[i]!)) * dy > limits.length)) return null;
    // A corner runs at 1 / sine of the angle between its way and its edges.
    if (vx[i]! * vx[i]! + vy[i]! * vy[i]! > 1 / (FLAT * FLAT)) return null;
  }
  const points = new Float64Array(2 * n * (rows + 1));
  points.set(rim);
  for (let k = 1; k <= rows; k++) {
    const [at, t] = [2 * n * k, levels[k - 1]!];
    for (let i = 0; i < n; i++) {
      points[at + 2 * i] = rim[2 * i]! + t * vx[i]!;
      points[at + 2 * i + 1] = rim[2 * i + 1]! + t * vy[i]!;
    }
  }
  const corners = new Uint32Array(4 * n * rows);
  for (let k = 0, c = 0; k < rows; k++) {
    for (let i = 0; i < n; i++) {
      const j = next[i]!;
      corners[c++] = k * n + i;
      corners[c++] = k * n + j;
      corners[c++] = (k + 1) * n + j;
      corners[c++] = (k + 1) * n + i;
    }
  }
  const top = points.subarray(2 * n * rows);
  flipToDelaunay(top, triangles);
  const inner = triangles.corners;
  for (let t = 0; t < inner.length; t += 3) {
    const [a, b, c] = [2 * inner[t]!, 2 * inner[t + 1]!, 2 * inner[t + 2]!];
    const [bx, by] = [top[b]! - top[a]!, top[b + 1]! - top[a + 1]!];
    if (!(bx * (top[c + 1]! - top[a + 1]!) - by * (top[c]! - top[a]!) > 2 * limits.area)) return null;
  }
  return {
    points,
    times: Float64Array.from({ length: points.length / 2 }, (_, i) => (i < n ? 0 : levels[Math.floor(i / n) - 1]!)),
    levels: Int16Array.from({ length: points.length / 2 }, (_, i) => Math.floor(i / n)),
    starts: Uint32Array.from({ length: n * rows + 1 }, (_, f) => 4 * f),
    corners,
    edges: Uint32Array.from({ length: n * rows }, (_, f) => f % n),
    strips: Uint16Array.from({ length: n * rows }, (_, f) => Math.floor(f / n)),
    front: Uint32Array.from({ length: 2 * n }, (_, i) => n * rows + (i % 2 ? next[i >> 1]! : i >> 1)),
    triangles: inner.map((i) => n * rows + i),
  };
}
