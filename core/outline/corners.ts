// corners.ts — the ends and handles of paths, whose box contains the curves: enough where only a size is asked for.
import type { Path } from '../path/types.ts';
import { longestSide } from './measure.ts';
import type { Bounds, Ring } from './types.ts';

/** Ends and handles, flat x, y. */
export const cornersOf = (path: Path): Ring =>
  Float64Array.from(path.flatMap((segment) => segment.slice(1) as number[]));

/** The box round the ends and handles of all paths; null for none. */
export function roughBounds(paths: Iterable<Path>): Bounds | null {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const path of paths) {
    for (const segment of path) {
      for (let i = 1; i + 1 < segment.length; i += 2) {
        const [x, y] = [segment[i] as number, segment[i + 1] as number];
        minX = Math.min(minX, x);
        maxX = Math.max(maxX, x);
        minY = Math.min(minY, y);
        maxY = Math.max(maxY, y);
      }
    }
  }
  return minX <= maxX ? { minX, minY, maxX, maxY } : null;
}

/** Longest side of the box round the ends and handles of all paths; 1 where that is nothing. */
export function roughSize(paths: Iterable<Path>): number {
  const bounds = roughBounds(paths);
  return (bounds && longestSide(bounds)) || 1;
}
