// points.ts — a path as points with handles, and what a hand does to them: moved, inserted, deleted, made smooth or corners,
// pieces straightened, lines closed. Every function returns a new line and touches only what it is asked to.
import {
  at,
  type Contour,
  type Cubic,
  contoursOf,
  directionAt,
  nearestParameter,
  type Piece,
  pathOf,
  splitCubic,
} from './cubic.ts';
import { fitCubic } from './fit.ts';
import type { Path } from './types.ts';

export type Spot = readonly [x: number, y: number];

export interface PathPoint {
  readonly at: Spot;
  /** Handle towards the point before, and the one after; null where the piece there is straight. */
  readonly into: Spot | null;
  readonly out: Spot | null;
}

export interface PathLine {
  readonly points: readonly PathPoint[];
  readonly isClosed: boolean;
}

export const linesOf = (path: Path): PathLine[] => contoursOf(path).map(lineOf);

function lineOf({ start, pieces, isClosed }: Contour): PathLine {
  const points: { at: Spot; into: Spot | null; out: Spot | null }[] = [{ at: start, into: null, out: null }];
  for (const { isLine, cubic: c } of pieces) {
    points.at(-1)!.out = isLine ? null : [c[2], c[3]];
    points.push({ at: [c[6], c[7]], into: isLine ? null : [c[4], c[5]], out: null });
  }
  if (!isClosed || points.length < 2) return { points, isClosed };
  // The last point of a closed line is its first again.
  const last = points.pop()!;
  points[0]!.into = last.into;
  return { points, isClosed };
}

export function pathOfLines(lines: readonly PathLine[]): Path {
  return pathOf(
    lines.flatMap((line): Contour[] => {
      const [first] = line.points;
      return first ? [{ start: first.at, pieces: piecesOf(line), isClosed: line.isClosed }] : [];
    }),
  );
}

/** Piece i runs from point i to the next; a closed line of one point has none. */
export function piecesOf(line: PathLine): Piece[] {
  const { points } = line;
  return Array.from({ length: pieceCount(line) }, (_, i) => pieceBetween(points[i]!, points[(i + 1) % points.length]!));
}

const pieceCount = ({ points, isClosed }: PathLine): number =>
  Math.max(0, isClosed && points.length > 1 ? points.length : points.length - 1);

/** The pieces that begin or end at some points of a line: what a drag of them changes. */
export function changedAt(line: PathLine, which: ReadonlySet<number>): Path {
  const { length } = line.points;
  const pieces = new Set([...which].flatMap((i) => [(i + length - 1) % length, i]));
  const count = pieceCount(line);
  return pathOfChosen(
    line,
    [...pieces].filter((piece) => piece < count).sort((a, b) => a - b),
  );
}

/** All other pieces: what stays as it is. */
export function restAt(line: PathLine, which: ReadonlySet<number>): Path {
  const pieces = Array.from({ length: pieceCount(line) }, (_, i) => i);
  return pathOfChosen(
    line,
    pieces.filter((i) => !which.has(i) && !which.has((i + 1) % line.points.length)),
  );
}

/** Pieces by their numbers, in order; those in a row are one open line. */
function pathOfChosen(line: PathLine, numbers: readonly number[]): Path {
  const runs: { start: Spot; pieces: Piece[]; last: number }[] = [];
  for (const i of numbers) {
    const piece = pieceBetween(line.points[i]!, line.points[(i + 1) % line.points.length]!);
    const run = runs.at(-1);
    if (run && run.last === i - 1) {
      run.pieces.push(piece);
      run.last = i;
    } else runs.push({ start: line.points[i]!.at, pieces: [piece], last: i });
  }
  return pathOf(runs.map(({ start, pieces }): Contour => ({ start, pieces, isClosed: false })));
}

