// centreline.ts — line drawings and plans to single strokes with their width: thinned to find how lines run and meet, then
// each place moved to the middle between the two edges that the greys give.
import { fitLine, type Vec } from '../path/fit.ts';
import type { Path } from '../path/types.ts';
import { componentsOf } from '../picture/components.ts';
import type { Grey } from '../picture/types.ts';
import { arrival, departure, endsAt, type LinkEnd, tracksOf } from './links.ts';
import { type Direction, meetingPlace, straightest } from './meeting.ts';
import { traceOutline, traceStroke } from './pieces.ts';
import { GreyTones } from './place.ts';
import { type ThinLine, thinDrawing } from './thin.ts';

export interface CentrelineOptions {
  readonly level: number;
  /** Smallest piece of ink that is kept, square px. */
  readonly detail: number;
  /** Turns sharper than this are corners, radians. */
  readonly corner: number;
  /** How far a curve may stray, px; null takes a start value that suits thinned lines. */
  readonly smooth: number | null;
}

export interface Stroke {
  /** Open, or closed with Z; px, y down. Its ends lie half a width before the ends of the ink. */
  readonly path: Path;
  /** Median along it, px. */
  readonly width: number;
  readonly pieces: number;
  readonly stray: number;
}

const SMOOTH = 0.2;

export function traceCentrelines(grey: Grey, options: CentrelineOptions): Stroke[] {
  const { width, height } = grey;
  const { lines, nodes } = thinDrawing(inkOf(grey, options), width, height);
  const tones = new GreyTones(grey, options.level);
  const measured = lines.map((line) => measure(line, tones));
  const strokes = strokesOf(pruned(measured, nodes), nodes, tones).map((row) => fitted(row, options));
  const met = new Set(lines.flatMap(({ from, to }) => [from, to]));
  for (let i = 0; i < nodes.length / 2; i++) {
    if (!met.has(i)) strokes.push(dot(nodes[2 * i]!, nodes[2 * i + 1]!, tones));
  }
  return strokes;
}

/** What is as wide as it is long thins to a point: a stroke of no length, which round ends make a dot. */
function dot(x: number, y: number, tones: GreyTones): Stroke {
  const across = edgeDistance(tones, x, y, 1, 0) + edgeDistance(tones, x, y, -1, 0);
  const down = edgeDistance(tones, x, y, 0, 1) + edgeDistance(tones, x, y, 0, -1);
  return {
    path: [
      ['M', x, y],
      ['L', x, y],
    ],
    width: (across + down) / 2,
    pieces: 1,
    stray: 0,
  };
}

function inkOf({ width, height, values }: Grey, { level, detail }: CentrelineOptions): Uint8Array {
  const ink = Uint8Array.from(values, (v) => Number(v < level));
  const { of, areas } = componentsOf(ink, width, height, (label) => label === 1);
  return ink.map((v, i) => Number(v === 1 && areas[of[i]!]! >= detail));
}

/** A line moved to the middle of its ink. */
interface Middle {
  readonly points: Float64Array;
  readonly widths: Float64Array;
  readonly width: number;
  readonly from: number;
  readonly to: number;
}

/** Pixels on each side from which a line's direction is taken. */
const SPAN = 3;
const STEP = 0.5;

function measure({ points, from, to }: ThinLine, tones: GreyTones): Middle {
  const count = points.length / 2;
  const isClosed = from < 0;
  const [middles, widths] = [new Float64Array(2 * count), new Float64Array(count)];
  const index = (i: number) => (isClosed ? (i + count) % count : Math.min(count - 1, Math.max(0, i)));
  for (let i = 0; i < count; i++) {
    const [a, b] = [index(i - SPAN), index(i + SPAN)];
    const [dx, dy] = [points[2 * b]! - points[2 * a]!, points[2 * b + 1]! - points[2 * a + 1]!];
    const length = Math.hypot(dx, dy);
    const [nx, ny] = length > 0 ? [-dy / length, dx / length] : [1, 0];
    const [x, y] = [points[2 * i]!, points[2 * i + 1]!];
    const right = edgeDistance(tones, x, y, nx, ny);
    const left = edgeDistance(tones, x, y, -nx, -ny);
    middles[2 * i] = x + ((right - left) / 2) * nx;
    middles[2 * i + 1] = y + ((right - left) / 2) * ny;
    widths[i] = left + right;
  }
  return { points: middles, widths, width: median(widths), from, to };
}

/** Around an edge its tones are summed up this far to either side: what a pixel is covered by says where the edge runs. */
const AROUND = 1.5;
const SAMPLES = 12;

/** How far ink goes on from a place in a direction. */
function edgeDistance(tones: GreyTones, x: number, y: number, dx: number, dy: number): number {
  const along = (d: number) => toneAt(tones, x + d * dx, y + d * dy);
  let d = 0;
  while (along(d) < tones.level) d += STEP;
  const from = Math.max(0, d - STEP / 2 - AROUND);
  const to = d - STEP / 2 + AROUND;
  const [dark, light] = [along(from), along(to)];
  if (!(light > dark)) return d;
  let sum = 0;
  for (let i = 0; i < SAMPLES; i++) sum += light - along(from + ((i + 0.5) / SAMPLES) * (to - from));
  return from + (to - from) * Math.min(1, Math.max(0, sum / SAMPLES / (light - dark)));
}

function toneAt(tones: GreyTones, x: number, y: number): number {
  const [i, j] = [Math.floor(x - 0.5), Math.floor(y - 0.5)];
  const [u, v] = [x - 0.5 - i, y - 0.5 - j];
  const top = tones.at(i, j) + u * (tones.at(i + 1, j) - tones.at(i, j));
  const bottom = tones.at(i, j + 1) + u * (tones.at(i + 1, j + 1) - tones.at(i, j + 1));
  return top + v * (bottom - top);
}

