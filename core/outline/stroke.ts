// stroke.ts — what a round pen covers along a path.
import { polylines } from '../path/flatten.ts';
import type { Path } from '../path/types.ts';
import { pen } from './clipper.ts';
import { gridFor, toGrid } from './grid.ts';
import { fromGridRegions, settle } from './regions.ts';
import type { Region } from './types.ts';

/**
 * The regions of a stroke with round joins and ends.
 * @param path open or closed; a piece of no length is a dot
 * @param width in the path's units, > 0
 * @param tolerance largest distance between chord and curve
 */
export function strokeRegions(path: Path, width: number, tolerance: number): Region[] {
  const lines = polylines(path, tolerance);
  const reach = lines.map(({ points }) => points.map((v) => v + Math.sign(v) * width));
  const grid = gridFor(reach);
  const drawn = lines.map(({ points, isClosed }) => ({ path: toGrid(points, grid), isClosed }));
  return fromGridRegions(settle(pen(drawn, width / grid.step, tolerance / grid.step), 'nonzero'), grid);
}
