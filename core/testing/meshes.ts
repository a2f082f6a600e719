// meshes.ts — made-up bodies for tests.
import type { Mesh } from '../mesh/types.ts';

export function meshFrom(
  points: readonly (readonly number[])[],
  faces: readonly (readonly number[])[],
  sides?: readonly number[],
): Mesh {
  const starts = [0];
  for (const face of faces) starts.push(starts.at(-1)! + face.length);
  return {
    positions: Float64Array.from(points.flat()),
    starts: Uint32Array.from(starts),
    corners: Uint32Array.from(faces.flat()),
    sides: Uint8Array.from(sides ?? faces.map(() => 0)),
  };
}

export const CUBE_POINTS = [0, 1, 2, 3, 4, 5, 6, 7].map((i) => [i & 1, (i >> 1) & 1, (i >> 2) & 1]);
/** Counter-clockwise seen from outside. */
export const CUBE_FACES = [
  [0, 2, 3, 1],
  [4, 5, 7, 6],
  [0, 1, 5, 4],
  [2, 6, 7, 3],
  [0, 4, 6, 2],
  [1, 3, 7, 5],
];
export const cube = (size = 1, dx = 0, dy = 0, dz = 0): Mesh =>
  meshFrom(
    CUBE_POINTS.map(([x, y, z]) => [dx + size * x!, dy + size * y!, dz + size * z!]),
    CUBE_FACES,
  );

export function joinedMeshes(...meshes: readonly Mesh[]): Mesh {
  const points: number[][] = [];
  const faces: number[][] = [];
  for (const { positions, starts, corners } of meshes) {
    const first = points.length;
    for (let i = 0; i < positions.length; i += 3) points.push([...positions.subarray(i, i + 3)]);
    for (let f = 0; f + 1 < starts.length; f++)
      faces.push([...corners.subarray(starts[f], starts[f + 1])].map((p) => p + first));
  }
  return meshFrom(points, faces);
}
