// straights.ts — the straight runs of a row of points, told from gentle curves.
import { fitLine, fitParabola, type Line, type Run } from '../path/fit.ts';
import type { Row } from './row.ts';

/** Points of a row, from one to another, that lie on a line. */
export interface StraightRun {
  readonly from: number;
  readonly to: number;
  readonly line: Line;
}

type Bounded = Run & { readonly tightness: Float32Array };

/** The fewest points of a line. */
const LINE_POINTS = 7;
/** A line bends by no more than this share of what it may stray. */
const BEND = 0.35;
/** What lies on a line strays no further than this share of what it may: at the ends that it is found with … */
const CLOSE = 0.3;
/** … and where it goes on beyond them. */
const ON = 0.1;

/** Runs that are straight, and not just as straight as a piece of a curve within the tolerance is. */
export function straightsBetween(row: Row, first: number, last: number): StraightRun[] {
  const run = row.all;
  const [start, end] = [first + row.zero, last + row.zero];
  const found: StraightRun[] = [];
  for (let a = start; a + LINE_POINTS - 1 <= end; ) {
    let b = a + LINE_POINTS - 1;
    if (!straightLine(run, a, b)) {
      a += 2;
      continue;
    }
    // Doubling, then halving.
    let step = LINE_POINTS;
    while (step >= 1) {
      if (b + step <= end && straightLine(run, a, b + step)) {
        b += step;
        step *= 2;
      } else step = Math.floor(step / 2);
    }
    // A stretch of a curve ends where bending passes the tolerance; what is straight goes on for longer than that.
    const length = Math.hypot(run.xs[b]! - run.xs[a]!, run.ys[b]! - run.ys[a]!);
    if (length < LINE_POINTS - 1 || !isLine(run, a, b, start, end)) {
      a += Math.max(1, Math.floor((b - a) / 4));
      continue;
    }
    const before = found.at(-1);
    const next = grown(run, trimmed(run, a, b), before ? before.to + 1 : start, end);
    const joint = before && joinedLine(run, before, next, start, end);
    if (joint) found[found.length - 1] = joint;
    else found.push(next);
    a = Math.max(b, next.to) + 1;
  }
  return found.map(({ from, to, line }) => ({ from: from - row.zero, to: to - row.zero, line }));
}

/** The line through a run that does not bend; null where there is none. */
function straightLine(run: Bounded, a: number, b: number): Line | null {
  // The middle of a bend lies off the chord: most curves are told by that alone.
  const m = (a + b) >> 1;
  const tightness = run.tightness[m]!;
  const [dx, dy] = [run.xs[b]! - run.xs[a]!, run.ys[b]! - run.ys[a]!];
  const off = ((run.xs[m]! - run.xs[a]!) * dy - (run.ys[m]! - run.ys[a]!) * dx) * tightness;
  if (off * off > 4 * (dx * dx + dy * dy)) return null;
  const line = fitLine(run, a, b);
  return line.strain <= 1 && line.sagitta * tightness <= BEND ? line : null;
}

/** Whether a point lies on a line, as far as it can be told. */
function isOn({ xs, ys, tightness }: Bounded, { at, along }: Line, i: number, share: number): boolean {
  return Math.abs((ys[i]! - at.y) * along.x - (xs[i]! - at.x) * along.y) * tightness[i]! <= share;
}

/**
 * A straight run without the beginnings of curves at its ends, which lie within the tolerance but would turn the curves'
 * first tangents away.
 */
function trimmed(run: Bounded, a: number, b: number): StraightRun {
  const inner = Math.min(6, Math.floor((b - a) / 6));
  const line = fitLine(run, a + inner, b - inner);
  let [from, to] = [a, b];
  while (from < a + 2 * inner && !isOn(run, line, from, CLOSE)) from++;
  while (to > b - 2 * inner && !isOn(run, line, to, CLOSE)) to--;
  return { from, to, line };
}

/** A line that began in the end of a curve is turned by it, and ends too soon: it is fitted and followed anew a few times. */
const TIMES = 4;

/** A straight run as far as points lie on it. */
function grown(run: Bounded, straight: StraightRun, start: number, end: number): StraightRun {
  let { from, to, line } = straight;
  for (let time = 0; time < TIMES; time++) {
    const before = to - from;
    // One point may stray by chance.
    while (from > start && (isOn(run, line, from - 1, ON) || (from - 1 > start && isOn(run, line, from - 2, ON))))
      from--;
    while (to < end && (isOn(run, line, to + 1, ON) || (to + 1 < end && isOn(run, line, to + 2, ON)))) to++;
    if (to - from === before) break;
    line = fitLine(run, from, to);
  }
  return { from, to, line };
}

/** Lines this many points apart may be one. */
const GAP = 4;

/** The one line that two in a row are, when they are. */
function joinedLine(run: Bounded, p: StraightRun, q: StraightRun, start: number, end: number): StraightRun | null {
  if (q.from - p.to > GAP) return null;
  const line = straightLine(run, p.from, q.to);
  return line && isLine(run, p.from, q.to, start, end) ? { from: p.from, to: q.to, line } : null;
}

/** What lies beyond a straight run is looked at over this share of its length, and this many points at least. */
const BEYOND = 0.5;
const LEAST_BEYOND = 4;
/** A curve that goes on in the same bend strays by no more than this share of what it may. */
const SAME_BEND = 0.5;

/**
 * Whether a straight run is a line, and not a stretch of a gentle curve: a curve goes on in the same bend, so that one
 * parabola follows the run and what lies on either side of it, as far as the row goes between two stops.
 */
function isLine(run: Run, a: number, b: number, start: number, end: number): boolean {
  const more = Math.max(LEAST_BEYOND, Math.round(BEYOND * (b - a)));
  const [from, to] = [Math.max(start, a - more), Math.min(end, b + more)];
  if (a - from < LEAST_BEYOND && to - b < LEAST_BEYOND) return true;
  return fitParabola(run, from, to).strain > SAME_BEND;
}
