// corners.ts — the ends and handles of paths, whose box contains the curves: enough where only a size is asked for.
import type { Path } from '../path/types.ts';
import { boundsOf, longestSide } from './measure.ts';
import type { Ring } from './types.ts';

/** Ends and handles, flat x, y. */
export const cornersOf = (path: Path): Ring =>
  Float64Array.from(path.flatMap((segment) => segment.slice(1) as number[]));

/** Longest side of the box round the ends and handles of all paths; 1 where that is nothing. */
export function roughSize(paths: readonly Path[]): number {
  const bounds = boundsOf(paths.map(cornersOf));
  return (bounds && longestSide(bounds)) || 1;
}
