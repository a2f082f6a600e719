// network.ts — the boundaries of a map of labels as one network of curves. Where three meet, two of them usually go on
// smoothly and are fitted as one curve that the third ends on; every piece between two junctions is one curve for both
// its sides, so that neighbours share it exactly.
import { reversed } from '../outline/reverse.ts';
import { fitLine, type Vec } from '../path/fit.ts';
import type { Path, Segment } from '../path/types.ts';
import { BEYOND, boundariesOf, type Chain, type LabelMap, type TonesFor } from './boundary.ts';
import { arrival, departure, endsAt, type LinkEnd, type Through, type Track, tracksOf } from './links.ts';
import { type Direction, meetingPlace, straightest } from './meeting.ts';
import { smoothAlong, smoothFor } from './noise.ts';
import { type OutlineOptions, traceOutline, traceStroke } from './pieces.ts';

/** Pieces that follow each other; the first begins at `start`. */
export interface Stretch {
  readonly start: Vec;
  readonly segments: readonly Segment[];
}

interface Edge {
  readonly chain: Chain;
  /** From its first junction to its last, or all round. */
  readonly stretch: Stretch;
}

export interface Network {
  readonly labels: LabelMap;
  readonly edges: readonly Edge[];
  /** Lines and curves in it, and how far the boundaries stray from them, px. */
  readonly pieces: number;
  readonly stray: number;
}

export interface NetworkOptions {
  /** How far curves may stray from the boundaries, px; null takes what their noise asks for. */
  readonly smooth: number | null;
  /** Whether nothing has spoilt the picture: see {@link Tones}. */
  readonly isClean: boolean;
  /** Turns sharper than this are corners, radians. */
  readonly corner: number;
}

export function networkOf(labels: LabelMap, tonesFor: TonesFor, { smooth, corner, isClean }: NetworkOptions): Network {
  const { chains, junctions } = boundariesOf(labels, tonesFor);
  const inner = chains.filter((chain) => !isBorder(chain, labels));
  const others = smoothFor(
    inner.map(({ points }) => points),
    isClean,
  );
  const optionsFor = (row: Float64Array) => ({ smooth: smooth ?? smoothAlong(row, others, isClean), corner });
  const meetings = meetingsOf(chains, labels, junctions, corner);
  const fitted = tracksOf(
    inner,
    meetings.map(({ throughs }) => throughs),
  ).map((track) => fitTrack(track, meetings, optionsFor));
  // A junction lies on the curve that goes through it; where none does, it stays where its ends point.
  for (const { splits } of fitted) for (const { junction, at } of splits) meetings[junction]!.at = at;
  const stretches = new Map<Chain, Stretch>();
  for (const { parts } of fitted) {
    for (const { step, stretch } of parts) {
      const joined = moved(stretch, meetings[departure(step)]?.at ?? null, meetings[arrival(step)]?.at ?? null);
      stretches.set(step.link, step.isForward ? joined : backward(joined));
    }
  }
  return {
    labels,
    edges: chains.map((chain) => ({
      chain,
      stretch:
        stretches.get(chain) ?? borderStretch(chain, meetings[chain.from]?.at ?? null, meetings[chain.to]?.at ?? null),
    })),
    pieces: fitted.reduce((sum, { pieces }) => sum + pieces, 0),
    stray: fitted.reduce((most, { stray }) => Math.max(most, stray), 0),
  };
}

type End = LinkEnd<Chain>;

interface Meeting {
  at: Vec;
  readonly throughs: readonly Through<Chain>[];
}

const isBorder = (chain: Chain, { labels }: LabelMap) =>
  labels[chain.left] === BEYOND || labels[chain.right] === BEYOND;

/** Along the border of the sheet from one place on it to another, or all round: lines that turn at its corners. */
function borderStretch({ points }: Chain, from: Vec | null, to: Vec | null): Stretch {
  const places: Vec[] = from ? [from] : [];
  const isClosed = from === null;
  for (let i = 0; i + (isClosed ? 0 : 2) < points.length; i += 2) {
    const j = (i + 2) % points.length;
    const [x, y, u, v] = [points[i]!, points[i + 1]!, points[j]!, points[j + 1]!];
    // Middles of pixel sides: one along an upright border has its whole number in x, one along a level border in y.
    if (x !== u && y !== v) places.push(Number.isInteger(x) ? { x, y: v } : { x: u, y });
  }
  if (to) places.push(to);
  else places.push(places[0]!);
  return { start: places[0]!, segments: places.slice(1).map(({ x, y }): Segment => ['L', x, y]) };
}

