// regions.ts — rings to regions: fill rule, overlaps, touching corners, negligible points. The result can be extruded as
// it stands: rings neither cross nor come nearer to each other than TOUCH steps of the grid.
import { fillRegions, type GridFill, type GridPath, type GridRegion } from './arrangement.ts';
import { fromGrid, type Grid, gridFor, toGrid } from './grid.ts';
import { ringArea } from './measure.ts';
import { simpleRegions } from './simple.ts';
import { dropNegligible } from './simplify.ts';
import { openTouches, TOUCH } from './touches.ts';
import type { Region, Ring } from './types.ts';

/** Opening one touch can bring about another, hardly ever twice. */
const MAX_ROUNDS = 8;

/** Cut at a touching corner, as a share of the extent: far above float32 resolution, far below what is seen. */
const TOUCH_GAP = 3e-5 * 2 ** 26;

/**
 * The regions that `rings` fill.
 * @param rings any rings: crossing, overlapping, repeated, touching, in either direction; not modified
 * @param fill the fill rule; `positive` where rings are already oriented
 * @returns disjoint regions, largest first; `[]` when nothing has area
 * @example regionsOf([Float64Array.of(0, 0, 2, 0, 2, 2, 0, 2)], 'nonzero')
 */
export function regionsOf(rings: readonly Ring[], fill: GridFill, grid: Grid = gridFor(rings)): Region[] {
  return fromGridRegions(
    settle(
      rings.map((ring) => toGrid(ring, grid)),
      fill,
    ),
    grid,
  );
}

/** Unites, simplifies and opens touches until nothing changes. */
export function settle(paths: readonly GridPath[], fill: GridFill, gap = TOUCH_GAP): GridRegion[] {
  const simple = simpleRegions(paths, fill);
  if (simple) return simple;
  let regions = fillRegions(paths, fill);
  for (let round = 0; round < MAX_ROUNDS; round++) {
    regions = simplified(regions);
    const rings = regions.flatMap((region) => [region.outer, ...region.holes]);
    const opened = openTouches(rings, Math.max(gap, 3 * TOUCH) * (1 + round / 2));
    if (!opened) break;
    regions = fillRegions(opened, 'positive');
  }
  return regions;
}

function simplified(regions: readonly GridRegion[]): GridRegion[] {
  return regions
    .map(({ outer, holes }) => ({
      outer: dropNegligible(outer),
      holes: holes.map(dropNegligible).filter((hole) => hole.length >= 3),
    }))
    .filter(({ outer }) => outer.length >= 3);
}

export function fromGridRegions(regions: readonly GridRegion[], grid: Grid): Region[] {
  return regions
    .map(({ outer, holes }) => ({ outer: fromGrid(outer, grid), holes: holes.map((hole) => fromGrid(hole, grid)) }))
    .map((region) => ({ region, area: ringArea(region.outer) }))
    .sort((a, b) => b.area - a.area)
    .map(({ region }) => region);
}
