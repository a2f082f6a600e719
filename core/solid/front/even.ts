// even.ts — a flat front in triangles of one size: a triangular lattice inside, and Delaunay refinement where it meets the
// outline.
import { GeometryError } from '../../errors.ts';
import { SegmentGrid } from '../../outline/segment-grid.ts';
import { distanceToSegment } from '../../path/flatten.ts';
import { triangulateInside } from '../triangulate.ts';
import { refine } from './refine.ts';
import { compacted, type FlatMesh, type FlatOutline, triangleStarts } from './types.ts';

/** Lattice points per front at the most. */
export const MAX_POINTS = 200_000;

/** Lattice points nearer to the outline than this share of a cell would make flat triangles against it. */
const CLEARANCE = 0.6;

/** Largest circumradius, in cells; a lattice triangle has 0.58. */
const LARGEST = 0.85;

/**
 * @param cell length of an edge
 * @throws {GeometryError} 'out-of-range' when the cell is so small that the face count would explode
 */
export function evenFaces(outline: FlatOutline, cell: number): FlatMesh {
  const { points, edges, places } = compacted(outline);
  const all = Float64Array.from([...points, ...latticeInside({ points, edges }, cell)]);
  const refined = refine(all, edges, triangulateInside(all, edges), LARGEST * cell);
  const [known, first] = [places.length, outline.points.length / 2];
  const numbered = (point: number) => (point < known ? places[point]! : first + point - known);
  return {
    added: refined.points.slice(2 * known),
    starts: triangleStarts(refined.corners.length),
    corners: Uint32Array.from(refined.corners, numbered),
    splits: new Map([...refined.splits].map(([edge, list]) => [edge, list.map(numbered)])),
  };
}

/** Points of a triangular lattice of edge `cell` inside, clear of the outline; flat x, y. */
function latticeInside({ points, edges }: FlatOutline, cell: number): number[] {
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
  const rowHeight = (cell * Math.sqrt(3)) / 2;
  const expected = area / (cell * rowHeight);
  if (!(expected <= MAX_POINTS)) {
    const least = Math.sqrt((expected / MAX_POINTS) * cell * cell);
    throw new GeometryError(
      'out-of-range',
      `Even faces of ${cell} would need ${Math.round(expected)} points in one outline; choose a cell of at least ${least.toPrecision(2)}.`,
    );
  }
  const grid = new SegmentGrid(segments);
  const found: number[] = [];
  const clearance = CLEARANCE * cell;
  for (let row = Math.ceil(minY / rowHeight); row * rowHeight < maxY; row++) {
    const y = row * rowHeight;
    const shift = row % 2 === 0 ? 0 : cell / 2;
    const crossings = crossingsAt(grid, segments, y, minX, maxX);
    for (let c = 0; c + 1 < crossings.length; c += 2) {
      const [from, to] = [crossings[c]! + clearance, crossings[c + 1]! - clearance];
      for (let x = Math.ceil((from - shift) / cell) * cell + shift; x <= to; x += cell) {
        if (isClear(grid, segments, x, y, clearance)) found.push(x, y);
      }
    }
  }
  return found;
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
