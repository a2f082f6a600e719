// pieces.ts — one row of points to few curve pieces: corners rebuilt where two sides meet, lines kept lines, circles
// kept circles, the rest cubics that run as far as the tolerance lets them.
import { ringsAreApart } from '../outline/apart.ts';
import { ringArea } from '../outline/measure.ts';
import { ellipsePath } from '../path/arc.ts';
import {
  type Circle,
  type CubicFit,
  type CurveEnd,
  fitCircle,
  fitCubic,
  fitLine,
  intersection,
  type Line,
  parabolaStray,
  type Run,
  type Vec,
} from '../path/fit.ts';
import { distanceToSegment, flatten } from '../path/flatten.ts';
import type { Path, Segment } from '../path/types.ts';

export interface OutlineOptions {
  /** How far a curve may stray from the contour, px. */
  readonly smooth: number;
  /** Turns sharper than this are corners, radians. */
  readonly corner: number;
}

export interface TracedOutline {
  readonly path: Path;
  /** Lines and curves in it. */
  readonly pieces: number;
  /** Farthest that a point lies from it, corners left out, px. */
  readonly stray: number;
  /** Number of the point that each piece ends at, counted on past the last one; null for a circle, which has no ends. */
  readonly ends: readonly number[] | null;
}

/** Points on each side of a corner that are left out, because the pixel there holds both sides. */
const SKIP = 2;
/** Points on each side from which a corner's sides are taken. */
const SIDE = 5;
/** A corner's apex lies at most this far beyond the contour for a right angle; small arcs stay further away. */
const APEX_GAP = 0.55;
/**
 * What a kink leaves of itself beside the best parabola, as a share of (half the window) · tan(turn / 2): 3/16 for two
 * straight sides, less the rounding by a pixel.
 */
const KINK = 0.11;
/** The sharpest tips are rebuilt this much further out. */
const LEAST_COSINE = 0.12;
/** The fewest points of a line. */
const LINE_POINTS = 7;

/**
 * The outline of a closed row, which does not cross itself as long as the row does not.
 * @param points flat x, y, about one a pixel, closed without a repeated point
 */
export function traceOutline(points: Float64Array, options: OutlineOptions): TracedOutline {
  const row = new Row(points, true);
  if (row.count < 8) return polygon(row);
  // Both sides of a thin tip may be drawn over each other, most often by a corner that is rebuilt too far out, and noise may
  // tie a curve in a small loop.
  const { corner, smooth } = options;
  for (const attempt of [
    options,
    { corner: Math.max(corner, BLUNT), smooth },
    { corner, smooth: 2 * smooth },
    { corner: Math.PI, smooth: 2 * smooth },
  ]) {
    const outline = fittedOutline(row, points, attempt);
    if (isSimple(outline.path)) return outline;
  }
  return polygon(row);
}

/** A whole circle that no point of a closed row strays from by more than `most` px; null where there is none. */
export function circleThrough(points: Float64Array, most: number): TracedOutline | null {
  const { all } = new Row(points, false);
  const circle = fitCircle(all, 0, all.xs.length - 1);
  return circle.stray <= most ? wholeCircle(circle, ringArea(points) > 0) : null;
}

/** Only corners over this turn are left when outlines have crossed themselves, radians. */
const BLUNT = 1.2;
/** Parts of an outline this near to each other touch, px. */
const TOUCHING = 0.01;

function isSimple(path: Path): boolean {
  const rings = flatten(path, 0.05).map((ring) => spaced(ring, 2 * TOUCHING));
  return rings.length > 0 && rings.every(({ length }) => length >= 6) && ringsAreApart(rings, TOUCHING);
}

/** A ring without points that lie nearer to the one before. */
function spaced(ring: Float64Array, gap: number): Float64Array {
  const kept: number[] = [];
  const isApart = (x: number, y: number, i: number) => Math.hypot(x - kept[i]!, y - kept[i + 1]!) > gap;
  for (let i = 0; i < ring.length; i += 2) {
    const [x, y] = [ring[i]!, ring[i + 1]!];
    if (kept.length === 0 || isApart(x, y, kept.length - 2)) kept.push(x, y);
  }
  while (kept.length > 2 && !isApart(kept.at(-2)!, kept.at(-1)!, 0)) kept.length -= 2;
  return Float64Array.from(kept);
}

