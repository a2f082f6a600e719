// cubic.ts — single curve pieces: evaluation, division, nearest places; and paths taken apart into them.
import type { Path, Segment } from './types.ts';

/** Start, two handles, end, flat. A line is a cubic with its handles at thirds. */
export type Cubic = readonly [
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  x3: number,
  y3: number,
];

export interface Piece {
  readonly isLine: boolean;
  readonly cubic: Cubic;
}

/** One contour of a path: pieces end to end; a closed one returns to where it starts. */
export interface Contour {
  readonly start: readonly [x: number, y: number];
  /** None for a single point. */
  readonly pieces: readonly Piece[];
  readonly isClosed: boolean;
}

export function lineCubic(x0: number, y0: number, x3: number, y3: number): Cubic {
  const third = (a: number, b: number) => a + (b - a) / 3;
  return [x0, y0, third(x0, x3), third(y0, y3), third(x3, x0), third(y3, y0), x3, y3];
}

export const linePiece = (x0: number, y0: number, x3: number, y3: number): Piece => ({
  isLine: true,
  cubic: lineCubic(x0, y0, x3, y3),
});

/** Whether a piece has both ends and handles in one place. */
export const isPoint = ({ cubic }: Piece): boolean => cubic.every((v, i) => v === cubic[(i % 2) as 0 | 1]);

/** One coordinate (0 for x, 1 for y) at parameter t. */
export function at(c: Cubic, axis: 0 | 1, t: number): number {
  const u = 1 - t;
  return u * u * u * c[axis] + 3 * u * u * t * c[axis + 2]! + 3 * u * t * t * c[axis + 4]! + t * t * t * c[axis + 6]!;
}

/** One coordinate of the derivative. */
export function slopeAt(c: Cubic, axis: 0 | 1, t: number): number {
  const u = 1 - t;
  const [p0, p1, p2, p3] = [c[axis], c[axis + 2]!, c[axis + 4]!, c[axis + 6]!];
  return 3 * (u * u * (p1 - p0) + 2 * u * t * (p2 - p1) + t * t * (p3 - p2));
}

/** One coordinate of the second derivative. */
export function bendAt(c: Cubic, axis: 0 | 1, t: number): number {
  const [p0, p1, p2, p3] = [c[axis], c[axis + 2]!, c[axis + 4]!, c[axis + 6]!];
  return 6 * ((1 - t) * (p2 - 2 * p1 + p0) + t * (p3 - 2 * p2 + p1));
}

/** Unit direction at t; where the curve stands still, that of the nearest place where it moves; null for a point. */
export function directionAt(c: Cubic, t: number): readonly [number, number] | null {
  const size = Math.max(...c.map((v, i) => Math.abs(v - c[(i % 2) as 0 | 1])));
  for (const ahead of [0, 1e-5, 1e-3, 0.03]) {
    const place = t < 0.5 ? t + ahead : t - ahead;
    const [dx, dy] = [slopeAt(c, 0, place), slopeAt(c, 1, place)];
    const speed = Math.hypot(dx, dy);
    if (speed > 1e-9 * size) return [dx / speed, dy / speed];
  }
  return null;
}

/** Signed, positive for a turn to the left (y up). */
export function curvatureAt(c: Cubic, t: number): number {
  const [dx, dy] = [slopeAt(c, 0, t), slopeAt(c, 1, t)];
  const speed = Math.hypot(dx, dy);
  return speed > 0 ? (dx * bendAt(c, 1, t) - dy * bendAt(c, 0, t)) / speed ** 3 : 0;
}

/** De Casteljau. */
export function splitCubic(c: Cubic, t: number): [Cubic, Cubic] {
  const mix = (a: number, b: number) => a + t * (b - a);
  const axis = (k: 0 | 1) => {
    const [p0, p1, p2, p3] = [c[k], c[k + 2]!, c[k + 4]!, c[k + 6]!];
    const [a, b, d] = [mix(p0, p1), mix(p1, p2), mix(p2, p3)];
    const [e, f] = [mix(a, b), mix(b, d)];
    return { a, e, m: mix(e, f), f, d };
  };
  const [x, y] = [axis(0), axis(1)];
  return [
    [c[0], c[1], x.a, y.a, x.e, y.e, x.m, y.m],
    [x.m, y.m, x.f, y.f, x.d, y.d, c[6], c[7]],
  ];
}

