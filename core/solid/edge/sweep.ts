// sweep.ts — the edge of an outline of which nothing is used up: every row has all corners of the rim, and all strips are
// quads. Most edges are like that, and this is much less work than writing down a roof.
import { uints } from '../../base/arrays.ts';
import { type BoundedTriangles, flipToDelaunay } from '../../geometry/triangulate.ts';
import type { StripDrawing } from './drawing.ts';
import { cornerSpeed, linesOf } from './lines.ts';

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
  levels: readonly number[],
  triangles: BoundedTriangles,
  limits: { readonly length: number; readonly area: number },
): StripDrawing | null {
  const n = next.length;
  const roof = sweptStrips(rim, next, levels, limits.length);
  if (!roof) return null;
  const top = roof.points.subarray(2 * n * levels.length);
  flipToDelaunay(top, triangles);
  const inner = triangles.corners;
  for (let t = 0; t < inner.length; t += 3) {
    const [a, b, c] = [2 * inner[t]!, 2 * inner[t + 1]!, 2 * inner[t + 2]!];
    const [bx, by] = [top[b]! - top[a]!, top[b + 1]! - top[a + 1]!];
    if (!(bx * (top[c + 1]! - top[a + 1]!) - by * (top[c]! - top[a]!) > 2 * limits.area)) return null;
  }
  return { ...roof, triangles: inner.map((i) => n * levels.length + i) };
}

/** Quads up to levels below which nothing happens; null where an edge becomes shorter than the least, or a quad too flat. */
export function sweptStrips(
  rim: Float64Array,
  next: Uint32Array,
  levels: readonly number[],
  least: number,
): StripDrawing | null {
  const n = next.length;
  const drawing = strips(rim, next, levels);
  const top = drawing.points.subarray(2 * n * levels.length);
  const lines = linesOf(rim, next);
  for (let i = 0; i < n; i++) {
    const j = next[i]!;
    const [dx, dy] = [top[2 * j]! - top[2 * i]!, top[2 * j + 1]! - top[2 * i + 1]!];
    const along = dx * lines.ny[i]! - dy * lines.nx[i]!;
    if (!(along > least)) return null;
    // A corner runs at 1 / sine of the angle between its way and its edges.
    const run = Math.hypot(top[2 * i]! - rim[2 * i]!, top[2 * i + 1]! - rim[2 * i + 1]!);
    if (run * FLAT > levels.at(-1)!) return null;
  }
  return drawing;
}

/** A drawing on top of strips: its rim is their last level. */
export function stacked(below: StripDrawing, above: StripDrawing): StripDrawing {
  const rows = below.levels.at(-1)!;
  const n = below.levels.length / (rows + 1);
  const moved = (point: number) => point + n * rows;
  const offset = below.corners.length;
  return {
    points: joined(below.points, above.points.subarray(2 * n)),
    times: joined(below.times, above.times.subarray(n)),
    levels: joined(below.levels, above.levels.subarray(n)),
    starts: joined(
      below.starts,
      above.starts.subarray(1).map((start) => start + offset),
    ),
    corners: joined(below.corners, above.corners.map(moved)),
    edges: joined(below.edges, above.edges),
    strips: joined(below.strips, above.strips),
    front: above.front.map(moved),
  };
}

function joined<A extends Float64Array | Uint32Array | Int32Array | Int16Array | Uint16Array>(a: A, b: A): A {
  const both = new (a.constructor as new (length: number) => A)(a.length + b.length);
  both.set(a);
  both.set(b, a.length);
  return both;
}

/**
 * Quads between the rim and copies of it moved inward.
 * @param share how much of every level each corner takes part in, 0–1; all of it where nothing is said
 */
export function strips(
  rim: Float64Array,
  next: Uint32Array,
  levels: readonly number[],
  share?: Float64Array,
): StripDrawing {
  const [n, rows] = [next.length, levels.length];
  const lines = linesOf(rim, next);
  const points = new Float64Array(2 * n * (rows + 1));
  points.set(rim);
  for (let i = 0; i < n; i++) {
    const corner = next[i]!;
    const [vx, vy] = cornerSpeed(lines, i, corner);
    for (const [k, level] of levels.entries()) {
      const [at, t] = [2 * (n * (k + 1) + corner), level * (share?.[corner] ?? 1)];
      points[at] = rim[2 * corner]! + t * vx;
      points[at + 1] = rim[2 * corner + 1]! + t * vy;
    }
  }
  const corners = new Uint32Array(4 * n * rows);
  const edges = new Int32Array(n * rows);
  const ofStrip = new Uint16Array(n * rows);
  for (let k = 0, f = 0; k < rows; k++) {
    for (let i = 0; i < n; i++, f++) {
      const j = next[i]!;
      corners[4 * f] = k * n + i;
      corners[4 * f + 1] = k * n + j;
      corners[4 * f + 2] = (k + 1) * n + j;
      corners[4 * f + 3] = (k + 1) * n + i;
      edges[f] = i;
      ofStrip[f] = k;
    }
  }
  const times = new Float64Array(n * (rows + 1));
  const row = new Int16Array(n * (rows + 1));
  for (let k = 1; k <= rows; k++) {
    times.fill(levels[k - 1]!, k * n, (k + 1) * n);
    row.fill(k, k * n, (k + 1) * n);
  }
  return {
    points,
    times,
    levels: row,
    starts: uints(n * rows + 1, (f) => 4 * f),
    corners,
    edges,
    strips: ofStrip,
    front: uints(2 * n, (i) => n * rows + (i % 2 ? next[i >> 1]! : i >> 1)),
  };
}
