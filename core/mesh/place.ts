// place.ts — meshes moved, sized and joined.
import { isMirroring, isStill, moved, type Rigid } from '../geometry/rigid.ts';
import { type Mesh, SIDES } from './types.ts';

/** The least and the greatest of each coordinate. @param lists flat x, y, z */
export function boxOfPoints(lists: readonly ArrayLike<number>[]): { min: number[]; max: number[] } {
  const min = [Infinity, Infinity, Infinity];
  const max = [-Infinity, -Infinity, -Infinity];
  for (const points of lists) {
    for (let i = 0; i < points.length; i++) {
      const [axis, v] = [i % 3, points[i]!];
      if (v < min[axis]!) min[axis] = v;
      if (v > max[axis]!) max[axis] = v;
    }
  }
  return { min, max };
}

/** The greatest z of its points. */
export function highestOf({ positions }: Mesh): number {
  let highest = -Infinity;
  for (let i = 2; i < positions.length; i += 3) highest = Math.max(highest, positions[i]!);
  return highest;
}

/** Several meshes as one; they stay apart in it. */
export function joinMeshes(meshes: readonly Mesh[]): Mesh {
  const [only] = meshes;
  if (only && meshes.length === 1) return only;
  const sum = (size: (mesh: Mesh) => number) => meshes.reduce((total, mesh) => total + size(mesh), 0);
  const positions = new Float64Array(sum((mesh) => mesh.positions.length));
  const starts = new Uint32Array(sum((mesh) => mesh.sides.length) + 1);
  const corners = new Uint32Array(sum((mesh) => mesh.corners.length));
  const sides = new Uint8Array(starts.length - 1);
  let [points, faces, used] = [0, 0, 0];
  for (const mesh of meshes) {
    positions.set(mesh.positions, 3 * points);
    sides.set(mesh.sides, faces);
    for (const [k, point] of mesh.corners.entries()) corners[used + k] = points + point;
    for (let f = 0; f < mesh.sides.length; f++) starts[faces + f + 1] = used + mesh.starts[f + 1]!;
    points += mesh.positions.length / 3;
    faces += mesh.sides.length;
    used += mesh.corners.length;
  }
  return { positions, starts, corners, sides };
}

/** The faces of a mesh the other way round: what looked outward looks inward. It knows no more how they follow outlines. */
export function turnedOver({ positions, starts, corners, sides }: Mesh): Mesh {
  const over = new Uint32Array(corners.length);
  for (let f = 0; f < sides.length; f++) {
    const [from, to] = [starts[f]!, starts[f + 1]!];
    for (let c = from; c < to; c++) over[c] = corners[to - 1 - (c - from)]!;
  }
  return { positions, starts, corners: over, sides };
}

/** The mesh after a move; its faces run the other way round in a mirror image, so that they still face outward. */
export function placedAt(mesh: Mesh, place: Rigid): Mesh {
  if (isStill(place)) return mesh;
  const { positions: p } = mesh;
  const positions = new Float64Array(p.length);
  for (let i = 0; i < p.length; i += 3) positions.set(moved(place, [p[i]!, p[i + 1]!, p[i + 2]!]), i);
  const { starts, corners, sides } = isMirroring(place) ? turnedOver(mesh) : mesh;
  return { positions, starts, corners, sides };
}

/** How steep a face of a mesh from a file may be and still count as its front or back: its normal's height. */
const LEVEL = 0.999;

/**
 * A mesh from a file on the sheet, standing on height 0: scaled about its origin on the sheet, and to a depth upward. Level
 * faces at its highest and lowest are its front and back, all others its wall.
 * @param origin the place that lies on the middle of the sheet, y down as for every source
 */
export function placedMesh(
  mesh: Mesh,
  { scale, origin: [x, y] }: { readonly scale: number; readonly origin: readonly [number, number] },
  depth: number,
): Mesh {
  const { positions: p } = mesh;
  const { min, max } = boxOfPoints([p]);
  const [low, high] = [min[2]!, max[2]!];
  const rise = high > low ? depth / (high - low) : 0;
  const positions = p.map((v, i) => (i % 3 === 0 ? scale * (v - x) : i % 3 === 1 ? scale * (v + y) : rise * (v - low)));
  return { ...mesh, positions, sides: sidesOf({ ...mesh, positions }, depth) };
}

function sidesOf({ positions: p, starts, corners }: Mesh, depth: number): Uint8Array {
  return Uint8Array.from({ length: starts.length - 1 }, (_, f) => {
    const heights = Array.from(corners.subarray(starts[f], starts[f + 1]), (point) => p[3 * point + 2]!);
    if (heights.every((height) => height >= LEVEL * depth)) return SIDES.indexOf('front');
    return SIDES.indexOf(heights.every((height) => height <= (1 - LEVEL) * depth) ? 'back' : 'wall');
  });
}
