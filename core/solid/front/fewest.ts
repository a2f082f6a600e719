// fewest.ts — a flat front as few triangles as its outline allows: its constrained Delaunay triangulation.
import { triangulateInside } from '../triangulate.ts';
import { compacted, type FlatMesh, type FlatOutline, triangleStarts } from './types.ts';

/**
 * @param known the triangles, where somebody made them already
 * @throws {GeometryError} 'crossing-constraints' where edges cross
 */
export function fewestFaces(outline: FlatOutline, known?: Uint32Array): FlatMesh {
  const corners = known ?? trianglesIn(outline);
  return { added: [], starts: triangleStarts(corners.length), corners, splits: new Map() };
}

function trianglesIn(outline: FlatOutline): Uint32Array {
  const { points, edges, places } = compacted(outline);
  return triangulateInside(points, edges).corners.map((point) => places[point]!);
}
