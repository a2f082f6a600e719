// bends.ts — the curves that outlines were made from, found again beside their chords: so that light sees the curve.
import { numbersAt } from '../base/arrays.ts';
import { SegmentGrid } from '../outline/segment-grid.ts';
import { contoursOf, directionAt } from '../path/cubic.ts';
import { chordPoints, distanceToSegment } from '../path/flatten.ts';
import type { Path } from '../path/types.ts';
import type { PlanFlow } from './form.ts';

/** How far from its chord an edge of an outline may lie, as a share of the size: the grid's steps move it a little. */
const NEAR = 2e-6;

/**
 * By how much curves turn left from the outline edges that stand for them, at the beginning and the end of each edge: what
 * `Flow.bends` is. 0 for edges that come from straight lines, or from none of the curves.
 * @param curves the paths that the outlines were made from, in the same place
 * @param tolerance what they were flattened with
 */
export function bendsOf({ points: p, next }: PlanFlow, curves: readonly Path[], tolerance: number): Float64Array {
  const bends = new Float64Array(2 * next.length);
  const chords = chordsOf(curves, tolerance);
  if (chords.segments.length === 0 || p.length === 0) return bends;
  const near = NEAR * p.reduce((most, v) => Math.max(most, Math.abs(v)), 0);
  const grid = new SegmentGrid(chords.segments);
  for (const [edge, after] of next.entries()) {
    const [ax, ay, bx, by] = [p[2 * edge]!, p[2 * edge + 1]!, p[2 * after]!, p[2 * after + 1]!];
    let found = -1;
    grid.near((ax + bx) / 2, (ay + by) / 2, near, (chord) => {
      if (found >= 0) return;
      const [x0, y0, x1, y1] = numbersAt(chords.segments, 4 * chord, 4);
      const isOn = (x: number, y: number) => distanceToSegment(x, y, x0, y0, x1, y1) <= near;
      if (isOn(ax, ay) && isOn(bx, by)) found = chord;
    });
    if (found < 0) continue;
    bends[2 * edge] = chords.turnAt(found, [ax, ay], [bx - ax, by - ay]);
    bends[2 * edge + 1] = chords.turnAt(found, [bx, by], [bx - ax, by - ay]);
  }
  return bends;
}

interface Chords {
  /** Four numbers each; straight lines have none. */
  readonly segments: Float64Array;
  /** How far the curve turns left from a direction, at the place of a chord that is nearest to (x, y). */
  readonly turnAt: (
    chord: number,
    place: readonly [x: number, y: number],
    way: readonly [x: number, y: number],
  ) => number;
}

function chordsOf(curves: readonly Path[], tolerance: number): Chords {
  const segments: number[] = [];
  const pieces = curves.flatMap((path) => contoursOf(path).flatMap((contour) => contour.pieces));
  const cubics = pieces.flatMap(({ isLine, cubic }) => (isLine ? [] : [cubic]));
  const owners: number[] = [];
  const spans: number[] = [];
  for (const [owner, cubic] of cubics.entries()) {
    let [x, y, t] = [cubic[0], cubic[1], 0];
    for (const point of [...chordPoints(cubic, tolerance), { x: cubic[6], y: cubic[7], t: 1 }]) {
      segments.push(x, y, point.x, point.y);
      owners.push(owner);
      spans.push(t, point.t);
      ({ x, y, t } = point);
    }
  }
  const turnAt: Chords['turnAt'] = (chord, [x, y], [wx, wy]) => {
    const [x0, y0, x1, y1] = [0, 1, 2, 3].map((k) => segments[4 * chord + k]!) as [number, number, number, number];
    const [dx, dy] = [x1 - x0, y1 - y0];
    const share = Math.min(1, Math.max(0, ((x - x0) * dx + (y - y0) * dy) / (dx * dx + dy * dy || 1)));
    const [from, to] = [spans[2 * chord]!, spans[2 * chord + 1]!];
    const direction = directionAt(cubics[owners[chord]!]!, from + share * (to - from));
    if (!direction) return 0;
    // The outline may run along the curve either way.
    const way = direction[0] * dx + direction[1] * dy >= 0 === wx * dx + wy * dy >= 0 ? 1 : -1;
    const [tx, ty] = [way * direction[0], way * direction[1]];
    const turn = Math.atan2(wx * ty - wy * tx, wx * tx + wy * ty);
    return Math.abs(turn) < MOST_BEND ? turn : 0;
  };
  return { segments: Float64Array.from(segments), turnAt };
}

/** A chord that turns further than this from its curve, in radians, stands for a cusp. */
const MOST_BEND = 1.2;