function fittedOutline(row: Row, points: Float64Array, options: OutlineOptions): TracedOutline {
  const corners = findCorners(row, options);
  return (
    (corners.length === 0 && circleThrough(points, options.smooth)) ||
    joined(row, anchorsOf(row, corners, options), options)
  );
}

/**
 * The same for a row with two ends, which stay where they are.
 * @returns an open path; its pieces are in the order of the points
 */
export function traceStroke(points: Float64Array, options: OutlineOptions): TracedOutline {
  const row = new Row(points, false);
  if (row.count < 4) return polygon(row);
  return joined(row, anchorsOf(row, findCorners(row, options), options), options);
}

/**
 * A row of points. A closed one is kept four times, the first of them before point 0, so that every run is in one piece;
 * an open one goes no further than its ends.
 */
class Row {
  readonly count: number;
  readonly isClosed: boolean;
  readonly all: Run;
  /** Number of point 0 in `all`. */
  readonly zero: number;

  constructor(points: Float64Array, isClosed: boolean) {
    this.count = points.length / 2;
    this.isClosed = isClosed;
    this.zero = isClosed ? this.count : 0;
    const length = (isClosed ? 4 : 1) * this.count;
    const [xs, ys] = [new Float64Array(length), new Float64Array(length)];
    for (let i = 0, k = 0; i < length; i++) {
      xs[i] = points[k++]!;
      ys[i] = points[k++]!;
      if (k === points.length) k = 0;
    }
    this.all = { xs, ys };
  }

  /** Distance of a place from the row around point i. */
  distanceFrom({ x, y }: Vec, i: number): number {
    let nearest = Infinity;
    for (let k = i - 2; k < i + 2; k++) {
      const [a, b] = [this.at(k), this.at(k + 1)];
      nearest = Math.min(nearest, distanceToSegment(x, y, a.x, a.y, b.x, b.y));
    }
    return nearest;
  }

  at(i: number): Vec {
    const k = this.within(i);
    return { x: this.all.xs[k]!, y: this.all.ys[k]! };
  }

  private within(i: number): number {
    if (this.isClosed) return ((i % this.count) + this.count) % this.count;
    return Math.min(this.count - 1, Math.max(0, i));
  }
}

interface Corner {
  readonly index: number;
  readonly apex: Vec;
}

/** Places where two straight sides meet in a point that the contour comes close to. */
function findCorners(row: Row, { corner, smooth }: OutlineOptions): Corner[] {
  const reach = Math.min(SIDE, Math.floor((row.count - 1) / 2) - SKIP);
  if (reach < 2) return [];
  const found: Corner[] = [];
  const [enough, span] = [Math.cos(SUSPICION * corner), reach + SKIP];
  const [first, last] = row.isClosed ? [0, row.count - 1] : [span, row.count - 1 - span];
  for (let i = first; i <= last; i++) {
    const [from, to] = [i + row.zero - span, i + row.zero + span];
    if (straightness(row.all, from, to) > enough || isBow(row.all, from, to)) continue;
    const before = fitLine(row.all, from, from + reach);
    const behind = fitLine(row.all, to - reach, to);
    const turn = Math.acos(
      Math.min(1, Math.max(-1, before.along.x * behind.along.x + before.along.y * behind.along.y)),
    );
    // Arcs turn as well, but a parabola follows them round, and nearly so where a line runs into one.
    const least = Math.max(smooth, KINK * (reach + SKIP) * Math.tan(turn / 2));
    if (turn < corner || parabolaStray(row.all, from, to) < least) continue;
    const apex = intersection(before, behind);
    if (!apex) continue;
    const gap = row.distanceFrom(apex, i);
    if (gap > APEX_GAP / Math.max(LEAST_COSINE, Math.cos(turn / 2))) continue;
    found.push({ index: i, apex });
  }
  // Of neighbours that see the same corner, the one nearest to its apex.
  return strongest(found, row);
}

/** The turn between the chords of both sides is less than that between the sides: from this share on it is looked into. */
const SUSPICION = 0.6;

/** Cosine of the angle between the chords from the run's middle to its ends. */
function straightness({ xs, ys }: Run, from: number, to: number): number {
  const middle = (from + to) >> 1;
  const [ux, uy] = [xs[middle]! - xs[from]!, ys[middle]! - ys[from]!];
  const [vx, vy] = [xs[to]! - xs[middle]!, ys[to]! - ys[middle]!];
  return (ux * vx + uy * vy) / Math.sqrt((ux * ux + uy * uy) * (vx * vx + vy * vy));
}

