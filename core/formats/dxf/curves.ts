// curves.ts — the curves of DXF as lines and cubics: bulges, arcs of circles and ellipses, B-splines.
import { numbersAt } from '../../base/arrays.ts';
import { arcToCubics } from '../../path/arc.ts';
import { at, type Cubic, linePiece, type Piece } from '../../path/cubic.ts';

export type Point = readonly [x: number, y: number];

/**
 * A polyline's piece: straight, or an arc whose bulge is the tangent of a quarter of the angle it spans, positive where it
 * turns counter-clockwise (DXF Reference, LWPOLYLINE, group code 42).
 */
export function bulgePieces([x0, y0]: Point, [x1, y1]: Point, bulge: number): Piece[] {
  if (x0 === x1 && y0 === y1) return [];
  if (!bulge) return [linePiece(x0, y0, x1, y1)];
  const chord = Math.hypot(x1 - x0, y1 - y0);
  // r = chord · (1 + b²) / 4|b|, from r = chord / (2·sin(θ/2)) and b = tan(θ/4).
  const radius = (chord * (1 + bulge * bulge)) / (4 * Math.abs(bulge));
  const arc = { rx: radius, ry: radius, rotationDeg: 0, largeArc: Math.abs(bulge) > 1, sweep: bulge > 0 };
  return piecesOf([x0, y0], arcToCubics(x0, y0, arc, x1, y1));
}

function piecesOf(start: Point, cubics: ReturnType<typeof arcToCubics>): Piece[] {
  let [x, y] = start;
  return cubics.map(([, x1, y1, x2, y2, x3, y3]): Piece => {
    const cubic: Cubic = [x, y, x1, y1, x2, y2, x3, y3];
    [x, y] = [x3, y3];
    return { isLine: false, cubic };
  });
}

export interface EllipseArc {
  readonly centre: Point;
  /** Half the major axis, from the centre. */
  readonly major: Point;
  /** Of the minor axis to the major one. */
  readonly ratio: number;
  /** Parameters in radians, counter-clockwise from `start` to `end`. */
  readonly start: number;
  readonly end: number;
}

/** Largest sweep of one cubic: the radial error stays below 4.3e-6 of the radius. */
const MAX_SWEEP = Math.PI / 4;

export function ellipsePieces({ centre: [cx, cy], major: [mx, my], ratio, start, end }: EllipseArc): Piece[] {
  let sweep = end - start;
  if (Math.abs(sweep) < 1e-12) sweep = 2 * Math.PI;
  while (sweep < 0) sweep += 2 * Math.PI;
  const count = Math.max(1, Math.ceil(sweep / MAX_SWEEP - 1e-9));
  const step = sweep / count;
  const k = (4 / 3) * Math.tan(step / 4);
  const [nx, ny] = [-my * ratio, mx * ratio];
  const place = (u: number, v: number): Point => [cx + u * mx + v * nx, cy + u * my + v * ny];
  return Array.from({ length: count }, (_, i): Piece => {
    const [a, b] = [start + i * step, start + (i + 1) * step];
    const [c0, s0, c1, s1] = [Math.cos(a), Math.sin(a), Math.cos(b), Math.sin(b)];
    const cubic = [place(c0, s0), place(c0 - k * s0, s0 + k * c0), place(c1 + k * s1, s1 - k * c1), place(c1, s1)];
    return { isLine: false, cubic: numbersAt(cubic.flat(), 0, 8) };
  });
}

export interface Spline {
  readonly degree: number;
  readonly knots: readonly number[];
  readonly points: readonly Point[];
  /** One a point; none where all are 1. */
  readonly weights: readonly number[];
}

const MAX_DEPTH = 10;

/**
 * A B-spline piece by piece between its knots. Without weights and up to degree 3 a cubic with the same ends and
 * derivatives is the very same curve (Hermite); others are divided until they come within `tolerance`.
 * @returns none where the numbers do not make a spline
 */
