// grid.ts — the fixed integer grid on which regions are decided. Its step is a power of two, so every grid point is an
// exact double, coarser grids nest in finer ones, and products of coordinate differences stay exact (2^27 · 2^26 ≤ 2^53).
import type { GridPath, GridPoint } from './arrangement.ts';
import { boundsOf } from './measure.ts';
import type { Ring } from './types.ts';

/** Steps across the extent: 1.5e-8 of the size each; half of them reach from the origin to GRID_REACH. */
const GRID_BITS = 26;

export interface Grid {
  /** Sheet units in one step; a power of two. */
  readonly step: number;
}

/** A grid for these rings, measured from the origin because coordinates are absolute. */
export function gridFor(rings: Iterable<Ring>): Grid {
  const bounds = boundsOf(rings);
  const extent = bounds ? Math.max(...Object.values(bounds).map(Math.abs)) * 2 : 1;
  return { step: 2 ** (Math.ceil(Math.log2(extent || 1)) - GRID_BITS) };
}

export function toGrid(ring: Ring, { step }: Grid): GridPath {
  const path: GridPoint[] = [];
  for (let i = 0; i < ring.length; i += 2) {
    // Adding 0 turns -0 into 0, so that equal points are equal in every comparison.
    path.push({ x: Math.round(ring[i]! / step) + 0, y: Math.round(ring[i + 1]! / step) + 0 });
  }
  return path;
}

export function fromGrid(path: GridPath, { step }: Grid): Ring {
  const ring = new Float64Array(path.length * 2);
  for (const [i, { x, y }] of path.entries()) {
    ring[2 * i] = x * step;
    ring[2 * i + 1] = y * step;
  }
  return ring;
}