/**
 * Whether a run bends evenly: halfway to its middle a bow stands at three quarters of its height, a kink at half of it.
 * What lies between is looked into more closely.
 */
function isBow({ xs, ys }: Run, from: number, to: number): boolean {
  const [dx, dy] = [xs[to]! - xs[from]!, ys[to]! - ys[from]!];
  const height = (i: number) => Math.abs((xs[i]! - xs[from]!) * dy - (ys[i]! - ys[from]!) * dx);
  const quarter = (to - from) >> 2;
  return height(from + quarter) + height(to - quarter) > 2 * BOW * height((from + to) >> 1);
}

/** From this share on it is a bow, whatever the noise. */
const BOW = 0.7;

function strongest(found: readonly Corner[], row: Row): Corner[] {
  const gap = ({ index, apex }: Corner) => {
    const p = row.at(index);
    return Math.hypot(apex.x - p.x, apex.y - p.y);
  };
  const groups: Corner[][] = [];
  for (const corner of found) {
    const last = groups.at(-1)?.at(-1);
    if (last && corner.index - last.index <= SKIP) groups.at(-1)!.push(corner);
    else groups.push([corner]);
  }
  const [first, final] = [groups[0], groups.at(-1)];
  if (first && final && first !== final && first[0]!.index + row.count - final.at(-1)!.index <= SKIP) {
    groups.pop();
    first.unshift(...final);
  }
  return groups
    .map((group) => group.reduce((best, corner) => (gap(corner) < gap(best) ? corner : best)))
    .sort((a, b) => a.index - b.index);
}

/** A place on the outline where a piece may begin: a corner, or the end of a line. */
interface Anchor {
  /** Index of the contour's point. */
  readonly index: number;
  readonly at: Vec;
  readonly isCorner: boolean;
  /** The line that begins here. */
  readonly line: Line | null;
}

/** Splits the row at its corners, and every stretch between them into straight runs and the rest. */
function anchorsOf(row: Row, corners: readonly Corner[], options: OutlineOptions): Anchor[] {
  const anchors: Anchor[] = [];
  const stops = stopsOf(row, corners);
  const last = stops.length - 1;
  for (const [k, stop] of stops.entries()) {
    if (k === last && !row.isClosed) break;
    const next = stops[(k + 1) % stops.length]!;
    const end = next.index > stop.index ? next.index : next.index + row.count;
    const isCorner = stop.apex !== null;
    const margin = isCorner ? SKIP : 0;
    const lines = linesBetween(row, stop.index + margin, end - margin, options);
    const [head] = lines;
    const startsLine = isCorner && head && head.from - stop.index <= AT_CORNER ? head : null;
    anchors.push({ index: stop.index, at: stop.apex ?? row.at(stop.index), isCorner, line: startsLine?.line ?? null });
    for (const [l, { from, to, line }] of lines.entries()) {
      if (!(l === 0 && startsLine))
        anchors.push({ index: from, at: onLine(line, row.at(from)), isCorner: false, line });
      if (!isCorner || end - to > AT_CORNER)
        anchors.push({ index: to, at: onLine(line, row.at(to)), isCorner: false, line: null });
    }
  }
  if (!row.isClosed) anchors.push({ index: row.count - 1, at: row.at(row.count - 1), isCorner: true, line: null });
  return sharpened(anchors, row.isClosed);
}

/** Corners, and the ends of an open row; a smooth loop begins at its leftmost point, the same one every time. */
function stopsOf(row: Row, corners: readonly Corner[]): { index: number; apex: Vec | null }[] {
  if (!row.isClosed) {
    const end = row.count - 1;
    return [{ index: 0, apex: row.at(0) }, ...corners, { index: end, apex: row.at(end) }];
  }
  return corners.length > 0 ? [...corners] : [{ index: leftmost(row), apex: null }];
}

/** A line whose end is this near to a corner ends in it. */
const AT_CORNER = SKIP + 3;
/** Sides that are lines move a right-angled corner no further than this, a sharper one further. */
const SHARPENED = 1.75;

