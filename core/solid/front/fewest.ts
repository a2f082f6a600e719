// fewest.ts — a flat front as few triangles as its outline allows: its constrained Delaunay triangulation.
import { mendSlivers } from '../../geometry/slivers.ts';
import { triangulateInside } from '../../geometry/triangulate.ts';
import { compacted, type FlatMesh, type FlatOutline, triangleStarts } from './types.ts';

/**
 * @param least as `FrontFaces` has it
 * @param known the triangles, where somebody made them already
 * @throws {GeometryError} 'crossing-constraints' where edges cross
 */
export function fewestFaces(outline: FlatOutline, least: number, known?: Uint32Array): FlatMesh {
  const corners = known ?? trianglesIn(outline, least);
  return { added: [], starts: triangleStarts(corners.length), corners, splits: new Map() };
}

function trianglesIn(outline: FlatOutline, least: number): Uint32Array {
  const { points, edges, places } = compacted(outline);
  const triangles = triangulateInside(points, edges);
  mendSlivers(points, triangles, least);
  return triangles.corners.map((point) => places[point]!);
}
