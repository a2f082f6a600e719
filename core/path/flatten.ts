// flatten.ts — curves to chords within a stated tolerance. Points are spread by the integral of √κ along the curve,
// which is the density that makes the sagitta κ·l²/8 of every chord equal; each chord is then measured.
import { GeometryError } from '../base/errors.ts';
import { at, type Cubic, splitCubic } from './cubic.ts';
import type { Path } from './types.ts';

/** Samples per cubic for the density integral; cubics have at most two inflections, so this resolves them. */
const SAMPLES = 24;
/** Chords per cubic at the most: a tolerance 1e-7 of a curve's size is not finer than the sheet's grid. */
const MAX_CHORDS = 2048;

/**
 * Closed rings of a path, flat [x0, y0, x1, y1 …], without the repeated last point; open subpaths are closed, as fill does.
 * @param tolerance largest distance between chord and curve, in the path's units, > 0
 * @throws {GeometryError} 'out-of-range' for a tolerance that is not positive
 */
export function flatten(path: Path, tolerance: number): Float64Array[] {
  return polylines(path, tolerance).flatMap(({ points }) => {
    const n = points.length;
    const isRepeated = n > 2 && points[0] === points[n - 2] && points[1] === points[n - 1];
    const ring = isRepeated ? points.slice(0, -2) : points;
    return ring.length >= 6 ? [ring] : [];
  });
}

export interface Polyline {
  /** Flat x, y; a closed one may repeat its first point at the end. */
  readonly points: Float64Array;
  /** Ended by Z. */
  readonly isClosed: boolean;
}

/**
 * Every subpath as it is drawn.
 * @param tolerance largest distance between chord and curve, in the path's units, > 0
 * @throws {GeometryError} 'out-of-range' for a tolerance that is not positive
 */
export function polylines(path: Path, tolerance: number): Polyline[] {
  if (!(tolerance > 0)) throw new GeometryError('out-of-range', `flatten: tolerance is ${tolerance}, it must be > 0`);
  const lines: Polyline[] = [];
  let points: number[] = [];
  let x = 0;
  let y = 0;
  const finish = (isClosed: boolean) => {
    if (points.length > 0) lines.push({ points: Float64Array.from(points), isClosed });
    points = [];
  };
  for (const s of path) {
    if (s[0] === 'Z') {
      finish(true);
      continue;
    }
    if (s[0] === 'M') finish(false);
    if (s[0] === 'C') pushCubic(points, [x, y, s[1], s[2], s[3], s[4], s[5], s[6]], tolerance);
    x = s.at(-2) as number;
    y = s.at(-1) as number;
    points.push(x, y);
  }
  finish(false);
  return lines;
}

/** Pushes the inner points only; both ends belong to the caller. */
function pushCubic(points: number[], cubic: Cubic, tolerance: number): void {
  for (const { x, y } of chordPoints(cubic, tolerance)) points.push(x, y);
}

export interface ChordPoint {
  readonly x: number;
  readonly y: number;
  readonly t: number;
}

/**
 * Where chords of a cubic meet, from its start to its end, both left out.
 * @param tolerance largest distance between chord and curve, > 0
 */
export function chordPoints(cubic: Cubic, tolerance: number): ChordPoint[] {
  const [x0, y0, x1, y1, x2, y2, x3, y3] = cubic;
  // The same curve walked backwards must give the same points, or shapes that share an edge would drift apart.
  const reversed = x3 < x0 || (x3 === x0 && y3 < y0);
  const c: Cubic = reversed ? [x3, y3, x2, y2, x1, y1, x0, y0] : cubic;
  const inner: ChordPoint[] = [];
  for (const [i, { piece, from, to }] of splitAtExtremes(c).entries()) {
    if (i > 0) inner.push({ x: piece[0], y: piece[1], t: from });
    for (const t of spread(piece, tolerance)) {
      inner.push({ x: at(piece, 0, t), y: at(piece, 1, t), t: from + t * (to - from) });
    }
  }
  return reversed ? inner.map((point) => ({ ...point, t: 1 - point.t })).reverse() : inner;
}

/** Cut where it runs level or upright, so that bounds of the chords are bounds of the curve. */
function splitAtExtremes(c: Cubic): { piece: Cubic; from: number; to: number }[] {
  const cuts = [...levelParameters(c, 0), ...levelParameters(c, 1)].sort((a, b) => a - b);
  const pieces: { piece: Cubic; from: number; to: number }[] = [];
  let rest = c;
  let done = 0;
  for (const t of cuts) {
    if (t - done < 1e-6) continue;
    const [head, tail] = splitCubic(rest, (t - done) / (1 - done));
    pieces.push({ piece: head, from: done, to: t });
    rest = tail;
    done = t;
  }
  pieces.push({ piece: rest, from: done, to: 1 });
  return pieces;
}