export function splinePieces(spline: Spline, tolerance: number): Piece[] {
  const { degree, knots, points, weights } = spline;
  if (!(degree >= 1 && degree <= 25) || points.length <= degree || knots.length !== points.length + degree + 1)
    return [];
  const isExact = degree <= 3 && weights.every((w) => w === weights[0]);
  const pieces: Piece[] = [];
  for (let i = degree; i < points.length; i++) {
    const [from, to] = [knots[i]!, knots[i + 1]!];
    if (to > from) pieces.push(...spanPieces(spline, i, from, to, isExact ? Infinity : tolerance, 0));
  }
  return pieces;
}

function spanPieces(spline: Spline, span: number, from: number, to: number, tolerance: number, depth: number): Piece[] {
  const [a, b] = [splineAt(spline, span, from), splineAt(spline, span, to)];
  const third = (to - from) / 3;
  const cubic: Cubic = [
    a.x,
    a.y,
    a.x + a.dx * third,
    a.y + a.dy * third,
    b.x - b.dx * third,
    b.y - b.dy * third,
    b.x,
    b.y,
  ];
  const isNear = [0.25, 0.5, 0.75].every((t) => {
    const { x, y } = splineAt(spline, span, from + t * (to - from));
    return Math.hypot(at(cubic, 0, t) - x, at(cubic, 1, t) - y) <= tolerance;
  });
  if (tolerance === Infinity || isNear || depth >= MAX_DEPTH) {
    return [spline.degree === 1 ? linePiece(a.x, a.y, b.x, b.y) : { isLine: false, cubic }];
  }
  const middle = (from + to) / 2;
  return [
    ...spanPieces(spline, span, from, middle, tolerance, depth + 1),
    ...spanPieces(spline, span, middle, to, tolerance, depth + 1),
  ];
}

/** Point and derivative by de Boor's algorithm in homogeneous coordinates (Piegl & Tiller 1997, "The NURBS Book", §4). */
function splineAt({ degree, knots, points, weights }: Spline, span: number, u: number) {
  const homogeneous = (i: number): number[] => {
    const [[x, y], w] = [points[i]!, weights[i] ?? 1];
    return [x * w, y * w, w];
  };
  const d = Array.from({ length: degree + 1 }, (_, j) => homogeneous(j + span - degree));
  let before = d;
  for (let r = 1; r <= degree; r++) {
    if (r === degree) before = d.map((v) => [...v]);
    for (let j = degree; j >= r; j--) {
      const [low, high] = [knots[j + span - degree]!, knots[j + 1 + span - r]!];
      const alpha = high > low ? (u - low) / (high - low) : 0;
      d[j] = d[j]!.map((v, k) => (1 - alpha) * d[j - 1]![k]! + alpha * v);
    }
  }
  const [X, Y, W] = d[degree] as [number, number, number];
  // The last step joins two points of the step before; their difference is the direction.
  const width = knots[span + 1]! - knots[span]!;
  const [dX, dY, dW] = before[degree]!.map((v, k) => (degree * (v - before[degree - 1]![k]!)) / width) as [
    number,
    number,
    number,
  ];
  const [x, y] = [X / W, Y / W];
  return { x, y, dx: (dX - x * dW) / W, dy: (dY - y * dW) / W };
}

/** A smooth curve through points, where a spline is given by those alone: each end of a piece has the direction of its neighbours. */
export function throughPoints(points: readonly Point[], isClosed: boolean): Piece[] {
  const n = points.length;
  const count = isClosed ? n : n - 1;
  const point = (i: number): Point => (isClosed ? points[(i + n) % n]! : points[Math.min(n - 1, Math.max(0, i))]!);
  return Array.from({ length: Math.max(0, count) }, (_, i): Piece => {
    const [p, q, r, s] = [point(i - 1), point(i), point(i + 1), point(i + 2)];
    return {
      isLine: false,
      cubic: [
        q[0],
        q[1],
        q[0] + (r[0] - p[0]) / 6,
        q[1] + (r[1] - p[1]) / 6,
        r[0] - (s[0] - q[0]) / 6,
        r[1] - (s[1] - q[1]) / 6,
        r[0],
        r[1],
      ],
    };
  });
}