/** Points next to a junction hold a third colour as well, and say little. */
const SPOILT = 1.1;
/** Points from which a direction is taken. */
const SIDE = 6;
/** How strongly a junction is held to the corner of its pixels, and how far from it it may lie. */
const HOLD = 0.05;
const FARTHEST = 1;

function meetingsOf(chains: readonly Chain[], map: LabelMap, junctions: Float64Array, corner: number): Meeting[] {
  const [width, height] = [map.columns - 2, map.rows - 2];
  return endsAt(chains, junctions.length / 2).map((meeting, i): Meeting => {
    const at = { x: junctions[2 * i]!, y: junctions[2 * i + 1]! };
    const lines = meeting.map((end) => directionOf(end, at));
    const place = meetingPlace(at, lines, HOLD, FARTHEST);
    if (at.x > 0 && at.x < width && at.y > 0 && at.y < height) {
      return { at: place, throughs: straightest(meeting, lines, corner).slice(0, 1) };
    }
    // What ends on the border ends on it exactly.
    const onBorder = {
      x: at.x > 0 && at.x < width ? place.x : at.x,
      y: at.y > 0 && at.y < height ? place.y : at.y,
    };
    return { at: onBorder, throughs: [] };
  });
}

/** The line that a chain follows near one of its ends, pointing away from the junction. */
function directionOf({ link: chain, isStart }: End, junction: Vec): Direction {
  const all = isStart ? chain.points : reversed(chain.points);
  const near = clearOf(all, junction);
  const count = Math.min(SIDE, near.length / 2);
  if (count < 2) {
    const [x, y] = [all.at(-2)! - junction.x, all.at(-1)! - junction.y];
    const length = Math.hypot(x, y) || 1;
    return { at: junction, along: { x: x / length, y: y / length } };
  }
  const xs = Float64Array.from({ length: count }, (_, i) => near[2 * i]!);
  const ys = Float64Array.from({ length: count }, (_, i) => near[2 * i + 1]!);
  return fitLine({ xs, ys }, 0, count - 1);
}

/** Points from the first one on that is clear of a junction; all of them where that leaves hardly any. */
function clearOf(points: Float64Array, { x, y }: Vec): Float64Array {
  let i = 0;
  while (i < points.length && Math.hypot(points[i]! - x, points[i + 1]! - y) < SPOILT) i += 2;
  return points.length - i >= 4 ? points.subarray(i) : points;
}

interface FittedTrack {
  readonly parts: readonly { readonly step: Track<Chain>['steps'][number]; readonly stretch: Stretch }[];
  readonly splits: readonly { readonly junction: number; readonly at: Vec }[];
  readonly pieces: number;
  readonly stray: number;
}

function fitTrack(
  { steps, isClosed }: Track<Chain>,
  meetings: readonly Meeting[],
  optionsFor: (row: Float64Array) => OutlineOptions,
): FittedTrack {
  // (1) All points in a row, without those that a junction has spoilt.
  const points: number[] = [];
  const breaks: number[] = [];
  const at = (junction: number) => meetings[junction]!.at;
  const pushEnd = ({ x, y }: Vec) => points.push(x, y);
  if (!isClosed) pushEnd(at(departure(steps[0]!)));
  for (const step of steps) {
    let row = step.isForward ? step.link.points : reversed(step.link.points);
    if (step.link.from >= 0) {
      row = clearOf(row, at(departure(step)));
      row = reversed(clearOf(reversed(row), at(arrival(step))));
    }
    for (const v of row) points.push(v);
    breaks.push(points.length / 2 - 1);
  }
  if (!isClosed) pushEnd(at(arrival(steps.at(-1)!)));
  const row = Float64Array.from(points);
  // (2) One fit, cut where other chains meet it.
  const options = optionsFor(row);
  const { path, ends, pieces, stray } = isClosed ? traceOutline(row, options) : traceStroke(row, options);
  const curve = stretchOf(path);
  if (steps[0]!.link.from < 0) return { parts: [{ step: steps[0]!, stretch: curve }], splits: [], pieces, stray };
  const inner = isClosed ? breaks : breaks.slice(0, -1);
  const round = isClosed ? row.length / 2 : 0;
  const cuts = ordered(
    inner.map((index, i) => cutNear(curve, ends, index, at(arrival(steps[i]!)), round)),
    isClosed,
  );
  const splits = cuts.map((cut, i) => ({ junction: arrival(steps[i]!), at: pointAt(curve, cut) }));
  // Where all cuts are one place, the longest chain goes all the way round.
  const isOnePlace = isClosed && cuts.every((cut) => cut === cuts[0]);
  const longest = steps.reduce((most, step) => (step.link.points.length > most.link.points.length ? step : most));
  const parts = steps.map((step, i) => {
    const [from, to] = [cuts[i - 1] ?? (isClosed ? cuts.at(-1)! : null), cuts[i] ?? null];
    const isRound = isOnePlace ? step === longest : isClosed && place(to!) < place(from!);
    return { step, stretch: between(curve, from, to, isRound) };
  });
  return { parts, splits, pieces, stray };
}