/** Parameters strictly inside (0, 1) where the derivative along one axis is 0. */
function levelParameters(c: Cubic, axis: 0 | 1): number[] {
  const [p0, p1, p2, p3] = [c[axis], c[axis + 2]!, c[axis + 4]!, c[axis + 6]!];
  const a = p3 - 3 * p2 + 3 * p1 - p0;
  const b = 2 * (p2 - 2 * p1 + p0);
  const d = p1 - p0;
  const inside = (t: number) => t > 1e-6 && t < 1 - 1e-6;
  if (Math.abs(a) < 1e-12 * Math.abs(b)) return [-d / b].filter(inside);
  const discriminant = b * b - 4 * a * d;
  if (!(discriminant > 0)) return [];
  // Citardauq form where it is the steadier one.
  const q = -0.5 * (b + Math.sign(b || 1) * Math.sqrt(discriminant));
  return [q / a, d / q].filter(inside);
}

function spread(c: Cubic, tolerance: number): number[] {
  const density = cumulativeDensity(c);
  const total = density[SAMPLES]!;
  let chords = Math.min(MAX_CHORDS, Math.max(1, Math.ceil(total / Math.sqrt(8 * tolerance))));
  for (;;) {
    const parameters = equalShares(density, chords);
    if (chords >= MAX_CHORDS || worstGap(c, parameters) <= tolerance) return parameters;
    chords = Math.min(MAX_CHORDS, Math.ceil(chords * 1.15) + (chords < 4 ? 1 : 0));
  }
}

/** ∫√κ ds from 0 to i/SAMPLES. √κ·|p'| = √(|p'×p''| / |p'|), which stays finite except at a cusp. */
function cumulativeDensity([x0, y0, x1, y1, x2, y2, x3, y3]: Cubic): Float64Array {
  const sums = new Float64Array(SAMPLES + 1);
  for (let i = 0; i < SAMPLES; i++) {
    const t = (i + 0.5) / SAMPLES;
    const u = 1 - t;
    const dx = 3 * (u * u * (x1 - x0) + 2 * u * t * (x2 - x1) + t * t * (x3 - x2));
    const dy = 3 * (u * u * (y1 - y0) + 2 * u * t * (y2 - y1) + t * t * (y3 - y2));
    const ddx = 6 * (u * (x2 - 2 * x1 + x0) + t * (x3 - 2 * x2 + x1));
    const ddy = 6 * (u * (y2 - 2 * y1 + y0) + t * (y3 - 2 * y2 + y1));
    const speed = Math.sqrt(dx * dx + dy * dy);
    sums[i + 1] = sums[i]! + (speed > 0 ? Math.sqrt(Math.abs(dx * ddy - dy * ddx) / speed) / SAMPLES : 0);
  }
  return sums;
}

/** The parameters that split the density into `chords` equal parts (ends left out). */
function equalShares(density: Float64Array, chords: number): number[] {
  const total = density[SAMPLES]!;
  const parameters: number[] = [];
  let i = 0;
  for (let k = 1; k < chords; k++) {
    const target = (total * k) / chords;
    while (i < SAMPLES - 1 && density[i + 1]! < target) i++;
    const step = density[i + 1]! - density[i]!;
    parameters.push(step > 0 ? (i + (target - density[i]!) / step) / SAMPLES : k / chords);
  }
  return parameters;
}

/** Largest distance of the curve from its chords, at three places on each. */
function worstGap(c: Cubic, parameters: readonly number[]): number {
  let worst = 0;
  let [from, ax, ay] = [0, c[0], c[1]];
  for (let i = 0; i <= parameters.length; i++) {
    const to = parameters[i] ?? 1;
    const [bx, by] = [at(c, 0, to), at(c, 1, to)];
    for (let quarter = 1; quarter < 4; quarter++) {
      const t = from + ((to - from) * quarter) / 4;
      worst = Math.max(worst, distanceToSegment(at(c, 0, t), at(c, 1, t), ax, ay, bx, by));
    }
    [from, ax, ay] = [to, bx, by];
  }
  return worst;
}

/** Distance from (px, py) to the segment a–b. */
export function distanceToSegment(px: number, py: number, ax: number, ay: number, bx: number, by: number): number {
  const dx = bx - ax;
  const dy = by - ay;
  const length2 = dx * dx + dy * dy;
  const t = length2 > 0 ? Math.min(1, Math.max(0, ((px - ax) * dx + (py - ay) * dy) / length2)) : 0;
  const [x, y] = [px - ax - t * dx, py - ay - t * dy];
  return Math.sqrt(x * x + y * y);
}
