// fit.ts — curves through rows of points: total least squares lines, and cubics with given end tangents after Schneider
// 1990 ("An algorithm for automatically fitting digitized curves"), with parameters improved by Newton's method.

export interface Vec {
  readonly x: number;
  readonly y: number;
}

/** Points of an open run: index 0 … count − 1. */
export interface Run {
  readonly xs: Float64Array;
  readonly ys: Float64Array;
  /** How far a curve may stray from each point, as one over that; 1 for all where left out. */
  readonly tightness?: Float32Array;
}

/** How far points lie from what was fitted to them. */
export interface Misfit {
  /** Largest distance of a point. */
  readonly stray: number;
  /** Largest share of what a point allows: 1 is just within. The same as `stray` where nothing is said about that. */
  readonly strain: number;
}

export interface Line extends Misfit {
  /** A point on it: the mean of what was fitted. */
  readonly at: Vec;
  /** Unit direction, along the run. */
  readonly along: Vec;
  /** Height of the parabola that fits the distances over the run: how much it bends. */
  readonly sagitta: number;
}

/** The line through points from … to (both included) that has the least squared distances. */
export function fitLine({ xs, ys, tightness }: Run, from: number, to: number): Line {
  const n = to - from + 1;
  let [mx, my] = [0, 0];
  for (let i = from; i <= to; i++) {
    mx += xs[i]!;
    my += ys[i]!;
  }
  mx /= n;
  my /= n;
  let [xx, xy, yy] = [0, 0, 0];
  for (let i = from; i <= to; i++) {
    const dx = xs[i]! - mx;
    const dy = ys[i]! - my;
    xx += dx * dx;
    xy += dx * dy;
    yy += dy * dy;
  }
  const angle = 0.5 * Math.atan2(2 * xy, xx - yy);
  let [ux, uy] = [Math.cos(angle), Math.sin(angle)];
  if ((xs[to]! - xs[from]!) * ux + (ys[to]! - ys[from]!) * uy < 0) [ux, uy] = [-ux, -uy];
  let [stray, strain] = [0, 0];
  // Distances projected on the second Legendre polynomial give the bend.
  const half = Math.max(1e-9, Math.hypot(xs[to]! - xs[from]!, ys[to]! - ys[from]!) / 2);
  let [bend, weight] = [0, 0];
  for (let i = from; i <= to; i++) {
    const dx = xs[i]! - mx;
    const dy = ys[i]! - my;
    const off = dy * ux - dx * uy;
    const distance = Math.abs(off);
    if (distance > stray) stray = distance;
    if (tightness && distance * tightness[i]! > strain) strain = distance * tightness[i]!;
    const t = (dx * ux + dy * uy) / half;
    const p = (3 * t * t - 1) / 2;
    bend += off * p;
    weight += p * p;
  }
  return {
    at: { x: mx, y: my },
    along: { x: ux, y: uy },
    stray,
    strain: tightness ? strain : stray,
    sagitta: weight > 0 ? Math.abs(1.5 * (bend / weight)) : 0,
  };
}

/** How far points lie from the parabola over the run's line that fits best. */
export function fitParabola(run: Run, from: number, to: number): Misfit {
  const { at, along } = fitLine(run, from, to);
  const { xs, ys, tightness } = run;
  const n = to - from + 1;
  let [t1, t2, t3, t4, o0, o1, o2] = [0, 0, 0, 0, 0, 0, 0];
  for (let i = from; i <= to; i++) {
    const dx = xs[i]! - at.x;
    const dy = ys[i]! - at.y;
    const t = dx * along.x + dy * along.y;
    const off = dy * along.x - dx * along.y;
    const tt = t * t;
    t1 += t;
    t2 += tt;
    t3 += tt * t;
    t4 += tt * tt;
    o0 += off;
    o1 += off * t;
    o2 += off * tt;
  }
  // Normal equations of off = p + q·t + r·t², by Cramer's rule.
  const [m0, m1, m2] = [t2 * t4 - t3 * t3, t1 * t4 - t3 * t2, t1 * t3 - t2 * t2];
  const determinant = n * m0 - t1 * m1 + t2 * m2;
  if (Math.abs(determinant) < 1e-12) return { stray: 0, strain: 0 };
  const [p0, p1, p2] = [o1 * t4 - t3 * o2, o1 * t3 - t2 * o2, t1 * o2 - o1 * t2];
  const p = (o0 * m0 - t1 * p0 + t2 * p1) / determinant;
  const q = (n * p0 - o0 * m1 + t2 * p2) / determinant;
  const r = (n * (t2 * o2 - o1 * t3) - t1 * p2 + o0 * m2) / determinant;
  let [stray, strain] = [0, 0];
  for (let i = from; i <= to; i++) {
    const dx = xs[i]! - at.x;
    const dy = ys[i]! - at.y;
    const t = dx * along.x + dy * along.y;
    const off = Math.abs(dy * along.x - dx * along.y - p - t * (q + r * t));
    if (off > stray) stray = off;
    if (tightness && off * tightness[i]! > strain) strain = off * tightness[i]!;
  }
  return { stray, strain: tightness ? strain : stray };
}

