// offset.ts — regions moved inward by a distance, corners mitred: what is left of a front inside its edge.
import { inflate } from './clipper.ts';
import { type Grid, gridFor, toGrid } from './grid.ts';
import { ringsOf } from './measure.ts';
import { fromGridRegions, settle } from './regions.ts';
import type { Region } from './types.ts';

/** Necks thinner than twice this share of the extent are taken as closed. */
const NECK = 2e-6 * 2 ** 26;

/**
 * Moves every edge of `regions` inward by `distance`.
 * @param distance in sheet units, > 0
 * @param gap cut at corners that come to touch, in sheet units: smaller than the distance to the next ring outside
 * @returns regions inside the given ones, each of their points at least `distance` away from the old boundary
 */
export function insetRegions(
  regions: readonly Region[],
  distance: number,
  gap: number,
  grid: Grid = gridFor(ringsOf(regions)),
): Region[] {
  const paths = ringsOf(regions).map((ring) => toGrid(ring, grid));
  const delta = distance / grid.step;
  // Going in a little further and back again takes away slivers that rounding leaves where a stroke just closed.
  const neck = Math.min(NECK, delta / 4);
  const left = inflate(inflate(paths, -(delta + neck)), neck);
  return fromGridRegions(settle(left, 'positive', gap / grid.step), grid);
}
