// pieces.ts — one row of points to few curve pieces: corners rebuilt where two sides meet, lines kept lines, circles
// kept circles, the rest cubics that run as far as the tolerance lets them.
import { eachNearPair, nearPlaces, placeOf, segmentsOf } from '../outline/apart.ts';
import { ringArea } from '../outline/measure.ts';
import { ellipsePath } from '../path/arc.ts';
import {
  type Circle,
  type CubicFit,
  type CurveEnd,
  fitCircle,
  fitCubic,
  intersection,
  type Line,
  type Vec,
} from '../path/fit.ts';
import { flatten } from '../path/flatten.ts';
import type { Path, Segment } from '../path/types.ts';
import { type Corner, findCorners, LEAST_COSINE, SKIP } from './corners.ts';
import { Row, type Smooth } from './row.ts';
import { straightsBetween } from './straights.ts';

export interface OutlineOptions {
  /** How far a curve may stray from the contour, px. */
  readonly smooth: Smooth;
  /** 1 for points that are followed one by one; none where it is left out. */
  readonly isRaw?: Uint8Array;
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

/**
 * The outline of a closed row, which does not cross itself as long as the row does not.
 * @param points flat x, y, about one a pixel, closed without a repeated point
 */
export function traceOutline(points: Float64Array, options: OutlineOptions): TracedOutline {
  const outline = simpleOutline(points, options);
  if (outline) return outline;
  const untied = withoutLoops(points);
  return (untied && simpleOutline(untied, options)) || polygon(new Row(points, true, options.smooth));
}

/** Null where it cannot be drawn without crossing itself. */
function simpleOutline(points: Float64Array, { smooth, corner, isRaw: held }: OutlineOptions): TracedOutline | null {
  const row = new Row(points, true, smooth);
  if (row.count < 8) return null;
  const corners = findCorners(row, corner);
  const circle =
    corners.length === 0 &&
    !held?.includes(1) &&
    wholeCircle(fitCircle(row.all, 0, row.count - 1), ringArea(points) > 0);
  if (circle) return circle;
  // Both sides of a thin tip may be drawn over each other, most often by a corner that is rebuilt too far out, and noise may
  // tie a curve in a small loop. There the row is followed point by point.
  const isRaw = held?.slice() ?? new Uint8Array(row.count);
  for (const reach of REACHES) {
    const outline = joined(row, anchorsOf(row, corners, isRaw));
    const tangles = tanglesOf(outline.path);
    if (tangles?.length === 0) return outline;
    if (tangles === null || !marked(isRaw, points, tangles, reach)) break;
  }
  return null;
}

/** Loops of no more points than this, and no larger a share of the row, are drawn together. */
const [LOOP, LOOP_SHARE] = [32, 0.2];

/**
 * The row with its small loops drawn together to where they cross: both edges of a tip that is thinner than a pixel are
 * placed by pixels that hold them both. Null for a row without any.
 */
function withoutLoops(points: Float64Array): Float64Array | null {
  const count = points.length / 2;
  const loops: { first: number; length: number; at: readonly [x: number, y: number] }[] = [];
  eachNearPair(segmentsOf([points]), TOUCHING, (p, q, i, j) => {
    const isInner = j - i <= count - (j - i);
    const [first, length] = isInner ? [i + 1, j - i] : [j + 1, count - (j - i)];
    if (length <= Math.min(LOOP, LOOP_SHARE * count)) loops.push({ first, length, at: placeOf(p, q, TOUCHING) });
    return true;
  });
  if (loops.length === 0) return null;
  const untied = points.slice();
  // Larger loops last, so that what lies within them goes where they cross.
  for (const { first, length, at } of loops.sort((a, b) => a.length - b.length)) {
    for (let k = first; k < first + length; k++) untied.set(at, 2 * (k % count));
  }
  return untied;
}

/** How far around a tangle a row is followed point by point, px: further where that does not help. */
const REACHES = [3, 6, 12, 24, 48] as const;

/** Marks the points near to tangles. @returns whether any was not marked yet */
function marked(isRaw: Uint8Array, points: Float64Array, tangles: readonly number[], reach: number): boolean {
  let isNew = false;
  for (let i = 0; i < isRaw.length; i++) {
    for (let k = 0; k < tangles.length && !isRaw[i]; k += 2) {
      if (Math.hypot(points[2 * i]! - tangles[k]!, points[2 * i + 1]! - tangles[k + 1]!) > reach) continue;
      isRaw[i] = 1;
      isNew = true;
    }
  }
  return isNew;
}

/** A whole circle that no point of a closed row strays from by more than `most` px; null where there is none. */
export function circleThrough(points: Float64Array, most: number): TracedOutline | null {
  const { all, count } = new Row(points, false, most);
  return wholeCircle(fitCircle(all, 0, count - 1), ringArea(points) > 0);
}

/** Parts of an outline this near to each other touch, px. */
const TOUCHING = 0.01;

/** A line to a point of the row, unless the path is there already. */
function pushPoint(path: Segment[], ends: number[], { x, y }: Vec, index: number): void {
  const last = path.at(-1)!;
  if (ends.length > 0 && last.at(-2) === x && last.at(-1) === y) ends[ends.length - 1] = index;
  else {
    path.push(['L', x, y]);
    ends.push(index);
  }
}

/** Places where a path crosses or touches itself, flat x, y; null for one that has hardly any extent. */
function tanglesOf(path: Path): number[] | null {
  const rings = flatten(path, 0.05).map((ring) => spaced(ring, 2 * TOUCHING));
  return rings.length > 0 && rings.every(({ length }) => length >= 6) ? nearPlaces(rings, TOUCHING) : null;
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

/**
 * The same for a row with two ends, which stay where they are.
 * @returns an open path; its pieces are in the order of the points
 */
export function traceStroke(
  points: Float64Array,
  { smooth, corner, isRaw = new Uint8Array(points.length / 2) }: OutlineOptions,
): TracedOutline {
  const row = new Row(points, false, smooth);
  if (row.count < 4) return polygon(row);
  return joined(row, anchorsOf(row, findCorners(row, corner), isRaw));
}

/** A place on the outline where a piece may begin: a corner, or the end of a line. */
interface Anchor {
  /** Index of the contour's point. */
  readonly index: number;
  readonly at: Vec;
  readonly isCorner: boolean;
  /** The line that begins here. */
  readonly line: Line | null;
  /** Whether the row is followed point by point from here on. */
  readonly isRaw: boolean;
}

/** Splits the row at its corners, and every stretch between them into straight runs and the rest. */
function anchorsOf(row: Row, corners: readonly Corner[], isRaw: Uint8Array): Anchor[] {
  const anchors: Anchor[] = [];
  const push = (index: number, at: Vec, more: Partial<Anchor> = {}) =>
    anchors.push({ index, at, isCorner: false, line: null, isRaw: false, ...more });
  const stops = stopsOf(row, corners, isRaw);
  const last = stops.length - 1;
  for (const [k, stop] of stops.entries()) {
    if (k === last && !row.isClosed) break;
    const next = stops[(k + 1) % stops.length]!;
    const end = next.index > stop.index ? next.index : next.index + row.count;
    if (stop.isRaw) {
      push(stop.index, row.at(stop.index), { isRaw: true });
      continue;
    }
    const [startsInCorner, endsInCorner] = [stop.apex !== null, next.apex !== null];
    const lines = straightsBetween(row, stop.index + (startsInCorner ? SKIP : 0), end - (endsInCorner ? SKIP : 0));
    const [head] = lines;
    const startsLine =
      head && stop.apex && head.from - stop.index <= AT_CORNER && passes(head.line, stop.apex) ? head : null;
    push(stop.index, stop.apex ?? row.at(stop.index), { isCorner: startsInCorner, line: startsLine?.line ?? null });
    for (const { from, to, line } of lines) {
      if (line !== startsLine?.line) push(from, onLine(line, row.at(from)), { line });
      const endsLine = next.apex !== null && end - to <= AT_CORNER && passes(line, next.apex);
      if (!endsLine) push(to, onLine(line, row.at(to)));
    }
  }
  if (!row.isClosed) push(row.count - 1, row.at(row.count - 1), { isCorner: true });
  return sharpened(anchors, row.isClosed);
}

interface Stop {
  readonly index: number;
  /** Of a corner, or the end of an open row. */
  readonly apex: Vec | null;
  /** Whether the row is followed point by point to the next stop. */
  readonly isRaw: boolean;
}

/**
 * Corners, both ends of what is followed point by point, and the ends of an open row; a smooth loop begins at its leftmost
 * point, the same one every time.
 */
function stopsOf(row: Row, corners: readonly Corner[], isRaw: Uint8Array): Stop[] {
  const near = (i: number) => isRaw[(i + row.count) % row.count]!;
  const isClear = ({ index }: Corner) => !near(index - 1) && !near(index) && !near(index + 1);
  const kept = corners.filter(isClear).map((corner): Stop => ({ ...corner, isRaw: false }));
  for (let i = row.isClosed ? 0 : 1; i < row.count - (row.isClosed ? 0 : 1); i++) {
    if (isRaw[i] !== near(i - 1)) kept.push({ index: i, apex: null, isRaw: isRaw[i] === 1 });
  }
  if (!row.isClosed) {
    const stop = (index: number): Stop => ({ index, apex: row.at(index), isRaw: isRaw[index] === 1 });
    return [stop(0), ...kept.sort((a, b) => a.index - b.index), stop(row.count - 1)];
  }
  if (kept.length === 0) return [{ index: leftmost(row), apex: null, isRaw: isRaw[0] === 1 }];
  return kept.sort((a, b) => a.index - b.index);
}

/** A line whose end is this near to a corner ends in it. */
const AT_CORNER = SKIP + 3;
/** Sides that are lines move a right-angled corner no further than this, a sharper one further. */
const SHARPENED = 1.75;

/** Corners this near to each other, px, are one that was seen from both its sides. */
const ONE_CORNER = 1;

/** Corners between whole lines stand where those meet, which the few points beside a corner cannot tell as well. */
function sharpened(anchors: readonly Anchor[], isClosed: boolean): Anchor[] {
  const moved = anchors.map((anchor, k) => {
    const before = k > 0 || isClosed ? anchors.at(k - 1)!.line : null;
    const behind = anchor.line;
    if (!anchor.isCorner || !(before || behind)) return anchor;
    const meeting = before && behind ? intersection(before, behind) : onLine((before ?? behind)!, anchor.at);
    const cosine = before && behind ? before.along.x * behind.along.x + before.along.y * behind.along.y : 0;
    const most = SHARPENED / Math.max(LEAST_COSINE, Math.sqrt(Math.max(0, (1 + cosine) / 2)));
    const isNear = meeting && Math.hypot(meeting.x - anchor.at.x, meeting.y - anchor.at.y) <= most;
    return isNear ? { ...anchor, at: meeting } : anchor;
  });
  const last = moved.length - 1;
  const kept = moved.filter((anchor, k) => {
    // Both ends of an open row stay.
    if (!isClosed && (k === 0 || k + 1 >= last)) return true;
    const next = moved[(k + 1) % moved.length]!;
    if (!anchor.isCorner || !next.isCorner || anchor.line) return true;
    return Math.hypot(next.at.x - anchor.at.x, next.at.y - anchor.at.y) >= ONE_CORNER;
  });
  return kept.length > 1 ? kept : moved;
}

/** Whether a line that ends near a corner runs into it, and does not turn off on the way. */
function passes(line: Line, apex: Vec): boolean {
  const foot = onLine(line, apex);
  return Math.hypot(foot.x - apex.x, foot.y - apex.y) <= SHARPENED;
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

function joined(row: Row, anchors: readonly Anchor[]): TracedOutline {
  const [first] = anchors as [Anchor, ...Anchor[]];
  const path: Segment[] = [['M', first.at.x, first.at.y]];
  const ends: number[] = [];
  let stray = 0;
  for (const [k, anchor] of anchors.entries()) {
    if (k === anchors.length - 1 && !row.isClosed) break;
    const next = anchors[(k + 1) % anchors.length]!;
    const end = k + 1 < anchors.length ? next.index : next.index + row.count;
    if (anchor.isRaw) {
      for (let i = anchor.index + 1; i < end; i++) {
        pushPoint(path, ends, row.at(i), i);
      }
    }
    if (anchor.line || anchor.isRaw) {
      path.push(['L', next.at.x, next.at.y]);
      ends.push(end);
      stray = Math.max(stray, anchor.line?.stray ?? 0);
      continue;
    }
    const before = k > 0 || row.isClosed ? anchors.at(k - 1)! : null;
    const leave = anchor.isCorner ? null : (before?.line?.along ?? null);
    const arrive = next.isCorner ? null : (next.line?.along ?? null);
    stray = Math.max(stray, pushCurves(path, ends, row, anchor, { index: end, at: next.at }, leave, arrive));
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
): number {
  let worst = 0;
  let from = start.index;
  let at = start.at;
  let tangent = leave ?? tangentAt(row, from, end.index, 1);
  const last: CurveEnd = { at: end.at, into: arrive ? negative(arrive) : tangentAt(row, end.index, from, -1) };
  for (let guard = 0; guard < 1000; guard++) {
    const whole = curve(row, { from, to: end.index, start: { at, into: tangent }, end: last });
    if (whole.strain <= 1 || end.index - from <= 3) {
      push(path, whole.points);
      ends.push(end.index);
      // The few points beside a corner hold both its sides, and say nothing about the curve.
      return end.index - from <= 3 ? worst : Math.max(worst, whole.stray);
    }
    // The strain of a cubic grows with about the fifth power of its length, which says where to look for the longest one.
    let [cut, tooFar, strain] = [from + 2, end.index, whole.strain];
    let piece: CubicFit | null = null;
    while (tooFar - cut > Math.max(1, CLOSE_ENOUGH * (cut - from))) {
      const guess = from + Math.round((tooFar - from) * strain ** -0.2);
      const next = Math.min(tooFar - 1, Math.max(cut + 1, (guess + ((cut + tooFar) >> 1)) >> 1));
      const shorter = upTo(row, next, { from, start: { at, into: tangent } });
      if (shorter.strain <= 1) [cut, piece] = [next, shorter];
      else [tooFar, strain] = [next, shorter.strain];
    }
    // The rest shares the way evenly with this piece when two will do, which is what a hand would draw.
    const halfway = (from + end.index) >> 1;
    if (cut >= halfway && fits(row, { from: halfway, to: end.index, end: last })) [cut, piece] = [halfway, null];
    piece ??= upTo(row, cut, { from, start: { at, into: tangent } });
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
}

/** The piece from a place to a point of the row, arriving in its direction there. */
function upTo(row: Row, to: number, wishes: Omit<CurveWishes, 'to' | 'end'>): CubicFit {
  return curve(row, { ...wishes, to, end: { at: row.at(to), into: negative(tangentAt(row, to, to, 0)) } });
}

/** Whether one curve will do from a point of the row, leaving in its direction there. */
function fits(row: Row, wishes: Omit<CurveWishes, 'start'>): boolean {
  const { from } = wishes;
  return curve(row, { ...wishes, start: { at: row.at(from), into: tangentAt(row, from, from, 0) } }).strain <= 1;
}

function curve({ all, zero }: Row, { from, to, start, end }: CurveWishes): CubicFit {
  return fitCubic(all, { from: from + 1 + zero, to: to - 1 + zero, start, end, enough: 1 });
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

/** Null where points stray too far from it. */
function wholeCircle({ centre: { x, y }, radius, stray, strain }: Circle, isForward: boolean): TracedOutline | null {
  if (strain > 1) return null;
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
