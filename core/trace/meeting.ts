// meeting.ts — where lines that come together meet, and which of them go on into each other.
import type { Vec } from '../path/fit.ts';
import type { Link, LinkEnd, Through } from './links.ts';

/** A line near one of its ends, pointing away from the node. */
export interface Direction {
  readonly at: Vec;
  /** Unit vector. */
  readonly along: Vec;
}

/**
 * The place that lies nearest to all the lines.
 * @param hold how strongly it is held where it was, against 1 for each line
 * @param farthest how far it may move along each axis
 */
export function meetingPlace(at: Vec, lines: readonly Direction[], hold: number, farthest: number): Vec {
  let [xx, xy, yy, bx, by] = [hold, 0, hold, hold * at.x, hold * at.y];
  for (const line of lines) {
    const [nx, ny] = [-line.along.y, line.along.x];
    const off = nx * line.at.x + ny * line.at.y;
    xx += nx * nx;
    xy += nx * ny;
    yy += ny * ny;
    bx += nx * off;
    by += ny * off;
  }
  const determinant = xx * yy - xy * xy;
  const clamp = (v: number, around: number) => Math.min(around + farthest, Math.max(around - farthest, v));
  return { x: clamp((bx * yy - by * xy) / determinant, at.x), y: clamp((xx * by - xy * bx) / determinant, at.y) };
}

/** Pairs of ends that turn by less than `corner` radians from one into the other, the straightest first; none twice. */
export function straightest<T extends Link>(
  ends: readonly LinkEnd<T>[],
  lines: readonly Direction[],
  corner: number,
): Through<T>[] {
  const pairs: { a: number; b: number; straight: number }[] = [];
  for (let a = 0; a < ends.length; a++) {
    for (let b = a + 1; b < ends.length; b++) {
      const [p, q] = [lines[a]!.along, lines[b]!.along];
      const straight = -(p.x * q.x + p.y * q.y);
      if (straight > Math.cos(corner)) pairs.push({ a, b, straight });
    }
  }
  pairs.sort((p, q) => q.straight - p.straight);
  const taken = new Set<number>();
  const found: Through<T>[] = [];
  for (const { a, b } of pairs) {
    if (taken.has(a) || taken.has(b)) continue;
    taken.add(a).add(b);
    found.push([ends[a]!, ends[b]!]);
  }
  return found;
}