const place = ({ piece, t }: Cut) => piece + t;

/** Two cuts this much out of order, in pieces, are one place. */
const CONFUSED = 0.5;

/** Cuts in the order of their junctions: those that come out of order lie in one place with the one before. */
function ordered(cuts: readonly Cut[], isClosed: boolean): Cut[] {
  const result: Cut[] = [];
  for (const cut of cuts) {
    const before = result.at(-1);
    const back = before ? place(before) - place(cut) : 0;
    // On a closed curve the numbers begin anew somewhere: that is a long way back.
    result.push(before && back > 0 && (!isClosed || back < CONFUSED) ? before : cut);
  }
  const [first, last] = [result[0], result.at(-1)];
  if (isClosed && first && last && result.length > 1) {
    const back = place(last) - place(first);
    if (back > 0 && back < CONFUSED && isOneRound(result)) result[result.length - 1] = first;
  }
  return result;
}

/** Whether the numbers of a closed curve's cuts begin anew before the last one, so that the last must not pass the first. */
function isOneRound(cuts: readonly Cut[]): boolean {
  return cuts.some((cut, i) => i > 0 && place(cut) < place(cuts[i - 1]!));
}

function stretchOf(path: Path): Stretch {
  const [, x, y] = path[0] as ['M', number, number];
  return { start: { x, y }, segments: path.filter(([letter]) => letter === 'L' || letter === 'C') };
}

/** A place on a stretch: a piece and the parameter on it, 0 … 1. */
interface Cut {
  readonly piece: number;
  readonly t: number;
}

/** The place on a curve near a junction that lies after one of the points it was fitted to. */
function cutNear(curve: Stretch, ends: readonly number[] | null, index: number, at: Vec, round: number): Cut {
  const count = curve.segments.length;
  let candidates = Array.from({ length: count }, (_, i) => i);
  if (ends) {
    // The first piece may begin after point 0: points before it belong to the end of the round.
    const start = ends.at(-1)! - round;
    const number = round > 0 && index < start ? index + round : index;
    const piece = Math.max(
      0,
      ends.findIndex((end) => number < end),
    );
    candidates = candidates.filter((i) => Math.abs(i - piece) <= 1 || (round > 0 && Math.abs(i - piece) === count - 1));
  }
  let [best, least] = [{ piece: 0, t: 0 } as Cut, Infinity];
  for (const piece of candidates) {
    const near = nearestOn(curve, piece, at);
    if (near.distance < least) [best, least] = [{ piece, t: near.t }, near.distance];
  }
  return best;
}

/** Steps in which a piece is looked through for the nearest place, before it is narrowed down. */
const STEPS = 16;
const NARROWINGS = 30;

function nearestOn(curve: Stretch, piece: number, at: Vec): { t: number; distance: number } {
  const distance = (t: number) => {
    const p = pointAt(curve, { piece, t });
    return Math.hypot(p.x - at.x, p.y - at.y);
  };
  let best = 0;
  for (let i = 1; i <= STEPS; i++) if (distance(i / STEPS) < distance(best / STEPS)) best = i;
  let [low, high] = [Math.max(0, best - 1) / STEPS, Math.min(STEPS, best + 1) / STEPS];
  for (let i = 0; i < NARROWINGS; i++) {
    const [p, q] = [low + (high - low) / 3, high - (high - low) / 3];
    if (distance(p) < distance(q)) high = q;
    else low = p;
  }
  const t = (low + high) / 2;
  return { t, distance: distance(t) };
}

