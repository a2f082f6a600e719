// staircase.ts — the boundary of a picture of two tones without greys: the straight lines and curves behind the staircase
// of its pixels. The polygon of fewest sides that stays within half a pixel, and of those the one that fits best, after
// Selinger, "Potrace: a polygon-based tracing algorithm" (2003), §2.2; its corners told from curves after §2.3.

interface Staircase {
  /** Corners of pixels along the boundary, one step apart, closed. */
  readonly xs: Int32Array;
  readonly ys: Int32Array;
  readonly count: number;
}

/**
 * @param midpoints of the pixel sides along a closed boundary, in order, flat x, y
 * @returns the smoothed boundary, about one point a pixel; corners are points of it
 */
export function smoothedStaircase(midpoints: Float64Array): Float64Array {
  const stairs = cornersOf(midpoints);
  if (stairs.count < 8) return midpoints;
  const sums = prefixSums(stairs);
  const sides = bestPolygon(stairs, sums);
  if (sides.length < 3) return midpoints;
  return smoothed(adjusted(stairs, sums, sides));
}

/** Where sides of pixels meet: halfway on a straight stretch, on both grid lines at a turn. */
function cornersOf(midpoints: Float64Array): Staircase {
  const count = midpoints.length / 2;
  const [xs, ys] = [new Int32Array(count), new Int32Array(count)];
  let start = 0;
  for (let i = 0; i < count; i++) {
    const j = (i + 1) % count;
    const [x, y, u, v] = [midpoints[2 * i]!, midpoints[2 * i + 1]!, midpoints[2 * j]!, midpoints[2 * j + 1]!];
    const isLevel = Number.isInteger(y);
    const turns = isLevel !== Number.isInteger(v);
    xs[i] = turns ? (isLevel ? u : x) : (x + u) / 2;
    ys[i] = turns ? (isLevel ? y : v) : (y + v) / 2;
    if (xs[i]! + ys[i]! < xs[start]! + ys[start]!) start = i;
  }
  // Begun at an extreme corner, which is likely to be one of the polygon's.
  const turned = (values: Int32Array) => values.map((_, i) => values[(i + start) % count]!);
  return { xs: turned(xs), ys: turned(ys), count };
}

/**
 * The farthest corner, counted on past the end, that each corner can be joined with by a straight stretch: the line
 * between them passes every corner on the way within a pixel, and the way does not turn in all four directions.
 */
function straightReach({ xs, ys, count }: Staircase): Int32Array {
  const reach = new Int32Array(count);
  for (let i = 0; i < count; i++) {
    // Directions allowed so far lie between two vectors, clockwise of the one, counterclockwise of the other.
    let [ax, ay, bx, by] = [0, 0, 0, 0];
    let directions = 0;
    let k = 1;
    for (; k < count; k++) {
      const at = (i + k) % count;
      const before = (i + k - 1) % count;
      const [sx, sy] = [xs[at]! - xs[before]!, ys[at]! - ys[before]!];
      directions |= 1 << (sx === 0 ? (sy > 0 ? 0 : 1) : sx > 0 ? 2 : 3);
      if (directions === 15) break;
      const [x, y] = [xs[at]! - xs[i]!, ys[at]! - ys[i]!];
      if (ax * y - ay * x < 0 || bx * y - by * x > 0) break;
      if (Math.abs(x) <= 1 && Math.abs(y) <= 1) continue;
      // The corners of the square around this one that are seen furthest to either side.
      const [px, py] = [x + (y >= 0 && (y > 0 || x < 0) ? 1 : -1), y + (x <= 0 && (x < 0 || y < 0) ? 1 : -1)];
      const [qx, qy] = [x + (y <= 0 && (y < 0 || x < 0) ? 1 : -1), y + (x >= 0 && (x > 0 || y < 0) ? 1 : -1)];
      if (ax * py - ay * px >= 0) [ax, ay] = [px, py];
      if (bx * qy - by * qx <= 0) [bx, by] = [qx, qy];
    }
    reach[i] = i + k - 1;
  }
  return reach;
}

