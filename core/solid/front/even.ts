// even.ts — a flat front in triangles of one size: a triangular lattice inside, and Delaunay refinement where it meets the
// outline.
import { GeometryError } from '../../base/errors.ts';
import { mendSlivers } from '../../geometry/slivers.ts';
import { triangulateInside } from '../../geometry/triangulate.ts';
import type { SegmentGrid } from '../../outline/segment-grid.ts';
import { distanceToSegment } from '../../path/flatten.ts';
import { refine } from './refine.ts';
import { scanInside } from './scan.ts';
import { compacted, type FlatMesh, type FlatOutline, triangleStarts } from './types.ts';

/** Lattice points per front at the most. */
const MAX_POINTS = 200_000;

/** Lattice points nearer to the outline than this share of a cell would make flat triangles against it. */
const CLEARANCE = 0.6;

/** Largest circumradius, in cells; a lattice triangle has 0.58. */
const LARGEST = 0.85;

/**
 * @param cell length of an edge
 * @param least as `FrontFaces` has it
 * @throws {GeometryError} 'out-of-range' when the cell is so small that the face count would explode
 */
export function evenFaces(outline: FlatOutline, cell: number, least: number): FlatMesh {
  const { points, edges, places } = compacted(outline);
  const all = Float64Array.from([...points, ...latticeInside({ points, edges }, cell)]);
  const refined = refine(all, edges, triangulateInside(all, edges), { largest: LARGEST * cell, least });
  mendSlivers(refined.points, refined, least);
  const [known, first] = [places.length, outline.points.length / 2];
  const numbered = (point: number) => (point < known ? places[point]! : first + point - known);
  return {
    added: refined.points.slice(2 * known),
    starts: triangleStarts(refined.corners.length),
    corners: refined.corners.map(numbered),
    splits: new Map([...refined.splits].map(([edge, list]) => [edge, list.map(numbered)])),
  };
}

/** Points of a triangular lattice of edge `cell` inside, clear of the outline; flat x, y. */
function latticeInside(outline: FlatOutline, cell: number): number[] {
  const { segments, grid, area, minY, maxY, at } = scanInside(outline);
  const rowHeight = (cell * Math.sqrt(3)) / 2;
  const expected = area / (cell * rowHeight);
  if (!(expected <= MAX_POINTS)) {
    const least = Math.sqrt((expected / MAX_POINTS) * cell * cell);
    throw new GeometryError(
      'out-of-range',
      `Even faces of ${cell} would need ${Math.round(expected)} points in one outline; choose a cell of at least ${least.toPrecision(2)}.`,
    );
  }
  const found: number[] = [];
  const clearance = CLEARANCE * cell;
  for (let row = Math.ceil(minY / rowHeight); row * rowHeight < maxY; row++) {
    const y = row * rowHeight;
    const shift = row % 2 === 0 ? 0 : cell / 2;
    for (const [from, to] of at(y)) {
      for (let x = Math.ceil((from + clearance - shift) / cell) * cell + shift; x <= to - clearance; x += cell) {
        if (isClear(grid, segments, x, y, clearance)) found.push(x, y);
      }
    }
  }
  return found;
}

function isClear(grid: SegmentGrid, s: Float64Array, x: number, y: number, clearance: number): boolean {
  let clear = true;
  grid.near(x, y, clearance, (id) => {
    const i = 4 * id;
    if (clear) clear = distanceToSegment(x, y, s[i]!, s[i + 1]!, s[i + 2]!, s[i + 3]!) >= clearance;
  });
  return clear;
}
