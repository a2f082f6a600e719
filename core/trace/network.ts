// network.ts — the boundaries of a map of labels as one network of curves. Where three meet, two of them usually go on
// smoothly and are fitted as one curve that the third ends on; every piece between two junctions is one curve for both
// its sides, so that neighbours share it exactly. Where curves would cross, they follow the pixels more closely.
import { TOLERANCE_SHARE } from '../base/tolerance.ts';
import { reversed } from '../outline/reverse.ts';
import { fitLine, type Vec } from '../path/fit.ts';
import type { Segment } from '../path/types.ts';
import { BEYOND, boundariesOf, type Chain, type LabelMap, type TonesFor } from './boundary.ts';
import { arrival, departure, endsAt, type LinkEnd, type Through, type Track, tracksOf } from './links.ts';
import { type Direction, meetingPlace, straightest } from './meeting.ts';
import { smoothAlong, smoothFor } from './noise.ts';
import { type OutlineOptions, traceOutline, traceStroke } from './pieces.ts';
import { backward, between, cutNear, moved, ordered, place, pointAt, type Stretch, stretchOf } from './stretch.ts';
import { FOLLOWED, Holds, tanglesIn } from './tangles.ts';

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

/** Curves are fitted anew at most so many times where some cross; hardly any are after three. */
const MOST_ROUNDS = 16;

export function networkOf(labels: LabelMap, tonesFor: TonesFor, { smooth, corner, isClean }: NetworkOptions): Network {
  const { chains, junctions } = boundariesOf(labels, tonesFor);
  const inner = chains.filter((chain) => !isBorder(chain, labels));
  const others = smoothFor(
    inner.map(({ points }) => points),
    isClean,
  );
  const optionsFor = (row: Float64Array) => ({ smooth: smooth ?? smoothAlong(row, others, isClean), corner });
  const meetings = meetingsOf(chains, labels, junctions, corner);
  const tracks = tracksOf(
    inner,
    meetings.map(({ throughs }) => throughs),
  );
  const holds = new Holds(chains, junctions);
  const tolerance = TOLERANCE_SHARE * Math.max(labels.columns, labels.rows);
  const placeOf = (junction: number): Vec =>
    holds.holds(junction) ? { x: junctions[2 * junction]!, y: junctions[2 * junction + 1]! } : meetings[junction]!.at;
  const fitOf = (track: Track<Chain>) => fitTrack(track, placeOf, holds, optionsFor);
  let fitted = tracks.map(fitOf);
  let stretches = stretchesOf(chains, fitted, placeOf);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const changed = holds.add(tanglesIn(stretches, tolerance));
    if (changed.size === 0) break;
    fitted = fitted.map((each, i) =>
      tracks[i]!.steps.some(({ link }) => changed.has(link)) ? fitOf(tracks[i]!) : each,
    );
    stretches = stretchesOf(chains, fitted, placeOf);
  }
  return {
    labels,
    edges: chains.map((chain, i) => ({ chain, stretch: stretches[i]! })),
    pieces: fitted.reduce((sum, { pieces }) => sum + pieces, 0),
    stray: fitted.reduce((most, { stray }) => Math.max(most, stray), 0),
  };
}

/** The curve of each chain, whose ends are those of all others that meet it there. */
function stretchesOf(
  chains: readonly Chain[],
  fitted: readonly FittedTrack[],
  placeOf: (junction: number) => Vec,
): Stretch[] {
  // A junction lies on the curve that goes through it; where none does, it stays where its ends point.
  const through = new Map(fitted.flatMap(({ splits }) => splits.map(({ junction, at }) => [junction, at] as const)));
  const endAt = (junction: number) => (junction < 0 ? null : (through.get(junction) ?? placeOf(junction)));
  const stretches = new Map<Chain, Stretch>();
  for (const { parts } of fitted) {
    for (const { step, stretch } of parts) {
      const joined = moved(stretch, endAt(departure(step)), endAt(arrival(step)));
      stretches.set(step.link, step.isForward ? joined : backward(joined));
    }
  }
  return chains.map((chain) => stretches.get(chain) ?? borderStretch(chain, endAt(chain.from), endAt(chain.to)));
}

type End = LinkEnd<Chain>;

interface Meeting {
  readonly at: Vec;
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

interface HeldRow {
  readonly points: Float64Array;
  /** 1 for points that are followed one by one. */
  readonly isRaw: Uint8Array;
}

/** A chain's points as they are followed, from its first junction to its last, without those that a junction has spoilt. */
function heldRow(chain: Chain, holds: Holds, placeOf: (junction: number) => Vec): HeldRow {
  const followed = holds.of(chain);
  let points = chain.points;
  if (followed) {
    points = points.slice();
    for (const [i, how] of followed.entries()) {
      if (how === FOLLOWED.betweenPixels) points.set(chain.middles.subarray(2 * i, 2 * i + 2), 2 * i);
    }
  }
  let [from, to] = [0, points.length];
  if (chain.from >= 0 && !holds.holds(chain.from)) from = to - clearOf(points, placeOf(chain.from)).length;
  if (chain.to >= 0 && !holds.holds(chain.to)) {
    to = from + clearOf(reversed(points.subarray(from)), placeOf(chain.to)).length;
  }
  const isRaw = Uint8Array.from({ length: (to - from) / 2 }, (_, i) => Number((followed?.[from / 2 + i] ?? 0) > 0));
  return { points: points.subarray(from, to), isRaw };
}

interface FittedTrack {
  readonly parts: readonly { readonly step: Track<Chain>['steps'][number]; readonly stretch: Stretch }[];
  readonly splits: readonly { readonly junction: number; readonly at: Vec }[];
  readonly pieces: number;
  readonly stray: number;
}

function fitTrack(
  { steps, isClosed }: Track<Chain>,
  placeOf: (junction: number) => Vec,
  holds: Holds,
  optionsFor: (row: Float64Array) => OutlineOptions,
): FittedTrack {
  // (1) All points in a row, without those that a junction has spoilt.
  const points: number[] = [];
  const raw: number[] = [];
  const breaks: number[] = [];
  const pushEnd = (junction: number) => {
    const { x, y } = placeOf(junction);
    points.push(x, y);
    raw.push(Number(holds.holds(junction)));
  };
  if (!isClosed) pushEnd(departure(steps[0]!));
  for (const step of steps) {
    const row = heldRow(step.link, holds, placeOf);
    for (const v of step.isForward ? row.points : reversed(row.points)) points.push(v);
    for (const v of step.isForward ? row.isRaw : row.isRaw.toReversed()) raw.push(v);
    breaks.push(points.length / 2 - 1);
  }
  if (!isClosed) pushEnd(arrival(steps.at(-1)!));
  const row = Float64Array.from(points);
  // (2) One fit, cut where other chains meet it.
  const options = { ...optionsFor(row), isRaw: Uint8Array.from(raw) };
  const { path, ends, pieces, stray } = isClosed ? traceOutline(row, options) : traceStroke(row, options);
  const curve = stretchOf(path);
  if (steps[0]!.link.from < 0) return { parts: [{ step: steps[0]!, stretch: curve }], splits: [], pieces, stray };
  const inner = isClosed ? breaks : breaks.slice(0, -1);
  const round = isClosed ? row.length / 2 : 0;
  const cuts = ordered(
    inner.map((index, i) => cutNear(curve, ends, index, placeOf(arrival(steps[i]!)), round)),
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
