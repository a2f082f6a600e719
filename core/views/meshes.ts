// meshes.ts — meshes as a graphics card draws them.
import { type Shading, shade } from '../mesh/normals.ts';
import { boxOfPoints } from '../mesh/place.ts';
import { type Section, sorted } from '../mesh/sections.ts';
import { faceCount, type Mesh } from '../mesh/types.ts';

/** What is drawn of one layer, standing on height 0. */
export interface DrawnMesh {
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  /** Two a point; none unless the checker is shown. */
  readonly uvs: Float32Array;
  readonly indices: Uint32Array;
  /** Triangles by what they are made of, the layer's own material first. */
  readonly sections: readonly Section[];
  /** Ends of the faces' edges; none unless they are shown. */
  readonly wire: Float32Array;
  /** Centre and radius of a ball around it. */
  readonly ball: readonly [x: number, y: number, z: number, radius: number];
}

/**
 * @param places on pictures, for each corner; null for none
 * @param sectionOf by side, the number of the material it is made of
 */
export function drawnMesh(
  mesh: Mesh,
  shading: Shading,
  places: Float32Array | null,
  hasWire: boolean,
  sectionOf: readonly number[],
): DrawnMesh {
  const { positions, normals, uvs, indices: shaded } = shade(mesh, shading, places);
  const { indices, sections } = sorted(mesh, shaded, sectionOf);
  const { min, max } = boxOfPoints([positions]);
  const middle = min.map((v, k) => (v + max[k]!) / 2) as [number, number, number];
  const radius = Math.hypot(...max.map((v, k) => (v - min[k]!) / 2));
  const none = new Float32Array(0);
  return {
    positions,
    normals,
    uvs: uvs ?? none,
    indices,
    sections,
    wire: hasWire ? wireOf(mesh) : none,
    ball: [...middle, radius],
  };
}

/** What can be handed over with a mesh. */
export const buffersOfDrawn = ({ positions, normals, uvs, indices, wire }: DrawnMesh): ArrayBufferLike[] =>
  [positions, normals, uvs, indices, wire].map(({ buffer }) => buffer);

/** Every edge once: of the two faces at an edge, the one that runs it from the lower point draws it. */
function wireOf(mesh: Mesh): Float32Array {
  const { positions, starts, corners } = mesh;
  const ends: number[] = [];
  for (let f = 0; f < faceCount(mesh); f++) {
    const [from, to] = [starts[f]!, starts[f + 1]!];
    for (let c = from; c < to; c++) {
      const [a, b] = [corners[c]!, corners[c + 1 < to ? c + 1 : from]!];
      if (a < b) for (const p of [a, b]) ends.push(positions[3 * p]!, positions[3 * p + 1]!, positions[3 * p + 2]!);
    }
  }
  return Float32Array.from(ends);
}
