// uv.ts — where the faces of a slab lie on pictures: front and back as they are seen, walls and edges unrolled; or all of it packed
// side by side, to bake on.
import { packed } from './pack.ts';
import { flatUvs, Strips } from './strips.ts';
import { type Mesh, SIDES } from './types.ts';

/**
 * `units` leaves project units; `fitted` scales them alike until front and back fill 0 to 1; `packed` gives every face a
 * place of its own within 0 to 1.
 */
export const UV_LAYOUTS = ['units', 'fitted', 'packed'] as const;
export type UvLayout = (typeof UV_LAYOUTS)[number];

const [FRONT, , , BACK] = SIDES.map((_, i) => i) as [number, number, number, number];

/**
 * Flat u, v for every corner of a mesh, v upward.
 * - Front: u = x, v = y. Back: u = −x, so that it reads from behind. So are edges of which nobody knows what they follow.
 * - Wall and edge: u runs along the outline with the inside on its left, from its lowest point (of several the leftmost), and
 *   v from the back's edge upward; the wall begins at 0. Seen from outside, u runs to the right.
 * @returns null for a mesh without an outline
 */
export function layUvs(mesh: Mesh, layout: UvLayout): Float32Array | null {
  if (!mesh.flow) return null;
  const strips = new Strips(mesh, mesh.flow);
  const flat = flatUvs(mesh, strips);
  switch (layout) {
    case 'units':
      return Float32Array.from(flat);
    case 'fitted':
      return fitted(mesh, flat);
    case 'packed':
      return packed(mesh, flat, strips);
  }
}
/** Front and back moved and scaled alike into 0 to 1; walls and edges keep the scale. */
function fitted({ starts, corners, sides, positions }: Mesh, flat: Float64Array): Float32Array {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const point of corners) {
    const [x, y] = [positions[3 * point]!, positions[3 * point + 1]!];
    [minX, minY, maxX, maxY] = [Math.min(minX, x), Math.min(minY, y), Math.max(maxX, x), Math.max(maxY, y)];
  }
  const scale = 1 / (Math.max(maxX - minX, maxY - minY) || 1);
  const result = new Float32Array(flat.length);
  for (const [f, side] of sides.entries()) {
    const shift = side === FRONT ? [minX, minY] : side === BACK ? [-maxX, minY] : [0, 0];
    for (let c = starts[f]!; c < starts[f + 1]!; c++) {
      for (const k of [0, 1]) result[2 * c + k] = (flat[2 * c + k]! - shift[k]!) * scale;
    }
  }
  return result;
}
