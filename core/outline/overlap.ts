// overlap.ts — how much of the sheet two sets of regions share.
import { fillRegions } from './arrangement.ts';
import { gridFor, toGrid } from './grid.ts';
import { boundsOf, regionsArea, ringsOf } from './measure.ts';
import { fromGridRegions } from './regions.ts';
import type { Region } from './types.ts';

/**
 * Area of a ∩ b, or 0 where they only touch: where it is no more than `share` of the smaller one's area, which rounding
 * along a common boundary can amount to.
 */
export function overlapArea(a: readonly Region[], b: readonly Region[], share: number): number {
  const shared = sharedArea(a, b);
  return shared > share * Math.min(regionsArea(a), regionsArea(b)) ? shared : 0;
}

/** Area of a ∩ b in square sheet units; 0 where they only touch along a line, up to rounding. */
export function sharedArea(a: readonly Region[], b: readonly Region[]): number {
  const [p, q] = [boundsOf(ringsOf(a)), boundsOf(ringsOf(b))];
  if (!p || !q || p.maxX <= q.minX || q.maxX <= p.minX || p.maxY <= q.minY || q.maxY <= p.minY) return 0;
  const grid = gridFor([...ringsOf(a), ...ringsOf(b)]);
  const onGrid = (regions: readonly Region[]) => ringsOf(regions).map((ring) => toGrid(ring, grid));
  return regionsArea(fromGridRegions(fillRegions([...onGrid(a), ...onGrid(b)], 'twice'), grid));
}