function pieceBetween(from: PathPoint, to: PathPoint): Piece {
  const [a, b] = [from.out, to.into];
  const third = (p: Spot, q: Spot): Spot => [p[0] + (q[0] - p[0]) / 3, p[1] + (q[1] - p[1]) / 3];
  // A handle on one side alone still bends the piece.
  const [h, k] = [a ?? (b ? from.at : third(from.at, to.at)), b ?? (a ? to.at : third(to.at, from.at))];
  return { isLine: !a && !b, cubic: [...from.at, ...h, ...k, ...to.at] };
}

// --- moving ---------------------------------------------------------------------------------------------------------

const moved = (spot: Spot | null, dx: number, dy: number): Spot | null => spot && [spot[0] + dx, spot[1] + dy];

/** Points with their handles. */
export function movePoints(line: PathLine, which: ReadonlySet<number>, dx: number, dy: number): PathLine {
  return changed(line, which, ({ at: place, into, out }) => ({
    at: moved(place, dx, dy)!,
    into: moved(into, dx, dy),
    out: moved(out, dx, dy),
  }));
}

/** How the other handle follows: it turns along, it becomes the mirror image, it stays. */
export type HandleMode = 'together' | 'mirrored' | 'alone';

export function moveHandle(line: PathLine, index: number, side: 'into' | 'out', to: Spot, mode: HandleMode): PathLine {
  const other = side === 'into' ? 'out' : 'into';
  return changed(line, new Set([index]), (point) => {
    const opposite = point[other];
    if (mode === 'alone' || !opposite) return { ...point, [side]: to };
    const [dx, dy] = [point.at[0] - to[0], point.at[1] - to[1]];
    const length = Math.hypot(dx, dy);
    if (!(length > 0)) return { ...point, [side]: to };
    const reach = mode === 'mirrored' ? length : Math.hypot(opposite[0] - point.at[0], opposite[1] - point.at[1]);
    return {
      ...point,
      [side]: to,
      [other]: [point.at[0] + (dx / length) * reach, point.at[1] + (dy / length) * reach],
    };
  });
}

/** Handles are in one line from this angle on, in radians. */
const SMOOTH = 0.01;

/** Whether the curve runs through a point without a corner, its handles in one line. */
export function isSmooth({ at: [x, y], into, out }: PathPoint): boolean {
  if (!into || !out) return false;
  const [ax, ay, bx, by] = [x - into[0], y - into[1], out[0] - x, out[1] - y];
  return Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by)) < SMOOTH;
}

// --- points in and out ----------------------------------------------------------------------------------------------

/** A point on a piece at parameter t; the curve stays what it was. */
export function insertPoint(line: PathLine, piece: number, t: number): PathLine {
  const next = (piece + 1) % line.points.length;
  const { isLine, cubic } = pieceBetween(line.points[piece]!, line.points[next]!);
  const [head, tail] = splitCubic(cubic, t);
  const middle: PathPoint = isLine
    ? { at: [head[6], head[7]], into: null, out: null }
    : { at: [head[6], head[7]], into: [head[4], head[5]], out: [tail[2], tail[3]] };
  const points = line.points.map((point, i): PathPoint => {
    if (isLine || (i !== piece && i !== next)) return point;
    const out = i === piece ? ([head[2], head[3]] as Spot) : point.out;
    const into = i === next ? ([tail[4], tail[5]] as Spot) : point.into;
    return { ...point, into, out };
  });
  return { ...line, points: [...points.slice(0, piece + 1), middle, ...points.slice(piece + 1)] };
}

/** Where a removed stretch is measured for the curve that takes its place. */
const SAMPLES = 24;
/** A curve is fitted as nearly as it will go. */
const AS_NEAR_AS_IT_GOES = 1e-9;

/**
 * Takes points out. What is left bends so as to stay near the curve that was there; between straight pieces it is straight.
 * @returns a line without points where too few are left
 */