interface Sums {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly xx: Float64Array;
  readonly xy: Float64Array;
  readonly yy: Float64Array;
}

/** Sums over the first n corners, twice round, measured from corner 0. */
function prefixSums({ xs, ys, count }: Staircase): Sums {
  const row = () => new Float64Array(2 * count + 1);
  const sums = { x: row(), y: row(), xx: row(), xy: row(), yy: row() };
  for (let i = 0; i < 2 * count; i++) {
    const [x, y] = [xs[i % count]! - xs[0]!, ys[i % count]! - ys[0]!];
    sums.x[i + 1] = sums.x[i]! + x;
    sums.y[i + 1] = sums.y[i]! + y;
    sums.xx[i + 1] = sums.xx[i]! + x * x;
    sums.xy[i + 1] = sums.xy[i]! + x * y;
    sums.yy[i + 1] = sums.yy[i]! + y * y;
  }
  return sums;
}

/** Corners of the stairs that are the polygon's, in order. */
function bestPolygon(stairs: Staircase, sums: Sums): number[] {
  const { count } = stairs;
  const reach = straightReach(stairs);
  // Sides may be as long as they are straight. (The paper asks for one more corner on both ends, which doubles the corners
  // of what was drawn with straight sides.)
  const farthest = reach.map((to) => Math.min(count, to));
  for (let i = count - 2; i >= 0; i--) farthest[i] = Math.min(farthest[i]!, farthest[i + 1]!);
  const [sides, penalties, from] = [new Int32Array(count + 1), new Float64Array(count + 1), new Int32Array(count + 1)];
  for (let j = 1, first = 0; j <= count; j++) {
    while (farthest[first]! < j) first++;
    sides[j] = sides[first]! + 1;
    penalties[j] = Infinity;
    // Later starts need as many sides or more: the first ones have the fewest.
    for (let i = first; i < j && sides[i] === sides[first]; i++) {
      const penalty = penalties[i]! + sidePenalty(stairs, sums, i, j);
      if (penalty >= penalties[j]!) continue;
      penalties[j] = penalty;
      from[j] = i;
    }
  }
  const polygon: number[] = [];
  for (let j = count; j > 0; j = from[j]!) polygon.push(from[j]!);
  return polygon.reverse();
}

/** Length of a side times the standard deviation of its corners from it. */
function sidePenalty({ xs, ys, count }: Staircase, sums: Sums, i: number, j: number): number {
  const n = j - i + 1;
  const sum = (s: Float64Array) => s[j + 1]! - s[i]!;
  const [ox, oy] = [xs[0]!, ys[0]!];
  const [x0, y0] = [xs[i]! - ox, ys[i]! - oy];
  const [x1, y1] = [xs[j % count]! - ox, ys[j % count]! - oy];
  const [mx, my] = [(x0 + x1) / 2, (y0 + y1) / 2];
  const [dx, dy] = [x1 - x0, y1 - y0];
  const a = (sum(sums.xx) - 2 * mx * sum(sums.x)) / n + mx * mx;
  const b = (sum(sums.xy) - mx * sum(sums.y) - my * sum(sums.x)) / n + mx * my;
  const c = (sum(sums.yy) - 2 * my * sum(sums.y)) / n + my * my;
  return Math.sqrt(Math.max(0, dy * dy * a - 2 * dx * dy * b + dx * dx * c));
}

type Point = readonly [x: number, y: number];

/** How strongly a corner is held where it was when its two sides do not say where along them it lies. */
const HOLD = 0.01;