function median(values: ArrayLike<number>): number {
  return Float64Array.from(values).sort()[values.length >> 1] ?? 0;
}

/** A side line that ends freely and is shorter than this share of the width it comes out of is a spur of thinning. */
const SPUR = 1.2;

function pruned(lines: readonly Middle[], nodes: Float64Array): Middle[] {
  const degree = new Int32Array(nodes.length / 2);
  for (const { from, to } of lines) {
    if (from < 0) continue;
    degree[from]!++;
    degree[to]!++;
  }
  const widest = new Float64Array(nodes.length / 2);
  for (const { from, to, width } of lines) {
    for (const node of [from, to]) if (node >= 0) widest[node] = Math.max(widest[node]!, width);
  }
  return lines.filter(({ from, to, points }) => {
    if (from < 0) return true;
    const isFree = degree[from] === 1 || degree[to] === 1;
    const isAlone = degree[from] === 1 && degree[to] === 1;
    const base = degree[from] === 1 ? to : from;
    return !isFree || isAlone || points.length / 2 > (SPUR * widest[base]!) / 2;
  });
}

/** A stroke before its curves are fitted. */
interface StrokeRow {
  readonly points: Float64Array;
  readonly isClosed: boolean;
  readonly width: number;
}

/** Lines that turn by less than this go on into each other where more than two meet, radians. */
const GOES_ON = 0.6;
/** Points from which a line's direction at a node is taken, beyond half its width. */
const SIDE = 8;

/** Lines joined to strokes through the nodes where two of them go on into each other. */
function strokesOf(lines: readonly Middle[], nodes: Float64Array, tones: GreyTones): StrokeRow[] {
  const ends = endsAt(lines, nodes.length / 2);
  const meetings = ends.map((meeting, i) => {
    const node = { x: nodes[2 * i]!, y: nodes[2 * i + 1]! };
    const directions = meeting.map(directionOf);
    const half = Math.max(...meeting.map(({ link }) => link.width), 2) / 2;
    if (meeting.length === 1) return { at: freeEnd(directions[0]!, meeting[0]!.link.width, tones), throughs: [] };
    const at = meetingPlace(node, directions, 0.05, 2 * half);
    if (meeting.length === 2) return { at, throughs: [[meeting[0]!, meeting[1]!] as const] };
    return { at, throughs: straightest(meeting, directions, GOES_ON) };
  });
  const tracks = tracksOf(
    lines,
    meetings.map(({ throughs }) => throughs),
  );
  return tracks.map(({ steps, isClosed }): StrokeRow => {
    const points: number[] = [];
    const widths = steps.flatMap(({ link }) => [...link.widths]);
    const at = (node: number) => meetings[node]?.at ?? null;
    for (const step of steps) {
      const own = clearPoints({ link: step.link, isStart: true });
      pushVia(points, at(departure(step)));
      for (let i = 0; i < own.length; i += 2) {
        const k = step.isForward ? i : own.length - 2 - i;
        pushVia(points, { x: own[k]!, y: own[k + 1]! });
      }
    }
    const last = at(arrival(steps.at(-1)!));
    if (!isClosed) pushVia(points, last);
    else if (last) pushBetween(points, last);
    return { points: Float64Array.from(points), isClosed, width: median(widths) };
  });
}

/** A line's points without those that lie within the strokes it meets at its ends. */
function clearPoints({ link }: LinkEnd<Middle>): Float64Array {
  if (link.from < 0) return link.points;
  const count = link.points.length / 2;
  const margin = Math.min(Math.ceil(link.width / 2) + 1, Math.floor((count - 2) / 2));
  return margin > 0 ? link.points.subarray(2 * margin, 2 * (count - margin)) : link.points;
}

function directionOf(end: LinkEnd<Middle>): Direction {
  const points = clearPoints(end);
  const count = Math.min(points.length / 2, SIDE);
  const at = (i: number) => (end.isStart ? i : points.length / 2 - 1 - i);
  const xs = Float64Array.from({ length: count }, (_, i) => points[2 * at(i)]!);
  const ys = Float64Array.from({ length: count }, (_, i) => points[2 * at(i) + 1]!);
  return count > 1 ? fitLine({ xs, ys }, 0, count - 1) : { at: { x: xs[0]!, y: ys[0]! }, along: { x: 1, y: 0 } };
}

/** Half a width before the ink ends, on the line. */
function freeEnd({ at, along }: Direction, width: number, tones: GreyTones): Vec {
  const reach = edgeDistance(tones, at.x, at.y, -along.x, -along.y) - width / 2;
  return { x: at.x - reach * along.x, y: at.y - reach * along.y };
}

/** Pushes a place, and points a pixel apart on the way to it where that is long. */
function pushVia(points: number[], place: Vec | null): void {
  if (!place) return;
  if (points.length > 0) pushBetween(points, place);
  points.push(place.x, place.y);
}

function pushBetween(points: number[], { x, y }: Vec): void {
  const [u, v] = [points.at(-2)!, points.at(-1)!];
  const steps = Math.round(Math.hypot(x - u, y - v));
  for (let i = 1; i < steps; i++) points.push(u + (i / steps) * (x - u), v + (i / steps) * (y - v));
}

function fitted({ points, isClosed, width }: StrokeRow, { smooth, corner }: CentrelineOptions): Stroke {
  const options = { smooth: smooth ?? SMOOTH, corner };
  const { path, pieces, stray } = isClosed ? traceOutline(points, options) : traceStroke(points, options);
  return { path, width, pieces, stray };
}
