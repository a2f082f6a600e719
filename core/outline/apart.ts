// apart.ts — whether rings keep clear of each other and of themselves.
import { orient2d } from 'robust-predicates';
import { distanceToSegment } from '../path/flatten.ts';
import { boundsOf } from './measure.ts';
import { SegmentGrid } from './segment-grid.ts';
import type { Ring } from './types.ts';

/** All edges of the rings, four numbers each, ring after ring. */
export function segmentsOf(rings: readonly Ring[]): Float64Array {
  const segments = new Float64Array(rings.reduce((sum, ring) => sum + 2 * ring.length, 0));
  let at = 0;
  for (const ring of rings) {
    for (let i = 0; i < ring.length; i += 2) {
      const j = (i + 2) % ring.length;
      segments[at++] = ring[i]!;
      segments[at++] = ring[i + 1]!;
      segments[at++] = ring[j]!;
      segments[at++] = ring[j + 1]!;
    }
  }
  return segments;
}

/** Whether no two edges that are not neighbours cross or come within `distance` of each other. */
export function ringsAreApart(rings: readonly Ring[], distance: number): boolean {
  let isApart = true;
  eachNearPair(segmentsOf(rings), distance, () => {
    isApart = false;
    return false;
  });
  return isApart;
}

/** Places where two edges that are not neighbours cross or come within `distance` of each other, flat x, y. */
export function nearPlaces(rings: readonly Ring[], distance: number): number[] {
  const places: number[] = [];
  eachNearPair(segmentsOf(rings), distance, (p, q) => {
    places.push(...placeOf(p, q, distance));
    return true;
  });
  return places;
}

/** Where two edges cross, or else an end of one that lies near to the other. */
export function placeOf(p: Segment, q: Segment, distance: number): [x: number, y: number] {
  for (const [[x, y, u, v], [ax, ay, bx, by]] of [
    [p, q],
    [q, p],
  ] as const) {
    if (distanceToSegment(x, y, ax, ay, bx, by) <= distance) return [x, y];
    if (distanceToSegment(u, v, ax, ay, bx, by) <= distance) return [u, v];
  }
  const [ax, ay, bx, by] = p;
  const [cx, cy, dx, dy] = q;
  const [ux, uy, vx, vy] = [bx - ax, by - ay, dx - cx, dy - cy];
  const t = ((cx - ax) * vy - (cy - ay) * vx) / (ux * vy - uy * vx);
  return [ax + t * ux, ay + t * uy];
}

type Visit = (p: Segment, q: Segment, i: number, j: number) => boolean;

/**
 * Calls for each pair of edges, not neighbours, that are near each other, with their numbers, until it is told to stop.
 * @param s edges as by {@link segmentsOf}
 */
export function eachNearPair(s: Float64Array, distance: number, visit: Visit): void {
  const grid = new SegmentGrid(s);
  for (let i = 0; i < s.length; i += 4) {
    const [ax, ay, bx, by] = [s[i]!, s[i + 1]!, s[i + 2]!, s[i + 3]!];
    let goesOn = true;
    const [minX, maxX] = [Math.min(ax, bx) - distance, Math.max(ax, bx) + distance];
    const [minY, maxY] = [Math.min(ay, by) - distance, Math.max(ay, by) + distance];
    grid.box(minX, minY, maxX, maxY, (other) => {
      const j = 4 * other;
      if (!goesOn || j <= i) return;
      const [cx, cy, dx, dy] = [s[j]!, s[j + 1]!, s[j + 2]!, s[j + 3]!];
      if ((bx === cx && by === cy) || (dx === ax && dy === ay)) return;
      const [p, q] = [[ax, ay, bx, by] as const, [cx, cy, dx, dy] as const];
      if (areNear(p, q, distance)) goesOn = visit(p, q, i / 4, other);
    });
    if (!goesOn) return;
  }
}

/**
 * Calls for each pair of edges that pass through each other, with their numbers and the place, until it is told to stop.
 * @param s edges, four numbers each
 */
export function eachCrossing(s: Float64Array, visit: (i: number, j: number, x: number, y: number) => boolean): void {
  const grid = new SegmentGrid(s);
  let goesOn = true;
  for (let i = 0; i < s.length && goesOn; i += 4) {
    const [ax, ay, bx, by] = [s[i]!, s[i + 1]!, s[i + 2]!, s[i + 3]!];
    grid.box(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by), (other) => {
      const j = 4 * other;
      if (!goesOn || j <= i) return;
      const [cx, cy, dx, dy] = [s[j]!, s[j + 1]!, s[j + 2]!, s[j + 3]!];
      if (!cross(ax, ay, bx, by, cx, cy, dx, dy)) return;
      const turns = (bx - ax) * (dy - cy) - (by - ay) * (dx - cx);
      const t = ((cx - ax) * (dy - cy) - (cy - ay) * (dx - cx)) / turns;
      goesOn = visit(i / 4, other, ax + t * (bx - ax), ay + t * (by - ay));
    });
  }
}

export type Segment = readonly [ax: number, ay: number, bx: number, by: number];

/** Whether two segments cross or come within `distance` of each other. */
export function areNear([ax, ay, bx, by]: Segment, [cx, cy, dx, dy]: Segment, distance: number): boolean {
  return (
    cross(ax, ay, bx, by, cx, cy, dx, dy) ||
    distanceToSegment(ax, ay, cx, cy, dx, dy) <= distance ||
    distanceToSegment(bx, by, cx, cy, dx, dy) <= distance ||
    distanceToSegment(cx, cy, ax, ay, bx, by) <= distance ||
    distanceToSegment(dx, dy, ax, ay, bx, by) <= distance
  );
}

/** Whether the segments a–b and c–d pass through each other; segments that only touch are told by their distance. */
export function cross(
  ax: number,
  ay: number,
  bx: number,
  by: number,
  cx: number,
  cy: number,
  dx: number,
  dy: number,
): boolean {
  return (
    orient2d(ax, ay, bx, by, cx, cy) * orient2d(ax, ay, bx, by, dx, dy) < 0 &&
    orient2d(cx, cy, dx, dy, ax, ay) * orient2d(cx, cy, dx, dy, bx, by) < 0
  );
}

/** Whether the point is inside the ring (even-odd; either answer on the ring itself). */
export function pointInRing(x: number, y: number, ring: Ring): boolean {
  let inside = false;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const [x0, y0, x1, y1] = [ring[i]!, ring[i + 1]!, ring[j]!, ring[j + 1]!];
    if (y0 > y !== y1 > y && x < ((x1 - x0) * (y - y0)) / (y1 - y0) + x0) inside = !inside;
  }
  return inside;
}

/** Whether the point is inside of rings taken together (even-odd). */
export function pointInRings(x: number, y: number, rings: readonly Ring[]): boolean {
  return rings.reduce((isIn, ring) => isIn !== pointInRing(x, y, ring), false);
}

/** Whether a ring lies in another, taken that the two do not cross. */
export function isInside(ring: Ring, other: Ring): boolean {
  const [p, q] = [boundsOf([ring])!, boundsOf([other])!];
  if (p.minX < q.minX || p.maxX > q.maxX || p.minY < q.minY || p.maxY > q.maxY) return false;
  // The middle of an edge: corners may lie on the other ring where the two touch.
  return pointInRing((ring[0]! + ring[2]!) / 2, (ring[1]! + ring[3]!) / 2, other);
}
