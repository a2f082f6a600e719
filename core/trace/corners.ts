// corners.ts — where two straight sides of a row of points meet.
import { fitLine, fitParabola, intersection, type Run, type Vec } from '../path/fit.ts';
import type { Row } from './row.ts';

/** Points on each side of a corner that are left out, because the pixel there holds both sides. */
export const SKIP = 2;
/** Points on each side from which a corner's sides are taken. */
const SIDE = 5;
/** A corner's apex lies at most this far beyond the contour for a right angle; small arcs stay further away. */
const APEX_GAP = 0.55;
/** Soft edges round their corners off: the apex may lie this many times as far away as curves may stray there, up to so many px. */
const [ROUNDED, MOST_ROUNDED] = [2, 0.75];
/**
 * What a kink leaves of itself beside the best parabola, as a share of (half the window) · tan(turn / 2): 3/16 for two
 * straight sides, less the rounding by a pixel.
 */
const KINK = 0.1;
/** The sharpest tips are rebuilt this much further out. */
export const LEAST_COSINE = 0.12;

export interface Corner {
  readonly index: number;
  readonly apex: Vec;
}

/** Places where two straight sides meet in a point that the contour comes close to. @param corner least turn, radians */
export function findCorners(row: Row, corner: number): Corner[] {
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
    const least = Math.max(row.smoothAt(i), KINK * (reach + SKIP) * Math.tan(turn / 2));
    if (turn < corner || fitParabola(row.all, from, to).stray < least) continue;
    const apex = intersection(before, behind);
    if (!apex) continue;
    const gap = row.distanceFrom(apex, i);
    const most = Math.max(APEX_GAP, Math.min(MOST_ROUNDED, ROUNDED * row.smoothAt(i)));
    if (gap > most / Math.max(LEAST_COSINE, Math.cos(turn / 2))) continue;
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