/** Where two lines meet; null when they are nearly parallel. */
export function intersection(a: Line, b: Line): Vec | null {
  const cross = a.along.x * b.along.y - a.along.y * b.along.x;
  if (Math.abs(cross) < 0.05) return null;
  const t = ((b.at.x - a.at.x) * b.along.y - (b.at.y - a.at.y) * b.along.x) / cross;
  return { x: a.at.x + t * a.along.x, y: a.at.y + t * a.along.y };
}

export interface CubicFit extends Misfit {
  /** Control points: start, two handles, end. */
  readonly points: readonly [Vec, Vec, Vec, Vec];
}

/** Rounds of better parameters at the most, and the gain below which another is not worth it. */
const NEWTON_ROUNDS = 12;
const GAIN = 0.99;
/** A strain this many times too large does not come right by better parameters (Schneider asks for 4 in squares). */
const HOPELESS = 4;

/** Where a curve begins or ends, and the unit tangent there that points into it. */
export interface CurveEnd {
  readonly at: Vec;
  readonly into: Vec;
}

export interface CubicWishes {
  /** Its points are those of the run from here to there, both included; none where `to` is less. */
  readonly from: number;
  readonly to: number;
  readonly start: CurveEnd;
  readonly end: CurveEnd;
  /** The strain that is as good as none. */
  readonly enough: number;
  /** How many times `enough` is given up on after the first round. */
  readonly hopeless?: number;
}

/** The cubic between two ends that comes near enough to the points between, or as near as it gets. */
export function fitCubic(run: Run, wishes: CubicWishes): CubicFit {
  const { from, to, enough, hopeless = HOPELESS } = wishes;
  const [start, end] = [wishes.start.at, wishes.end.at];
  const parameters = chordLengths(run, from, to, start, end);
  const count = Math.max(0, to - from + 1);
  let best: CubicFit | null = null;
  for (let round = 0; round <= NEWTON_ROUNDS; round++) {
    const points = leastSquares(run, from, count, parameters, start, end, wishes.start.into, wishes.end.into);
    const misfit = misfitOf(run, from, count, parameters, points);
    const isWorthwhile = !best || misfit.strain < GAIN * best.strain;
    if (!best || misfit.strain < best.strain) best = { points, ...misfit };
    if (!isWorthwhile || best.strain <= enough || (round > 0 && best.strain > hopeless * enough)) break;
    reparametrize(run, from, count, parameters, points);
  }
  return best!;
}

/** Used by one fit at a time: curves are fitted by the thousand. */
let scratch = new Float64Array(1024);

/** Parameters 0 … 1 by the length of the way, in the first places of a shared array. */
function chordLengths({ xs, ys }: Run, from: number, to: number, start: Vec, end: Vec): Float64Array {
  const n = to - from + 1;
  if (n > scratch.length) scratch = new Float64Array(2 * n);
  const t = scratch;
  let { x, y } = start;
  let sum = 0;
  for (let i = 0; i < n; i++) {
    const dx = xs[from + i]! - x;
    const dy = ys[from + i]! - y;
    sum += Math.sqrt(dx * dx + dy * dy);
    t[i] = sum;
    x = xs[from + i]!;
    y = ys[from + i]!;
  }
  const total = sum + Math.hypot(end.x - x, end.y - y) || 1;
  for (let i = 0; i < n; i++) t[i]! /= total;
  return t;
}

function leastSquares(
  { xs, ys }: Run,
  from: number,
  count: number,
  parameters: Float64Array,
  p0: Vec,
  p3: Vec,
  t1: Vec,
  t2: Vec,
): [Vec, Vec, Vec, Vec] {
  let [c00, c01, c11, x0, x1] = [0, 0, 0, 0, 0];
  const dot = t1.x * t2.x + t1.y * t2.y;
  for (let i = 0; i < count; i++) {
    const t = parameters[i]!;
    const u = 1 - t;
    const b1 = 3 * u * u * t;
    const b2 = 3 * u * t * t;
    const w0 = u * u * u + b1;
    const w3 = b2 + t * t * t;
    const dx = xs[from + i]! - (p0.x * w0 + p3.x * w3);
    const dy = ys[from + i]! - (p0.y * w0 + p3.y * w3);
    c00 += b1 * b1;
    c01 += b1 * b2 * dot;
    c11 += b2 * b2;
    x0 += b1 * (t1.x * dx + t1.y * dy);
    x1 += b2 * (t2.x * dx + t2.y * dy);
  }
  const chord = Math.hypot(p3.x - p0.x, p3.y - p0.y);
  const determinant = c00 * c11 - c01 * c01;
  let [alpha, beta] = [(x0 * c11 - x1 * c01) / determinant, (c00 * x1 - c01 * x0) / determinant];
  // Wu & Barsky's rule where the equations do not decide: handles of a third of the chord.
  const isDecided = alpha > 1e-3 * chord && beta > 1e-3 * chord && alpha < 4 * chord && beta < 4 * chord;
  if (!isDecided) [alpha, beta] = [chord / 3, chord / 3];
  return [p0, { x: p0.x + alpha * t1.x, y: p0.y + alpha * t1.y }, { x: p3.x + beta * t2.x, y: p3.y + beta * t2.y }, p3];
}

