// scan.ts — an outline as horizontal lines see it: which parts of them lie inside.
import { SegmentGrid } from '../../outline/segment-grid.ts';
import type { FlatOutline } from './types.ts';

export interface Scan {
  /** Flat x0, y0, x1, y1 of the outline's edges. */
  readonly segments: Float64Array;
  readonly grid: SegmentGrid;
  readonly area: number;
  readonly minY: number;
  readonly maxY: number;
  /** The parts of the line at height y that lie inside, from left to right. */
  at(y: number): [from: number, to: number][];
}

export function scanInside({ points, edges }: FlatOutline): Scan {
  const segments = new Float64Array(2 * edges.length);
  let [area, minX, minY, maxX, maxY] = [0, Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < edges.length; i += 2) {
    const [a, b] = [2 * edges[i]!, 2 * edges[i + 1]!];
    const [x0, y0, x1, y1] = [points[a]!, points[a + 1]!, points[b]!, points[b + 1]!];
    segments.set([x0, y0, x1, y1], 2 * i);
    area += (x0 * y1 - x1 * y0) / 2;
    [minX, minY] = [Math.min(minX, x0), Math.min(minY, y0)];
    [maxX, maxY] = [Math.max(maxX, x0), Math.max(maxY, y0)];
  }
  const grid = new SegmentGrid(segments);
  return {
    segments,
    grid,
    area,
    minY,
    maxY,
    at(y) {
      const crossings = crossingsAt(grid, segments, y, minX, maxX);
      return Array.from({ length: crossings.length >> 1 }, (_, i) => [crossings[2 * i]!, crossings[2 * i + 1]!]);
    },
  };
}

/** Where the horizontal line at y crosses the boundary, from left to right; half-open in y, so corners count once. */
function crossingsAt(grid: SegmentGrid, s: Float64Array, y: number, minX: number, maxX: number): number[] {
  const xs: number[] = [];
  grid.box(minX, y, maxX, y, (id) => {
    const [x0, y0, x1, y1] = [s[4 * id]!, s[4 * id + 1]!, s[4 * id + 2]!, s[4 * id + 3]!];
    if (y0 <= y !== y1 <= y) xs.push(x0 + ((x1 - x0) * (y - y0)) / (y1 - y0));
  });
  return xs.sort((a, b) => a - b);
}
