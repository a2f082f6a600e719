// dust.ts — outlines that are smaller than curves may stray: nothing is seen of them, and what is built of them is noise.
import { ringArea, ringLength } from './measure.ts';
import type { Region, Ring } from './types.ts';

/** Whether a ring is smaller than a square with such a side, or a strip of half that width. @param tolerance in the ring's units */
export const isDust = (ring: Ring, tolerance: number): boolean =>
  4 * Math.abs(ringArea(ring)) < tolerance * ringLength(ring);

/** Regions without those that are dust, and without holes that are; all of them where nothing else is there. */
export function withoutDust(regions: readonly Region[], tolerance: number): Region[] {
  const kept = regions.filter(({ outer }) => !isDust(outer, tolerance));
  return (kept.length > 0 ? kept : regions).map(({ outer, holes }) => ({
    outer,
    holes: holes.filter((hole) => !isDust(hole, tolerance)),
  }));
}
