// lattice.ts — points for evenly sized front faces: rims divided to the cell size, a triangular lattice inside.
import { GeometryError } from '../errors.ts';
import { segmentsOf } from '../outline/apart.ts';
import { boundsOf, regionsArea, ringsOf } from '../outline/measure.ts';
import { SegmentGrid } from '../outline/segment-grid.ts';
import type { Region, Ring } from '../outline/types.ts';
import { distanceToSegment } from '../path/flatten.ts';

/** Lattice points per region at the most. */
const MAX_POINTS = 200_000;
/** Lattice points nearer to the rim than this share of a cell would make flat triangles against it. */
const RIM_CLEARANCE = 0.6;

/** The region with every edge divided into equal parts no longer than `cell`. */
export function subdivide(region: Region, cell: number): Region {
  return { outer: divideRing(region.outer, cell), holes: region.holes.map((hole) => divideRing(hole, cell)) };
}

function divideRing(ring: Ring, cell: number): Ring {
  const points: number[] = [];
  for (let i = 0; i < ring.length; i += 2) {
    const j = (i + 2) % ring.length;
    const [dx, dy] = [ring[j]! - ring[i]!, ring[j + 1]! - ring[i + 1]!];
    const parts = Math.max(1, Math.ceil(Math.hypot(dx, dy) / cell - 1e-9));
    for (let k = 0; k < parts; k++) points.push(ring[i]! + (dx * k) / parts, ring[i + 1]! + (dy * k) / parts);
  }
  return Float64Array.from(points);
}

/**
 * Points of a triangular lattice of edge `cell` inside the regions, clear of their boundary.
 * @throws {GeometryError} 'out-of-range' when the cell is so small that the face count would explode
 */
export function latticeInside(regions: readonly Region[], cell: number): [number, number][] {
  const rings = ringsOf(regions);
  const bounds = boundsOf(rings);
  if (!bounds) return [];
  const rowHeight = (cell * Math.sqrt(3)) / 2;
  const expected = regionsArea(regions) / (cell * rowHeight);
  if (!(expected <= MAX_POINTS)) {
    const least = Math.sqrt((expected / MAX_POINTS) * cell * cell);
    throw new GeometryError(
      'out-of-range',
      `Even faces of ${cell} would need ${Math.round(expected)} points in one outline; choose a cell of at least ${least.toPrecision(2)}.`,
    );
  }
  const segments = segmentsOf(rings);
  const grid = new SegmentGrid(segments);
  const points: [number, number][] = [];
  const clearance = RIM_CLEARANCE * cell;
  const firstRow = Math.ceil(bounds.minY / rowHeight);
  for (let row = firstRow; row * rowHeight < bounds.maxY; row++) {
    const y = row * rowHeight;
    const shift = row % 2 === 0 ? 0 : cell / 2;
    const crossings = crossingsAt(grid, segments, y, bounds.minX, bounds.maxX);
    for (let c = 0; c + 1 < crossings.length; c += 2) {
      const from = crossings[c]! + clearance;
      const to = crossings[c + 1]! - clearance;
      for (let x = Math.ceil((from - shift) / cell) * cell + shift; x <= to; x += cell) {
        if (isClear(grid, segments, x, y, clearance)) points.push([x, y]);
      }
    }
  }
  return points;
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

function isClear(grid: SegmentGrid, s: Float64Array, x: number, y: number, clearance: number): boolean {
  let clear = true;
  grid.near(x, y, clearance, (id) => {
    const i = 4 * id;
    if (clear) clear = distanceToSegment(x, y, s[i]!, s[i + 1]!, s[i + 2]!, s[i + 3]!) >= clearance;
  });
  return clear;
}
