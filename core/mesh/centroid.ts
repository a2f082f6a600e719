// centroid.ts — what a closed mesh encloses, and the middle of that.
import { trianglesOf } from './triangles.ts';
import type { Mesh } from './types.ts';

export interface Enclosed {
  /** Positive where faces point outward. */
  readonly volume: number;
  readonly middle: readonly [x: number, y: number, z: number];
}

/**
 * Volume and its centroid: of the tetrahedra between each triangle and one point, weighted by their signed volumes (Gauss; Mirtich
 * 1996). Null for a mesh that encloses nothing.
 */
export function enclosedBy(mesh: Mesh): Enclosed | null {
  const { positions: p } = mesh;
  const { indices } = trianglesOf(mesh);
  if (indices.length === 0) return null;
  const origin = 3 * indices[0]!;
  // About a point of its own, to keep digits.
  const [ox, oy, oz] = [p[origin]!, p[origin + 1]!, p[origin + 2]!];
  let [sum, sx, sy, sz] = [0, 0, 0, 0];
  for (let t = 0; t < indices.length; t += 3) {
    const [a, b, c] = [3 * indices[t]!, 3 * indices[t + 1]!, 3 * indices[t + 2]!];
    const [ax, ay, az] = [p[a]! - ox, p[a + 1]! - oy, p[a + 2]! - oz];
    const [bx, by, bz] = [p[b]! - ox, p[b + 1]! - oy, p[b + 2]! - oz];
    const [cx, cy, cz] = [p[c]! - ox, p[c + 1]! - oy, p[c + 2]! - oz];
    const six = ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx);
    sum += six;
    sx += six * (ax + bx + cx);
    sy += six * (ay + by + cy);
    sz += six * (az + bz + cz);
  }
  if (sum === 0) return null;
  return { volume: sum / 6, middle: [ox + sx / (4 * sum), oy + sy / (4 * sum), oz + sz / (4 * sum)] };
}