/** Corners between whole lines stand where those meet, which the few points beside a corner cannot tell as well. */
function sharpened(anchors: readonly Anchor[], isClosed: boolean): Anchor[] {
  return anchors.map((anchor, k) => {
    const before = k > 0 || isClosed ? anchors.at(k - 1)!.line : null;
    const behind = anchor.line;
    if (!anchor.isCorner || !(before || behind)) return anchor;
    const meeting = before && behind ? intersection(before, behind) : onLine((before ?? behind)!, anchor.at);
    const cosine = before && behind ? before.along.x * behind.along.x + before.along.y * behind.along.y : 0;
    const most = SHARPENED / Math.max(LEAST_COSINE, Math.sqrt(Math.max(0, (1 + cosine) / 2)));
    const isNear = meeting && Math.hypot(meeting.x - anchor.at.x, meeting.y - anchor.at.y) <= most;
    return isNear ? { ...anchor, at: meeting } : anchor;
  });
}

function leftmost(row: Row): number {
  let best = 0;
  for (let i = 1; i < row.count; i++) if (row.at(i).x < row.at(best).x) best = i;
  return best;
}

function onLine({ at, along }: Line, p: Vec): Vec {
  const t = (p.x - at.x) * along.x + (p.y - at.y) * along.y;
  return { x: at.x + t * along.x, y: at.y + t * along.y };
}

interface StraightRun {
  readonly from: number;
  readonly to: number;
  readonly line: Line;
}

/** Runs that are straight, and not just as straight as a piece of a curve within the tolerance is. */
function linesBetween(row: Row, first: number, last: number, { smooth }: OutlineOptions): StraightRun[] {
  const run: Run = row.all;
  const [start, end] = [first + row.zero, last + row.zero];
  const isStraight = (a: number, b: number): Line | null => {
    // The middle of a bend lies off the chord: most curves are told by that alone.
    const m = (a + b) >> 1;
    const [dx, dy] = [run.xs[b]! - run.xs[a]!, run.ys[b]! - run.ys[a]!];
    const off = (run.xs[m]! - run.xs[a]!) * dy - (run.ys[m]! - run.ys[a]!) * dx;
    if (off * off > 4 * smooth * smooth * (dx * dx + dy * dy)) return null;
    const line = fitLine(run, a, b);
    return line.stray <= smooth && line.sagitta <= 0.35 * smooth ? line : null;
  };
  const found: StraightRun[] = [];
  for (let a = start; a + LINE_POINTS - 1 <= end; ) {
    let b = a + LINE_POINTS - 1;
    if (!isStraight(a, b)) {
      a += 2;
      continue;
    }
    // Doubling, then halving.
    let step = LINE_POINTS;
    while (step >= 1) {
      if (b + step <= end && isStraight(a, b + step)) {
        b += step;
        step *= 2;
      } else step = Math.floor(step / 2);
    }
    // A stretch of a curve ends where bending passes the tolerance; what is straight goes on for longer than that.
    const length = Math.hypot(run.xs[b]! - run.xs[a]!, run.ys[b]! - run.ys[a]!);
    if (length >= LINE_POINTS - 1 && isLine(run, a, b, start, end, smooth)) {
      const straight = trimmed(run, a, b, 0.3 * smooth);
      found.push({ from: straight.from - row.zero, to: straight.to - row.zero, line: straight.line });
      a = b + 1;
    } else a += Math.max(1, Math.floor((b - a) / 4));
  }
  return found;
}

/**
 * A straight run without the beginnings of curves at its ends, which lie within the tolerance but would turn the curves'
 * first tangents away.
 */
function trimmed(run: Run, a: number, b: number, close: number): StraightRun {
  const inner = Math.min(6, Math.floor((b - a) / 6));
  const line = fitLine(run, a + inner, b - inner);
  const off = (i: number) =>
    Math.abs((run.ys[i]! - line.at.y) * line.along.x - (run.xs[i]! - line.at.x) * line.along.y);
  let [from, to] = [a, b];
  while (from < a + 2 * inner && off(from) > close) from++;
  while (to > b - 2 * inner && off(to) > close) to--;
  return { from, to, line };
}

/** What lies beyond a straight run is looked at over this share of its length, and this many points at least. */
const BEYOND = 0.5;
const LEAST_BEYOND = 4;

/**
 * Whether a straight run is a line, and not a stretch of a gentle curve: a curve goes on in the same bend, so that one
 * parabola follows the run and what lies on either side of it, as far as the row goes between two stops.
 */
function isLine(run: Run, a: number, b: number, start: number, end: number, smooth: number): boolean {
  const more = Math.max(LEAST_BEYOND, Math.round(BEYOND * (b - a)));
  const [from, to] = [Math.max(start, a - more), Math.min(end, b + more)];
  if (a - from < LEAST_BEYOND && to - b < LEAST_BEYOND) return true;
  return parabolaStray(run, from, to) > 0.5 * smooth;
}

