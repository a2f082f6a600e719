// surface.ts — everything that is baked as triangles: where they are in the world, on the picture, and what they are made of.
import { type Part, paintOf, settledParts } from '../formats/part.ts';
import { isMirroring, STAY } from '../geometry/rigid.ts';
import type { Material } from '../materials/schema.ts';
import { placedVertices, splitVertices } from '../mesh/normals.ts';
import { type Packing, packTogether } from '../mesh/pack.ts';
import { triangleCorners } from '../mesh/triangles.ts';
import type { Mesh } from '../mesh/types.ts';

export interface Surface {
  readonly count: number;
  /** Nine numbers a triangle: its three corners in the world, and the normals there. */
  readonly positions: Float64Array;
  readonly normals: Float32Array;
  /** Six numbers a triangle: pixels right and down from the upper left of the picture. */
  readonly places: Float32Array;
  /** One number a triangle: the piece of the picture it is on, and its material among {@link materials}. */
  readonly charts: Uint32Array;
  readonly paints: Uint16Array;
  readonly materials: readonly Material[];
  /** Six numbers a triangle: where its corners lie on the pictures that their materials show, v upward. */
  readonly shown: Float32Array;
  /** By part: flat u, v for every corner of its mesh, v upward. */
  readonly uvs: readonly Float32Array[];
}

/** @param size pixels of a side of the picture @param margin pixels round each piece */
export function surfaceOf(parts: readonly Part[], size: number, margin: number): Surface {
  // Places on pictures follow outlines, which meshes that were moved know nothing of.
  const packing = packTogether(
    parts.map(({ mesh }) => mesh),
    margin / size,
  );
  const placed = settledParts(parts);
  const corners = parts.map(({ mesh }) => triangleCorners(mesh));
  const count = corners.reduce((sum, list) => sum + list.length / 3, 0);
  const surface = {
    count,
    positions: new Float64Array(9 * count),
    normals: new Float32Array(9 * count),
    places: new Float32Array(6 * count),
    shown: new Float32Array(6 * count),
    charts: new Uint32Array(count),
    paints: new Uint16Array(count),
    materials: [] as Material[],
    uvs: packing.uvs,
  };
  let first = 0;
  for (const [i, part] of parts.entries()) {
    write(surface, first, part, placed[i]!.mesh, corners[i]!, { packing, of: i, size });
    first += corners[i]!.length / 3;
  }
  return surface;
}

function write(
  { positions, normals, places, shown, charts, paints, materials }: Surface & { readonly materials: Material[] },
  first: number,
  part: Part,
  { positions: p }: Mesh,
  corners: Uint32Array,
  { packing, of, size }: { readonly packing: Packing; readonly of: number; readonly size: number },
): void {
  const { mesh, shading, stand } = part;
  const place = stand?.place ?? STAY;
  const { vertexOfCorner, ...vertices } = splitVertices(mesh, shading);
  const turned = placedVertices(vertices, place).normals;
  const uvs = packing.uvs[of]!;
  const faceOf = facesOf(mesh);
  const paintOfSide = paintNumbers(part, materials);
  for (let i = 0; i < corners.length; i++) {
    // The corners of a mirror image run the other way round.
    const from = isMirroring(place) ? i - (i % 3) + 2 - (i % 3) : i;
    const corner = corners[from]!;
    const to = 3 * first + i;
    for (let k = 0; k < 3; k++) {
      positions[3 * to + k] = p[3 * mesh.corners[corner]! + k]!;
      normals[3 * to + k] = turned[3 * vertexOfCorner[corner]! + k]!;
    }
    places[2 * to] = size * uvs[2 * corner]!;
    places[2 * to + 1] = size * (1 - uvs[2 * corner + 1]!);
    if (part.uvs) shown.set(part.uvs.subarray(2 * corner, 2 * corner + 2), 2 * to);
    if (i % 3 > 0) continue;
    const face = faceOf[corner]!;
    charts[first + i / 3] = packing.charts[of]![face]!;
    paints[first + i / 3] = paintOfSide[mesh.sides[face]!]!;
  }
}

function facesOf({ starts, corners }: Mesh): Uint32Array {
  const faces = new Uint32Array(corners.length);
  for (let f = 0; f + 1 < starts.length; f++) faces.fill(f, starts[f], starts[f + 1]);
  return faces;
}

/** For each side, the number of its material; those that are new are added. */
function paintNumbers(part: Part, materials: Material[]): number[] {
  const numbers: number[] = [];
  for (const { material, has } of paintOf(part)) {
    const known = materials.indexOf(material);
    const number = known >= 0 ? known : materials.push(material) - 1;
    for (const [side, is] of has.entries()) if (is) numbers[side] = number;
  }
  return numbers;
}