export function removePoints(line: PathLine, which: ReadonlySet<number>): PathLine {
  const kept = line.points.flatMap((_, i) => (which.has(i) ? [] : [i]));
  if (kept.length < 2) return { points: [], isClosed: line.isClosed };
  const pieces = piecesOf(line);
  const count = line.points.length;
  const points: { -readonly [K in keyof PathPoint]: PathPoint[K] }[] = kept.map((i) => ({ ...line.points[i]! }));
  for (const [k, from] of kept.entries()) {
    const to = kept[(k + 1) % kept.length]!;
    if ((!line.isClosed && k + 1 === kept.length) || (to - from + count) % count === 1) continue;
    const run: Piece[] = [];
    for (let i = from; i !== to; i = (i + 1) % count) run.push(pieces[i]!);
    const [out, into] = run.every(({ isLine }) => isLine) ? [null, null] : handlesFor(run);
    points[k]!.out = out;
    points[(k + 1) % kept.length]!.into = into;
  }
  // The loose ends of an open line have no handles outward.
  if (!line.isClosed) [points[0]!.into, points.at(-1)!.out] = [null, null];
  return { ...line, points };
}

/** Handles of the one cubic that comes nearest to a run of pieces. */
function handlesFor(run: readonly Piece[]): [Spot, Spot] {
  const [first, last] = [run[0]!.cubic, run.at(-1)!.cubic];
  const places = run.flatMap(({ cubic }, i) =>
    Array.from({ length: SAMPLES }, (_, k) => (k + (i === 0 ? 1 : 0)) / SAMPLES)
      .filter((t) => t < 1 || i + 1 < run.length)
      .map((t): Spot => [at(cubic, 0, t), at(cubic, 1, t)]),
  );
  const data = { xs: Float64Array.from(places, ([x]) => x), ys: Float64Array.from(places, ([, y]) => y) };
  const [entry, exit] = [directionAt(first, 0) ?? [1, 0], directionAt(last, 1) ?? [1, 0]];
  const { points } = fitCubic(data, {
    from: 0,
    to: places.length - 1,
    start: { at: { x: first[0], y: first[1] }, into: { x: entry[0], y: entry[1] } },
    end: { at: { x: last[6], y: last[7] }, into: { x: -exit[0], y: -exit[1] } },
    enough: AS_NEAR_AS_IT_GOES,
    hopeless: Infinity,
  });
  return [
    [points[1].x, points[1].y],
    [points[2].x, points[2].y],
  ];
}

// --- smooth, corner, straight ---------------------------------------------------------------------------------------

/** Handles along the line between the neighbours, a third of the way to each. */
export function makeSmooth(line: PathLine, which: ReadonlySet<number>): PathLine {
  const count = line.points.length;
  return changed(line, which, (point, i) => {
    const before = line.isClosed || i > 0 ? line.points[(i + count - 1) % count] : undefined;
    const behind = line.isClosed || i + 1 < count ? line.points[(i + 1) % count] : undefined;
    const [from, to] = [before?.at ?? point.at, behind?.at ?? point.at];
    const length = Math.hypot(to[0] - from[0], to[1] - from[1]);
    if (!(length > 0)) return point;
    const [ux, uy] = [(to[0] - from[0]) / length, (to[1] - from[1]) / length];
    const reach = (other: Spot) => Math.hypot(other[0] - point.at[0], other[1] - point.at[1]) / 3;
    const handle = (other: Spot | undefined, way: 1 | -1): Spot | null =>
      other ? [point.at[0] + way * ux * reach(other), point.at[1] + way * uy * reach(other)] : null;
    return { ...point, into: handle(before?.at, -1), out: handle(behind?.at, 1) };
  });
}

/** Corners keep their place and lose their handles. */
export const makeCorners = (line: PathLine, which: ReadonlySet<number>): PathLine =>
  changed(line, which, (point) => ({ ...point, into: null, out: null }));

/**
 * Chosen points that follow each other become one in their middle; it keeps the handle into the first and that out of the last. Both
 * ends of an open line close it.
 */