function joined(row: Row, anchors: readonly Anchor[], options: OutlineOptions): TracedOutline {
  const [first] = anchors as [Anchor, ...Anchor[]];
  const path: Segment[] = [['M', first.at.x, first.at.y]];
  const ends: number[] = [];
  let stray = 0;
  for (const [k, anchor] of anchors.entries()) {
    if (k === anchors.length - 1 && !row.isClosed) break;
    const next = anchors[(k + 1) % anchors.length]!;
    const end = k + 1 < anchors.length ? next.index : next.index + row.count;
    if (anchor.line) {
      path.push(['L', next.at.x, next.at.y]);
      ends.push(end);
      stray = Math.max(stray, anchor.line.stray);
      continue;
    }
    const before = k > 0 || row.isClosed ? anchors.at(k - 1)! : null;
    const leave = anchor.isCorner ? null : (before?.line?.along ?? null);
    const arrive = next.isCorner ? null : (next.line?.along ?? null);
    stray = Math.max(stray, pushCurves(path, ends, row, anchor, { index: end, at: next.at }, leave, arrive, options));
  }
  const pieces = path.length - 1;
  return { path: row.isClosed ? [...path, ['Z']] : path, pieces, stray, ends };
}

/**
 * Cubics along the row from one place to another, each as long as the tolerance allows.
 * @returns how far the row strays from them
 */
function pushCurves(
  path: Segment[],
  ends: number[],
  row: Row,
  start: { index: number; at: Vec },
  end: { index: number; at: Vec },
  leave: Vec | null,
  arrive: Vec | null,
  { smooth }: OutlineOptions,
): number {
  let worst = 0;
  let from = start.index;
  let at = start.at;
  let tangent = leave ?? tangentAt(row, from, end.index, 1);
  const last: CurveEnd = { at: end.at, into: arrive ? negative(arrive) : tangentAt(row, end.index, from, -1) };
  for (let guard = 0; guard < 1000; guard++) {
    const whole = curve(row, { from, to: end.index, start: { at, into: tangent }, end: last, smooth });
    if (whole.stray <= smooth || end.index - from <= 3) {
      push(path, whole.points);
      ends.push(end.index);
      // The few points beside a corner hold both its sides, and say nothing about the curve.
      return end.index - from <= 3 ? worst : Math.max(worst, whole.stray);
    }
    // The stray of a cubic grows with about the fifth power of its length, which says where to look for the longest one.
    let [cut, tooFar, stray] = [from + 2, end.index, whole.stray];
    let piece: CubicFit | null = null;
    while (tooFar - cut > Math.max(1, CLOSE_ENOUGH * (cut - from))) {
      const guess = from + Math.round((tooFar - from) * (smooth / stray) ** 0.2);
      const next = Math.min(tooFar - 1, Math.max(cut + 1, (guess + ((cut + tooFar) >> 1)) >> 1));
      const shorter = upTo(row, next, { from, start: { at, into: tangent }, smooth });
      if (shorter.stray <= smooth) [cut, piece] = [next, shorter];
      else [tooFar, stray] = [next, shorter.stray];
    }
    // The rest shares the way evenly with this piece when two will do, which is what a hand would draw.
    const halfway = (from + end.index) >> 1;
    if (cut >= halfway && fits(row, { from: halfway, to: end.index, end: last, smooth }))
      [cut, piece] = [halfway, null];
    piece ??= upTo(row, cut, { from, start: { at, into: tangent }, smooth });
    push(path, piece.points);
    ends.push(cut);
    worst = Math.max(worst, piece.stray);
    [from, at, tangent] = [cut, row.at(cut), tangentAt(row, cut, cut, 0)];
  }
  return worst;
}

/** A piece is long enough when it is this share of its length short of the longest. */
const CLOSE_ENOUGH = 0.04;

interface CurveWishes {
  /** Points of the row at its ends; those between are followed. */
  readonly from: number;
  readonly to: number;
  readonly start: CurveEnd;
  readonly end: CurveEnd;
  readonly smooth: number;
}

/** The piece from a place to a point of the row, arriving in its direction there. */
function upTo(row: Row, to: number, wishes: Omit<CurveWishes, 'to' | 'end'>): CubicFit {
  return curve(row, { ...wishes, to, end: { at: row.at(to), into: negative(tangentAt(row, to, to, 0)) } });
}

