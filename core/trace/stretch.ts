// stretch.ts — pieces of curve that follow each other: cut where others meet them, their ends moved, turned round.
import { isCurled, type Vec } from '../path/fit.ts';
import type { Path, Segment } from '../path/types.ts';

/** Pieces that follow each other; the first begins at `start`. */
export interface Stretch {
  readonly start: Vec;
  readonly segments: readonly Segment[];
}

export const place = ({ piece, t }: Cut) => piece + t;

/** Two cuts this much out of order, in pieces, are one place. */
const CONFUSED = 0.5;

/** Cuts in the order of their junctions: those that come out of order lie in one place with the one before. */
export function ordered(cuts: readonly Cut[], isClosed: boolean): Cut[] {
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

export function stretchOf(path: Path): Stretch {
  const [, x, y] = path[0] as ['M', number, number];
  return { start: { x, y }, segments: path.filter(([letter]) => letter === 'L' || letter === 'C') };
}

/** A place on a stretch: a piece and the parameter on it, 0 … 1. */
export interface Cut {
  readonly piece: number;
  readonly t: number;
}

/** The place on a curve near a junction that lies after one of the points it was fitted to. */
export function cutNear(curve: Stretch, ends: readonly number[] | null, index: number, at: Vec, round: number): Cut {
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
/** Cuts as near as this to an end of a piece, as a share of it, are there. */
const SNAP = 1e-6;

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
  // Ends are met exactly.
  const exact = t < SNAP ? 0 : t > 1 - SNAP ? 1 : t;
  return { t: exact, distance: distance(exact) };
}

const endOf = (segment: Segment): Vec => ({ x: segment.at(-2) as number, y: segment.at(-1) as number });
const startOf = (curve: Stretch, piece: number): Vec => (piece === 0 ? curve.start : endOf(curve.segments[piece - 1]!));

export function pointAt(curve: Stretch, { piece, t }: Cut): Vec {
  const segment = curve.segments[piece]!;
  const [p, q] = [startOf(curve, piece), endOf(segment)];
  const u = 1 - t;
  if (segment[0] !== 'C') return { x: u * p.x + t * q.x, y: u * p.y + t * q.y };
  const [, bx, by, cx, cy] = segment;
  const [w0, w1, w2, w3] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
  return { x: w0 * p.x + w1 * bx + w2 * cx + w3 * q.x, y: w0 * p.y + w1 * by + w2 * cy + w3 * q.y };
}

/** What lies between two places; null is the curve's own end. From a later one to an earlier one it goes round. */
export function between(curve: Stretch, from: Cut | null, to: Cut | null, isRound: boolean): Stretch {
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

/** Curves shorter than this from end to end are lines where moving their ends would curl them, px. */
const SHORT = 3;

function tamed(a: Vec, segment: Segment): Segment {
  const [letter, bx, by, cx, cy] = segment;
  if (letter !== 'C') return segment;
  const d = endOf(segment);
  const isShort = Math.hypot(d.x - a.x, d.y - a.y) < SHORT;
  return isShort && isCurled(a, { x: bx, y: by }, { x: cx, y: cy }, d) ? ['L', d.x, d.y] : segment;
}

/** A stretch whose ends are moved a little, the nearest handles with them. */
export function moved(stretch: Stretch, start: Vec | null, end: Vec | null): Stretch {
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
  const first = start ?? stretch.start;
  segments[0] = tamed(first, segments[0]!);
  const before = segments.length > 1 ? endOf(segments.at(-2)!) : first;
  segments[segments.length - 1] = tamed(before, segments.at(-1)!);
  return { start: first, segments };
}

export function backward({ start, segments }: Stretch): Stretch {
  const starts = [start, ...segments.map(endOf)];
  const turned = segments.map((segment, i): Segment => {
    const { x, y } = starts[i]!;
    return segment[0] === 'C' ? ['C', segment[3], segment[4], segment[1], segment[2], x, y] : ['L', x, y];
  });
  return { start: starts.at(-1)!, segments: turned.reverse() };
}
