// Normals of meshes that follow no outline, against the formula by hand: face normals weighted by the corner's angle (Thürmer &
// Wüthrich 1998, “Computing vertex normals from polygonal facets”).
import { describe, expect, it } from 'vitest';
import { cube } from '../testing/meshes.ts';
import { splitVertices } from './normals.ts';

/** Normals at the corners of a mesh that lie at a place. */
function normalsAt(mesh: ReturnType<typeof cube>, place: readonly number[], crease: number): number[][] {
  const { normals, vertexOfCorner } = splitVertices(mesh, { crease, blend: 'none' });
  const found: number[][] = [];
  for (const [corner, point] of mesh.corners.entries()) {
    if (![0, 1, 2].every((k) => mesh.positions[3 * point + k] === place[k])) continue;
    const vertex = vertexOfCorner[corner]!;
    found.push([...normals.subarray(3 * vertex, 3 * vertex + 3)]);
  }
  return found;
}

describe('normals of a cube of one side', () => {
  it('are those of its faces where its edges are creases', () => {
    const found = normalsAt(cube(2), [2, 2, 2], 40);
    expect(found.map((normal) => normal.map(Math.round)).sort()).toEqual([
      [0, 0, 1],
      [0, 1, 0],
      [1, 0, 0],
    ]);
  });

  it('count its level faces where its edges are smooth', () => {
    // Upright faces take the mean of three faces with a right angle each; what is level stays so.
    const [level, ...upright] = normalsAt(cube(2), [2, 2, 2], 100).sort((a, b) => b[2]! - a[2]!);
    expect(level).toEqual([0, 0, 1]);
    for (const normal of upright) for (const v of normal) expect(v).toBeCloseTo(1 / Math.sqrt(3), 6);
  });
});
