// measure.ts — area, length and bounds of rings and regions.
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
