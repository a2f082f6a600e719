// lines.ts — the lines that outline edges lie on, as inner unit normals and distances from the origin.
import { uints } from '../../base/arrays.ts';

/** Edge i consists of the points where nx·x + ny·y = offset; the inside is where it is more. */
export interface Lines {
  readonly nx: Float64Array;
  readonly ny: Float64Array;
  readonly offset: Float64Array;
}

/** @param next the point that follows each one; edge i leaves point i with the inside on its left */
export function linesOf(points: Float64Array, next: Uint32Array): Lines {
  const n = next.length;
  const [nx, ny, offset] = [new Float64Array(n), new Float64Array(n), new Float64Array(n)];
  for (let i = 0; i < n; i++) {
    const j = next[i]!;
    const [x, y] = [points[2 * i]!, points[2 * i + 1]!];
    const [dx, dy] = [points[2 * j]! - x, points[2 * j + 1]! - y];
    const length = Math.sqrt(dx * dx + dy * dy);
    nx[i] = -dy / length;
    ny[i] = dx / length;
    offset[i] = nx[i]! * x + ny[i]! * y;
  }
  return { nx, ny, offset };
}

/** Sine of the angle below which lines say nothing of where they meet. */
const PARALLEL = 1e-6;

/**
 * Where three edges that moved inward by `time` meet, near (x, y): on the two of their lines that cross best. Corners of
 * edges that fold back run so fast that their own place is no guide.
 */
export function meeting(
  { nx, ny, offset }: Lines,
  [a, b, c]: readonly [number, number, number],
  time: number,
  x: number,
  y: number,
): readonly [x: number, y: number] {
  const cross = (i: number, j: number) => nx[i]! * ny[j]! - ny[i]! * nx[j]!;
  let [i, j] = [a, b];
  if (Math.abs(cross(b, c)) > Math.abs(cross(i, j))) [i, j] = [b, c];
  if (Math.abs(cross(a, c)) > Math.abs(cross(i, j))) [i, j] = [a, c];
  const area = cross(i, j);
  if (Math.abs(area) < PARALLEL) return [x, y];
  const [p, q] = [offset[i]! + time, offset[j]! + time];
  return [(p * ny[j]! - q * ny[i]!) / area, (q * nx[i]! - p * nx[j]!) / area];
}

/** How fast the corner between two edges runs as they move inward at unit speed. */
export function cornerSpeed({ nx, ny }: Lines, a: number, b: number): readonly [x: number, y: number] {
  const [ax, ay, bx, by] = [nx[a]!, ny[a]!, nx[b]!, ny[b]!];
  const dot = ax * bx + ay * by;
  // Both are the same in exact arithmetic; one loses its digits where edges fold back, the other where they run on.
  if (dot >= 0) return [(ax + bx) / (1 + dot), (ay + by) / (1 + dot)];
  const cross = ax * by - ay * bx;
  return [(by - ay) / cross, (ax - bx) / cross];
}

/** Share of its weight with which a place is held where it was, in directions of which the edges say nothing. */
const HOLD = 1e-6;

/** A place, and a time at which edges are there. */
export type Place = readonly [x: number, y: number, time: number];

/** What counts where edges do not meet in one place: all of them, by the squares of what is left, or the farthest. */
export type Fit = 'squares' | 'farthest';

/** How often weights are adjusted so that the farthest edge counts, where it is farther than is near enough. */
const ADJUSTMENTS = 12;
const NEAR = 1e-7;

/**
 * The place and time at which edges that move inward meet most nearly, found from a place near by: by least squares, or as near
 * as can be to the farthest of them (Lawson 1961: least squares, again and again, with weights that grow with what is left).
 * @param edges any number of them
 */
export function nearestMeeting(lines: Lines, edges: readonly number[], near: Place, fit: Fit): Place {
  const weights = edges.map(() => 1 / edges.length);
  let [best, least] = [near, Infinity];
  for (let k = 0; k <= (fit === 'squares' ? 0 : ADJUSTMENTS); k++) {
    const place = leastSquares(lines, edges, weights, near);
    const off = edges.map((e) => offFrom(lines, e, place));
    const most = Math.max(...off);
    if (most < least) [best, least] = [place, most];
    if (most <= NEAR) break;
    const sum = off.reduce((total, v, i) => total + v * weights[i]!, 0);
    for (const [i, v] of off.entries()) weights[i] = (weights[i]! * v) / sum;
  }
  return best;
}

/** How far a place is from where an edge is at its time. */
export function offFrom({ nx, ny, offset }: Lines, edge: number, [x, y, time]: Place): number {
  return Math.abs(nx[edge]! * x + ny[edge]! * y - offset[edge]! - time);
}

/** @param weights of the edges; they add up to 1 */
function leastSquares(
  { nx, ny, offset }: Lines,
  edges: readonly number[],
  weights: readonly number[],
  [x, y, time]: Place,
): Place {
  // Normal equations of nx·dx + ny·dy − dt = off, for a small move (dx, dy, dt).
  let [xx, xy, yy, xt, yt, rx, ry, rt] = [0, 0, 0, 0, 0, 0, 0, 0];
  for (const [i, e] of edges.entries()) {
    const [a, b, weight] = [nx[e]!, ny[e]!, weights[i]!];
    const off = weight * (offset[e]! + time - a * x - b * y);
    xx += weight * a * a;
    xy += weight * a * b;
    yy += weight * b * b;
    xt -= weight * a;
    yt -= weight * b;
    rx += a * off;
    ry += b * off;
    rt -= off;
  }
  const [p, q, r] = [xx + HOLD, yy + HOLD, 1 + HOLD];
  const det = p * (q * r - yt * yt) - xy * (xy * r - yt * xt) + xt * (xy * yt - q * xt);
  if (!(det > 0)) return [x, y, time];
  const dx = (rx * (q * r - yt * yt) - xy * (ry * r - yt * rt) + xt * (ry * yt - q * rt)) / det;
  const dy = (p * (ry * r - rt * yt) - rx * (xy * r - yt * xt) + xt * (xy * rt - ry * xt)) / det;
  const dt = (p * (q * rt - yt * ry) - xy * (xy * rt - ry * xt) + rx * (xy * yt - q * xt)) / det;
  return [x + dx, y + dy, time + dt];
}

/** Every edge as a pair of points: edge i from point i to the one that follows it. */
export function edgesOf(next: Uint32Array): Uint32Array {
  return uints(2 * next.length, (i) => (i % 2 ? next[i >> 1]! : i >> 1));
}

/** Rings as one list of points, and the point that follows each one; edge i leaves point i. */
export function linkedRings(rings: readonly Float64Array[]): { points: Float64Array; next: Uint32Array } {
  const points = new Float64Array(rings.reduce((sum, ring) => sum + ring.length, 0));
  const next = new Uint32Array(points.length / 2);
  let first = 0;
  for (const ring of rings) {
    const n = ring.length / 2;
    points.set(ring, 2 * first);
    for (let i = 0; i < n; i++) next[first + i] = first + ((i + 1) % n);
    first += n;
  }
  return { points, next };
}