export const reverseCubic = ([x0, y0, x1, y1, x2, y2, x3, y3]: Cubic): Cubic => [x3, y3, x2, y2, x1, y1, x0, y0];

/** From parameter t0 to t1; backwards where t1 < t0. */
export function cutCubic(c: Cubic, t0: number, t1: number): Cubic {
  if (t1 < t0) return reverseCubic(cutCubic(c, t1, t0));
  const head = t1 < 1 ? splitCubic(c, t1)[0] : c;
  return t0 > 0 ? splitCubic(head, t0 / t1)[1] : head;
}

/** Newton's steps from a guess to the nearest place at most. */
const NEWTON_ROUNDS = 8;

/** The parameter of the place nearest to (x, y) that lies about `guess`. */
export function nearestParameter(c: Cubic, x: number, y: number, guess: number): number {
  let t = guess;
  for (let round = 0; round < NEWTON_ROUNDS; round++) {
    const [ex, ey] = [at(c, 0, t) - x, at(c, 1, t) - y];
    const [dx, dy] = [slopeAt(c, 0, t), slopeAt(c, 1, t)];
    const slope = dx * dx + dy * dy + ex * bendAt(c, 0, t) + ey * bendAt(c, 1, t);
    if (!(slope > 0)) return t;
    const next = Math.min(1, Math.max(0, t - (ex * dx + ey * dy) / slope));
    if (Math.abs(next - t) < 1e-15) return next;
    t = next;
  }
  return t;
}

/** The contours of a path. A closed one whose end is not its start gets the closing line. */
export function contoursOf(path: Path): Contour[] {
  const contours: Contour[] = [];
  let pieces: Piece[] = [];
  let start: readonly [number, number] = [0, 0];
  let [x, y] = start;
  let isOpen = false;
  const finish = (isClosed: boolean) => {
    if (!isOpen) return;
    const isApart = isClosed && (x !== start[0] || y !== start[1]);
    contours.push({ start, pieces: isApart ? [...pieces, linePiece(x, y, ...start)] : pieces, isClosed });
    isOpen = false;
  };
  for (const s of path) {
    if (s[0] === 'Z') {
      finish(true);
      [x, y] = start;
      continue;
    }
    const [endX, endY] = [s.at(-2) as number, s.at(-1) as number];
    if (s[0] === 'M') {
      finish(false);
      start = [endX, endY];
      pieces = [];
      isOpen = true;
    } else if (s[0] === 'L') pieces.push(linePiece(x, y, endX, endY));
    else pieces.push({ isLine: false, cubic: [x, y, s[1], s[2], s[3], s[4], s[5], s[6]] });
    [x, y] = [endX, endY];
  }
  finish(false);
  return contours;
}

/** The path of contours; a last line that only closes is left to `Z`. */
export function pathOf(contours: readonly Contour[]): Path {
  return contours.flatMap(({ start, pieces, isClosed }): Segment[] => {
    const last = pieces.at(-1);
    const drawn = isClosed && last?.isLine && pieces.length > 1 ? pieces.slice(0, -1) : pieces;
    return [['M', ...start], ...drawn.map(segmentOf), ...(isClosed ? [['Z'] as const] : [])];
  });
}

function segmentOf({ isLine, cubic: [, , x1, y1, x2, y2, x3, y3] }: Piece): Segment {
  return isLine ? ['L', x3, y3] : ['C', x1, y1, x2, y2, x3, y3];
}

export function reverseContour({ start, pieces, isClosed }: Contour): Contour {
  const last = pieces.at(-1)?.cubic;
  return {
    start: last ? [last[6], last[7]] : start,
    pieces: pieces.map(({ isLine, cubic }) => ({ isLine, cubic: reverseCubic(cubic) })).reverse(),
    isClosed,
  };
}