export function weldPoints(line: PathLine, which: ReadonlySet<number>): PathLine {
  const { points } = line;
  const count = points.length;
  const isRound = line.isClosed || (which.has(0) && which.has(count - 1));
  if (which.size < 2 || which.size === count) return line;
  // From a point that stays, so that no run is cut in two.
  const start = isRound ? points.findIndex((_, i) => !which.has(i)) : 0;
  const runs: number[][] = [];
  for (let k = 0; k < count; k++) {
    const i = (start + k) % count;
    const run = runs.at(-1);
    if (run && which.has(i) && which.has(run.at(-1)!)) run.push(i);
    else runs.push([i]);
  }
  const welded = runs.map((run): PathPoint => {
    const [first, last] = [points[run[0]!]!, points[run.at(-1)!]!];
    if (run.length === 1) return first;
    const mean = (axis: 0 | 1) => run.reduce((sum, i) => sum + points[i]!.at[axis], 0) / run.length;
    const place: Spot = [mean(0), mean(1)];
    const along = (spot: Spot | null, from: Spot) => moved(spot, place[0] - from[0], place[1] - from[1]);
    return { at: place, into: along(first.into, first.at), out: along(last.out, last.at) };
  });
  return { points: welded, isClosed: isRound };
}

/** Chosen points on one line across (axis 1) or upright (axis 0), at a coordinate. */
export const alignPoints = (line: PathLine, which: ReadonlySet<number>, axis: 0 | 1, to: number): PathLine =>
  [...which].reduce((made, i) => {
    const by = to - line.points[i]!.at[axis];
    return movePoints(made, new Set([i]), axis === 0 ? by : 0, axis === 1 ? by : 0);
  }, line);

/** Makes one piece straight. */
export function straighten(line: PathLine, piece: number): PathLine {
  const next = (piece + 1) % line.points.length;
  return changed(line, new Set([piece, next]), (point, i) => ({
    ...point,
    out: i === piece ? null : point.out,
    into: i === next ? null : point.into,
  }));
}

// --- ends -----------------------------------------------------------------------------------------------------------

export const closeLine = (line: PathLine): PathLine => (line.points.length > 1 ? { ...line, isClosed: true } : line);

/** Opens a closed line at a point, which becomes both its ends. */
export function openAt({ points, isClosed }: PathLine, index: number): PathLine {
  const end = points[index];
  if (!isClosed || !end) return { points, isClosed };
  const turned = [...points.slice(index), ...points.slice(0, index)];
  return { points: [{ ...end, into: null }, ...turned.slice(1), { ...end, out: null }], isClosed: false };
}

/** A line that goes on with one more point, at its start or its end. */
export function continued(line: PathLine, fromStart: boolean, point: PathPoint): PathLine {
  return { ...line, points: fromStart ? [point, ...line.points] : [...line.points, point] };
}

// --- finding --------------------------------------------------------------------------------------------------------

export interface OnLine {
  readonly piece: number;
  readonly t: number;
  readonly at: Spot;
  readonly distance: number;
}

/** Guesses on each piece from which the nearest place is looked for. */
const GUESSES = 8;

/** The place on a line nearest to (x, y); null for a line without pieces. */
export function nearestOnLine(line: PathLine, x: number, y: number): OnLine | null {
  let best: OnLine | null = null;
  for (const [piece, { cubic }] of piecesOf(line).entries()) {
    for (let k = 0; k <= GUESSES; k++) {
      const t = nearestParameter(cubic, x, y, k / GUESSES);
      const found = placeOn(cubic, t);
      const distance = Math.hypot(found[0] - x, found[1] - y);
      if (!best || distance < best.distance) best = { piece, t, at: found, distance };
    }
  }
  return best;
}

const placeOn = (cubic: Cubic, t: number): Spot => [at(cubic, 0, t), at(cubic, 1, t)];

function changed(
  line: PathLine,
  which: ReadonlySet<number>,
  change: (point: PathPoint, index: number) => PathPoint,
): PathLine {
  return { ...line, points: line.points.map((point, i) => (which.has(i) ? change(point, i) : point)) };
}