const endOf = (segment: Segment): Vec => ({ x: segment.at(-2) as number, y: segment.at(-1) as number });
const startOf = (curve: Stretch, piece: number): Vec => (piece === 0 ? curve.start : endOf(curve.segments[piece - 1]!));

function pointAt(curve: Stretch, { piece, t }: Cut): Vec {
  const segment = curve.segments[piece]!;
  const [p, q] = [startOf(curve, piece), endOf(segment)];
  const u = 1 - t;
  if (segment[0] !== 'C') return { x: u * p.x + t * q.x, y: u * p.y + t * q.y };
  const [, bx, by, cx, cy] = segment;
  const [w0, w1, w2, w3] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
  return { x: w0 * p.x + w1 * bx + w2 * cx + w3 * q.x, y: w0 * p.y + w1 * by + w2 * cy + w3 * q.y };
}

/** What lies between two places; null is the curve's own end. From a later one to an earlier one it goes round. */
function between(curve: Stretch, from: Cut | null, to: Cut | null, isRound: boolean): Stretch {
  const count = curve.segments.length;
  const first = from ?? { piece: 0, t: 0 };
  const last = to ?? { piece: count - 1, t: 1 };
  const start = pointAt(curve, first);
  const segments: Segment[] = [];
  const end = last.piece + (isRound ? count : 0);
  for (let k = first.piece; k <= end; k++) {
    const piece = k % count;
    const [t0, t1] = [k === first.piece ? first.t : 0, k === end ? last.t : 1];
    if (t1 - t0 > 1e-9) segments.push(part(curve, piece, t0, t1));
  }
  // Two junctions in one place still have a piece between them, of no length.
  if (segments.length === 0) segments.push(['L', start.x, start.y]);
  return { start, segments };
}

/** The piece between two of its parameters (de Casteljau). */
function part(curve: Stretch, piece: number, t0: number, t1: number): Segment {
  const segment = curve.segments[piece]!;
  const end = pointAt(curve, { piece, t: t1 });
  if (segment[0] !== 'C') return ['L', end.x, end.y];
  if (t0 === 0 && t1 === 1) return segment;
  const p0 = startOf(curve, piece);
  const p3 = endOf(segment);
  const [, bx, by, cx, cy] = segment;
  const blossom = (a: number, b: number, c: number, k: 'x' | 'y', q1: number, q2: number) => {
    const mix = (u: number, v: number, t: number) => u + t * (v - u);
    const [l, m, n] = [mix(p0[k], q1, a), mix(q1, q2, a), mix(q2, p3[k], a)];
    return mix(mix(l, m, b), mix(m, n, b), c);
  };
  return [
    'C',
    blossom(t0, t0, t1, 'x', bx, cx),
    blossom(t0, t0, t1, 'y', by, cy),
    blossom(t0, t1, t1, 'x', bx, cx),
    blossom(t0, t1, t1, 'y', by, cy),
    end.x,
    end.y,
  ];
}

/** A stretch whose ends are moved a little, the nearest handles with them. */
function moved(stretch: Stretch, start: Vec | null, end: Vec | null): Stretch {
  const segments = [...stretch.segments];
  if (start) {
    const [dx, dy] = [start.x - stretch.start.x, start.y - stretch.start.y];
    const first = segments[0]!;
    if (first[0] === 'C') segments[0] = ['C', first[1] + dx, first[2] + dy, first[3], first[4], first[5], first[6]];
  }
  if (end) {
    const last = segments.at(-1)!;
    const [dx, dy] = [end.x - endOf(last).x, end.y - endOf(last).y];
    segments[segments.length - 1] =
      last[0] === 'C' ? ['C', last[1], last[2], last[3] + dx, last[4] + dy, end.x, end.y] : ['L', end.x, end.y];
  }
  return { start: start ?? stretch.start, segments };
}

export function backward({ start, segments }: Stretch): Stretch {
  const starts = [start, ...segments.map(endOf)];
  const turned = segments.map((segment, i): Segment => {
    const { x, y } = starts[i]!;
    return segment[0] === 'C' ? ['C', segment[3], segment[4], segment[1], segment[2], x, y] : ['L', x, y];
  });
  return { start: starts.at(-1)!, segments: turned.reverse() };
}