/** Each corner to where the lines that fit its two sides best come together, half a pixel at most from where it was. */
function adjusted({ xs, ys, count }: Staircase, sums: Sums, polygon: readonly number[]): Point[] {
  const lines = polygon.map((i, k) => bestLine(sums, i, polygon[k + 1] ?? polygon[0]! + count));
  return polygon.map((i, k): Point => {
    const [x, y] = [xs[i]! - xs[0]!, ys[i]! - ys[0]!];
    let [qxx, qxy, qyy, bx, by] = [HOLD, 0, HOLD, HOLD * x, HOLD * y];
    for (const { at, normal } of [lines.at(k - 1)!, lines[k]!]) {
      const [nx, ny] = normal;
      const off = nx * at[0] + ny * at[1];
      qxx += nx * nx;
      qxy += nx * ny;
      qyy += ny * ny;
      bx += nx * off;
      by += ny * off;
    }
    const determinant = qxx * qyy - qxy * qxy;
    const clamp = (v: number, around: number) => Math.min(around + 0.5, Math.max(around - 0.5, v));
    return [
      xs[0]! + clamp((bx * qyy - by * qxy) / determinant, x),
      ys[0]! + clamp((qxx * by - qxy * bx) / determinant, y),
    ];
  });
}

function bestLine(sums: Sums, i: number, j: number): { at: Point; normal: Point } {
  const n = j - i + 1;
  const mean = (s: Float64Array) => (s[j + 1]! - s[i]!) / n;
  const at: Point = [mean(sums.x), mean(sums.y)];
  const [xx, yy] = [mean(sums.xx) - at[0] ** 2, mean(sums.yy) - at[1] ** 2];
  const angle = 0.5 * Math.atan2(2 * (mean(sums.xy) - at[0] * at[1]), xx - yy);
  return { at, normal: [-Math.sin(angle), Math.cos(angle)] };
}

/** Corners above this sharpness stay corners. */
const SHARP = 1;
/** Handles reach this far towards the corner at least: two thirds make arcs of circles, but for their fourth order. */
const ROUND = 2 / 3;

function smoothed(polygon: readonly Point[]): Float64Array {
  const points: number[] = [];
  for (const [k, corner] of polygon.entries()) {
    const [before, behind] = [polygon.at(k - 1)!, polygon[(k + 1) % polygon.length]!];
    const [a, b] = [middle(before, corner), middle(corner, behind)];
    const sharpness = sharpnessOf(a, corner, b);
    if (sharpness >= SHARP) {
      pushLine(points, a, corner);
      pushLine(points, corner, b);
      continue;
    }
    const toward = Math.max(ROUND, sharpness);
    const along = (end: Point, i: 0 | 1) => end[i] + toward * (corner[i] - end[i]);
    pushCubic(points, a, [along(a, 0), along(a, 1)], [along(b, 0), along(b, 1)], b);
  }
  return Float64Array.from(points);
}

const middle = (p: Point, q: Point): Point => [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2];

/** How far a curve may come towards the corner and stay clear of the pixel around it: 4/3 of that share of the way. */
function sharpnessOf(a: Point, corner: Point, b: Point): number {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const height = Math.abs(dx * (corner[1] - a[1]) - dy * (corner[0] - a[0]));
  const pixel = (Math.abs(dx) + Math.abs(dy)) / 2;
  return height > pixel ? (4 / 3) * (1 - pixel / height) : 0;
}

/** Points from a, included, to b, excluded. */
function pushLine(points: number[], a: Point, b: Point): void {
  const steps = Math.max(1, Math.round(Math.hypot(b[0] - a[0], b[1] - a[1])));
  for (let i = 0; i < steps; i++) {
    const t = i / steps;
    points.push(a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1]));
  }
}

function pushCubic(points: number[], a: Point, b: Point, c: Point, d: Point): void {
  const length =
    Math.hypot(b[0] - a[0], b[1] - a[1]) + Math.hypot(c[0] - b[0], c[1] - b[1]) + Math.hypot(d[0] - c[0], d[1] - c[1]);
  const steps = Math.max(1, Math.round(length));
  for (let i = 0; i < steps; i++) {
    const t = i / steps;
    const u = 1 - t;
    const [w0, w1, w2, w3] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
    points.push(w0 * a[0] + w1 * b[0] + w2 * c[0] + w3 * d[0], w0 * a[1] + w1 * b[1] + w2 * c[1] + w3 * d[1]);
  }
}
