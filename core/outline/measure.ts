// measure.ts — area, length and bounds of rings and regions.
import { flatten, polylines } from '../path/flatten.ts';
import type { Path } from '../path/types.ts';
import type { Bounds, Region, Ring } from './types.ts';

/** Signed area: positive for counter-clockwise, y up (shoelace, taken about the first point to keep digits). */
export function ringArea(ring: Ring): number {
  const n = ring.length;
  const x0 = ring[0] ?? 0;
  const y0 = ring[1] ?? 0;
  let twice = 0;
  for (let i = 0, j = n - 2; i < n; j = i, i += 2) {
    twice += (ring[j]! - x0) * (ring[i + 1]! - y0) - (ring[i]! - x0) * (ring[j + 1]! - y0);
  }
  return twice / 2;
}

/** Length of the closed ring. */
export function ringLength(ring: Ring): number {
  let sum = 0;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    sum += Math.hypot(ring[i]! - ring[j]!, ring[i + 1]! - ring[j + 1]!);
  }
  return sum;
}

/** Of all rings together. */
export const ringsLength = (rings: readonly Ring[]): number => rings.reduce((sum, ring) => sum + ringLength(ring), 0);

/** Every ring of the regions, outer before its holes. */
export function ringsOf(regions: readonly Region[]): Ring[] {
  return regions.flatMap((region) => [region.outer, ...region.holes]);
}

export function regionsArea(regions: readonly Region[]): number {
  return ringsOf(regions).reduce((sum, ring) => sum + ringArea(ring), 0);
}

export function pointCount(regions: readonly Region[]): number {
  return ringsOf(regions).reduce((sum, ring) => sum + ring.length / 2, 0);
}

/** Centroid of the area of rings, holes taken off, about the first point to keep digits; that point where they have no area. */
export function centroidOf(rings: readonly Ring[]): [x: number, y: number] {
  const [x0, y0] = [rings[0]?.[0] ?? 0, rings[0]?.[1] ?? 0];
  let [sx, sy, twice] = [0, 0, 0];
  for (const ring of rings) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, ay, bx, by] = [ring[j]! - x0, ring[j + 1]! - y0, ring[i]! - x0, ring[i + 1]! - y0];
      const area = ax * by - bx * ay;
      sx += (ax + bx) * area;
      sy += (ay + by) * area;
      twice += area;
    }
  }
  return twice === 0 ? [x0, y0] : [x0 + sx / (3 * twice), y0 + sy / (3 * twice)];
}

/** Null when there is no point. */
export function boundsOf(rings: Iterable<Ring>): Bounds | null {
  let minX = Infinity;
  let minY = Infinity;
  let maxX = -Infinity;
  let maxY = -Infinity;
  for (const ring of rings) {
    for (let i = 0; i < ring.length; i += 2) {
      minX = Math.min(minX, ring[i]!);
      maxX = Math.max(maxX, ring[i]!);
      minY = Math.min(minY, ring[i + 1]!);
      maxY = Math.max(maxY, ring[i + 1]!);
    }
  }
  return minX <= maxX ? { minX, minY, maxX, maxY } : null;
}

export function longestSide({ minX, minY, maxX, maxY }: Bounds): number {
  return Math.max(maxX - minX, maxY - minY);
}

/** Chords stray this share of a path's size when it is measured roughly. */
const ROUGH = 1 / 500;

/** How thick a filled path is on average: that of a band with as much area and as much boundary. */
export function meanThickness(path: Path): number {
  const bounds = boundsOf(polylines(path, Infinity).map(({ points }) => points));
  const size = bounds ? longestSide(bounds) : 0;
  const rings = size > 0 ? flatten(path, ROUGH * size) : [];
  const length = ringsLength(rings);
  return length > 0 ? (2 * Math.abs(rings.reduce((sum, ring) => sum + ringArea(ring), 0))) / length : 0;
}