function misfitOf(
  { xs, ys, tightness }: Run,
  from: number,
  count: number,
  parameters: Float64Array,
  points: CubicFit['points'],
): Misfit {
  const [p0, p1, p2, p3] = points;
  let [stray, strain] = [0, 0];
  for (let i = 0; i < count; i++) {
    const t = parameters[i]!;
    const u = 1 - t;
    const a = u * u * u;
    const b = 3 * u * u * t;
    const c = 3 * u * t * t;
    const d = t * t * t;
    const ex = a * p0.x + b * p1.x + c * p2.x + d * p3.x - xs[from + i]!;
    const ey = a * p0.y + b * p1.y + c * p2.y + d * p3.y - ys[from + i]!;
    const squared = ex * ex + ey * ey;
    if (squared > stray) stray = squared;
    if (tightness) {
      const share = squared * tightness[from + i]! * tightness[from + i]!;
      if (share > strain) strain = share;
    }
  }
  return { stray: Math.sqrt(stray), strain: Math.sqrt(tightness ? strain : stray) };
}

/** One step of Newton's method towards the nearest parameter of every point. */
function reparametrize(
  { xs, ys }: Run,
  from: number,
  count: number,
  parameters: Float64Array,
  points: CubicFit['points'],
): void {
  const [p0, p1, p2, p3] = points;
  for (let i = 0; i < count; i++) {
    const t = parameters[i]!;
    const u = 1 - t;
    const a = u * u * u;
    const b = 3 * u * u * t;
    const c = 3 * u * t * t;
    const d = t * t * t;
    const ex = a * p0.x + b * p1.x + c * p2.x + d * p3.x - xs[from + i]!;
    const ey = a * p0.y + b * p1.y + c * p2.y + d * p3.y - ys[from + i]!;
    const dx = 3 * (u * u * (p1.x - p0.x) + 2 * u * t * (p2.x - p1.x) + t * t * (p3.x - p2.x));
    const dy = 3 * (u * u * (p1.y - p0.y) + 2 * u * t * (p2.y - p1.y) + t * t * (p3.y - p2.y));
    const ddx = 6 * (u * (p2.x - 2 * p1.x + p0.x) + t * (p3.x - 2 * p2.x + p1.x));
    const ddy = 6 * (u * (p2.y - 2 * p1.y + p0.y) + t * (p3.y - 2 * p2.y + p1.y));
    const slope = dx * dx + dy * dy + ex * ddx + ey * ddy;
    if (slope > 1e-12) parameters[i] = Math.min(1, Math.max(0, t - (ex * dx + ey * dy) / slope));
  }
}

export interface Circle extends Misfit {
  readonly centre: Vec;
  readonly radius: number;
}

/** The circle of least algebraic distance (Kåsa 1976), which is all but exact for points all round. */
export function fitCircle({ xs, ys, tightness }: Run, from: number, to: number): Circle {
  const n = to - from + 1;
  let [mx, my] = [0, 0];
  for (let i = from; i <= to; i++) {
    mx += xs[i]! / n;
    my += ys[i]! / n;
  }
  let [uu, uv, vv, uuu, vvv, uvv, vuu] = [0, 0, 0, 0, 0, 0, 0];
  for (let i = from; i <= to; i++) {
    const [u, v] = [xs[i]! - mx, ys[i]! - my];
    uu += u * u;
    uv += u * v;
    vv += v * v;
    uuu += u * u * u;
    vvv += v * v * v;
    uvv += u * v * v;
    vuu += v * u * u;
  }
  const determinant = 2 * (uu * vv - uv * uv);
  const cx = (vv * (uuu + uvv) - uv * (vvv + vuu)) / determinant;
  const cy = (uu * (vvv + vuu) - uv * (uuu + uvv)) / determinant;
  const radius = Math.sqrt(cx * cx + cy * cy + (uu + vv) / n);
  const centre = { x: mx + cx, y: my + cy };
  if (!Number.isFinite(radius)) return { centre, radius, stray: Infinity, strain: Infinity };
  let [stray, strain] = [0, 0];
  for (let i = from; i <= to; i++) {
    const off = Math.abs(Math.hypot(xs[i]! - centre.x, ys[i]! - centre.y) - radius);
    stray = Math.max(stray, off);
    strain = Math.max(strain, off * (tightness?.[i] ?? 1));
  }
  return { centre, radius, stray, strain };
}

/** Whether a cubic turns back at one of its ends or runs far past the other: short ones through a few points may. */
export function isCurled(a: Vec, b: Vec, c: Vec, d: Vec): boolean {
  const [x, y] = [d.x - a.x, d.y - a.y];
  const square = x * x + y * y;
  const along = (from: Vec, to: Vec) => (to.x - from.x) * x + (to.y - from.y) * y;
  const isStray = (from: Vec, to: Vec) => along(from, to) < 0 || (to.x - from.x) ** 2 + (to.y - from.y) ** 2 > square;
  return isStray(a, b) || isStray(c, d) || along(b, c) < 0;
}
