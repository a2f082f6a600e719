// estimate.ts — how many faces a slab is going to have, told before it is made.
import type { Slab } from './schema.ts';

/** Outlines in figures. */
export interface Measured {
  /** Square project units. */
  readonly area: number;
  /** Of all outlines, holes too, in project units. */
  readonly length: number;
  readonly points: number;
}

/** Lines of a grid that a curve crosses, for each side of a square it is long, whatever way it runs (Crofton's formula). */
const CROSSINGS = 4 / Math.PI;

/**
 * About so many: a side of squares or even triangles takes its area over theirs, and rims are divided as finely; the edge's strips
 * and the wall's rows each take a face for each piece of the rim.
 */
export function estimateFaces(
  { faces, cell, wallRows, edge, backEdge, caps }: Slab,
  { area, length, points }: Measured,
) {
  const pieces =
    faces === 'fewest'
      ? points
      : faces === 'even'
        ? Math.max(points, length / cell)
        : points + (CROSSINGS * length) / cell;
  const onSide = (side: 'front' | 'back') => {
    const own = edge.on === 'both' || edge.on === side ? (side === 'back' && backEdge) || edge : null;
    const inset = own?.way === 'in' ? own.reach : 0;
    const left = Math.max(0, area - length * inset);
    const flat = {
      fewest: points,
      even: (4 * left) / (Math.sqrt(3) * cell * cell),
      grid: left / (cell * cell) + (CROSSINGS * length) / cell,
    }[faces];
    return (caps === 'both' || caps === side ? flat : 0) + (own?.steps ?? 0) * pieces;
  };
  return Math.round(onSide('front') + onSide('back') + wallRows * pieces);
}
