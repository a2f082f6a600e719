// fewest.ts — a flat front as few triangles as its outline allows: its constrained Delaunay triangulation.
import { triangulateInside } from '../triangulate.ts';
import { compacted, type FlatMesh, type FlatOutline, triangleStarts } from './types.ts';

/** @throws {GeometryError} 'crossing-constraints' where edges cross */
export function fewestFaces(outline: FlatOutline): FlatMesh {
  const { points, edges, places } = compacted(outline);
  const corners = triangulateInside(points, edges).corners.map((point) => places[point]!);
  return { added: [], starts: triangleStarts(corners.length), corners, splits: new Map() };
}