/** Whether one curve will do from a point of the row, leaving in its direction there. */
function fits(row: Row, wishes: Omit<CurveWishes, 'start'>): boolean {
  const { from, smooth } = wishes;
  return curve(row, { ...wishes, start: { at: row.at(from), into: tangentAt(row, from, from, 0) } }).stray <= smooth;
}

function curve({ all, zero }: Row, { from, to, start, end, smooth }: CurveWishes): CubicFit {
  return fitCubic(all, { from: from + 1 + zero, to: to - 1 + zero, start, end, enough: smooth });
}

function push(path: Segment[], [, b, c, d]: readonly [Vec, Vec, Vec, Vec]): void {
  path.push(['C', b.x, b.y, c.x, c.y, d.x, d.y]);
}

const negative = ({ x, y }: Vec): Vec => ({ x: -x, y: -y });

/** Points on each side from which a tangent is taken. */
const TANGENT = 5;

/**
 * Unit tangent of the contour in its own direction at a point (`side` 0), or pointing along it away from an end (`side` 1
 * forward, −1 backward), by a parabola through its neighbours.
 */
function tangentAt(row: Row, index: number, limit: number, side: -1 | 0 | 1): Vec {
  const gap = side === 0 ? 0 : SKIP;
  const span = side === 0 ? TANGENT : Math.max(2, Math.min(2 * TANGENT, Math.abs(limit - index) - gap));
  const [from, to] =
    side === 0
      ? [index - span, index + span]
      : side > 0
        ? [index + gap, index + gap + span]
        : [index - gap - span, index - gap];
  const first = row.isClosed ? from : Math.max(0, from);
  const last = row.isClosed ? to : Math.min(row.count - 1, to);
  // x and y as parabolas in the point's number, derivative where the tangent is asked for.
  const where = index - (first + last) / 2;
  const x = parabolaSlope(row.all.xs, first + row.zero, last + row.zero, where);
  const y = parabolaSlope(row.all.ys, first + row.zero, last + row.zero, where);
  const length = Math.hypot(x, y) || 1;
  const sign = side === -1 ? -1 : 1;
  return { x: (sign * x) / length, y: (sign * y) / length };
}

/** Derivative at `where` (counted from the middle) of the least squares parabola through equally spaced values. */
function parabolaSlope(values: Float64Array, from: number, to: number, where: number): number {
  const n = to - from + 1;
  const middle = (n - 1) / 2;
  let [s2, s4, v0, v1, v2] = [0, 0, 0, 0, 0];
  for (let i = 0; i < n; i++) {
    const t = i - middle;
    const v = values[from + i]!;
    s2 += t * t;
    s4 += t * t * t * t;
    v0 += v;
    v1 += t * v;
    v2 += t * t * v;
  }
  const determinant = n * s4 - s2 * s2;
  const quadratic = determinant > 0 ? (n * v2 - s2 * v0) / determinant : 0;
  return s2 > 0 ? v1 / s2 + 2 * quadratic * where : 0;
}

function wholeCircle({ centre: { x, y }, radius, stray }: Circle, isForward: boolean): TracedOutline {
  const path = ellipsePath(x, y, radius, radius);
  return { path: isForward ? path : backward(path), pieces: path.length - 2, stray, ends: null };
}

/** The same closed path, walked the other way. */
function backward(path: Path): Path {
  const [start, ...rest] = path.slice(0, -1) as [Segment, ...Segment[]];
  const ends = [start, ...rest].map((segment) => [segment.at(-2), segment.at(-1)] as [number, number]);
  const reversed: Segment[] = [['M', ...ends.at(-1)!]];
  for (let i = rest.length - 1; i >= 0; i--) {
    const segment = rest[i]!;
    if (segment[0] === 'C') reversed.push(['C', segment[3], segment[4], segment[1], segment[2], ...ends[i]!]);
    else reversed.push(['L', ...ends[i]!]);
  }
  return [...reversed, ['Z']];
}

/** What is too short to fit anything to. */
function polygon(row: Row): TracedOutline {
  const start = row.at(0);
  const path: Segment[] = [['M', start.x, start.y]];
  const pieces = row.isClosed ? row.count : row.count - 1;
  const ends = Array.from({ length: pieces }, (_, i) => i + 1);
  for (const i of ends) {
    const { x, y } = row.at(i);
    path.push(['L', x, y]);
  }
  return { path: row.isClosed ? [...path, ['Z']] : path, pieces, stray: 0, ends };
}
