// triangles.ts — polygon faces as triangles, for formats and tests that know nothing else.
import { faceCount, type Mesh } from './types.ts';

export interface Triangles {
  /** Point indices, three a triangle. */
  readonly indices: Uint32Array;
  /** The face each triangle comes from. */
  readonly faces: Uint32Array;
}

/** Quads are split along the shorter diagonal, the first one on a tie; larger faces as a fan around their first corner. */
export function trianglesOf(mesh: Mesh): Triangles {
  const { positions: p, starts, corners } = mesh;
  const faces = faceCount(mesh);
  const total = corners.length - 2 * faces;
  const indices = new Uint32Array(3 * total);
  const origin = new Uint32Array(total);
  let t = 0;
  const push = (a: number, b: number, c: number, face: number) => {
    indices[3 * t] = a;
    indices[3 * t + 1] = b;
    indices[3 * t + 2] = c;
    origin[t++] = face;
  };
  const distance2 = (a: number, b: number) =>
    (p[3 * a]! - p[3 * b]!) ** 2 + (p[3 * a + 1]! - p[3 * b + 1]!) ** 2 + (p[3 * a + 2]! - p[3 * b + 2]!) ** 2;
  for (let f = 0; f < faces; f++) {
    const from = starts[f]!;
    const size = starts[f + 1]! - from;
    const [a, b, c, d] = [corners[from]!, corners[from + 1]!, corners[from + 2]!, corners[from + 3]!];
    if (size === 4 && distance2(b, d) < distance2(a, c)) {
      push(a, b, d, f);
      push(b, c, d, f);
    } else {
      for (let k = 1; k + 1 < size; k++) push(a, corners[from + k]!, corners[from + k + 1]!, f);
    }
  }
  return { indices, faces: origin };
}
