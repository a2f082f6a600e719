// meshes.ts — a mesh file to its parts, whichever of the formats it is in. What comes in is not trusted.
import { GeometryError } from '../base/errors.ts';
import { readGlb } from './glb/glb.ts';
import { readObj } from './obj/obj.ts';
import type { Part } from './part.ts';
import { readStl } from './stl/stl.ts';

export const MESH_FORMATS = ['glb', 'obj', 'stl'] as const;
export type MeshFormat = (typeof MESH_FORMATS)[number];

export const MESH_LIMITS = { bytes: 120 * 2 ** 20, triangles: 2_000_000, parts: 400 } as const;

const HEAD = 4096;
const GLTF_MAGIC = 'glTF';

/** By how a file begins; OBJ and text STL have no mark, so that their first words decide. Null for anything else. */
export function sniffMesh(head: Uint8Array): MeshFormat | null {
  const text = new TextDecoder('latin1').decode(head.subarray(0, HEAD));
  if (text.startsWith(GLTF_MAGIC)) return 'glb';
  if (/^\s*solid\b[^\n]*\n\s*(facet|endsolid)\b/.test(text)) return 'stl';
  if (text.includes('\0')) return isBinaryStl(head) ? 'stl' : null;
  const words = text.split(/\r?\n/).map((line) => line.trim().split(/\s+/)[0]!);
  const known = words.slice(0, -1).filter((word) => word !== '' && !word.startsWith('#'));
  const areObj = known.length > 0 && known.every((word) => OBJ_WORDS.has(word));
  return areObj && known.includes('v') ? 'obj' : null;
}

const OBJ_WORDS = new Set(['v', 'vt', 'vn', 'vp', 'f', 'l', 'p', 'o', 'g', 's', 'mtllib', 'usemtl']);

/** The first triangle's numbers are finite and its attribute bytes as good as always 0; pictures are told before. */
function isBinaryStl(head: Uint8Array): boolean {
  if (head.length < 134) return false;
  const view = new DataView(head.buffer, head.byteOffset, head.byteLength);
  const count = view.getUint32(80, true);
  const numbers = Array.from({ length: 12 }, (_, k) => view.getFloat32(84 + 4 * k, true));
  return count > 0 && count <= MESH_LIMITS.triangles && numbers.every((v) => Math.abs(v) < 1e12);
}

/**
 * The parts of a mesh file, in its own units: x right, y up, front towards +z.
 * @throws {GeometryError} 'bad-file' for what cannot be read, 'too-large' for more than {@link MESH_LIMITS}
 */
export async function readMeshes(bytes: Uint8Array, format: MeshFormat): Promise<Part[]> {
  if (bytes.length > MESH_LIMITS.bytes) {
    const mb = (n: number) => Math.round(n / 2 ** 20);
    throw new GeometryError(
      'too-large',
      `The mesh file has ${mb(bytes.length)} MB; ${mb(MESH_LIMITS.bytes)} MB is the most. Reduce it first.`,
    );
  }
  const parts = (await partsOf(bytes, format)).filter(({ mesh }) => mesh.corners.length > 0);
  if (parts.length === 0)
    throw new GeometryError('bad-file', 'The mesh file has no faces; there is nothing to bring in.');
  if (parts.length > MESH_LIMITS.parts) {
    throw new GeometryError(
      'too-large',
      `The mesh file has ${parts.length} parts; ${MESH_LIMITS.parts} is the most. Join some of them first.`,
    );
  }
  const triangles = parts.reduce((sum, { mesh }) => sum + mesh.corners.length - 2 * mesh.sides.length, 0);
  if (triangles > MESH_LIMITS.triangles) {
    throw new GeometryError(
      'too-large',
      `The mesh file has ${triangles} triangles; ${MESH_LIMITS.triangles} is the most. Reduce it first.`,
    );
  }
  for (const { name, mesh } of parts) {
    if (mesh.positions.some((v) => !Number.isFinite(v)))
      throw new GeometryError('bad-file', `The part “${name}” has a point that is not a number.`);
  }
  return parts;
}

async function partsOf(bytes: Uint8Array, format: MeshFormat): Promise<Part[]> {
  switch (format) {
    case 'glb':
      return readGlb(bytes);
    case 'obj':
      return readObj({ obj: new TextDecoder().decode(bytes), mtl: '' });
    case 'stl':
      return readStl(bytes);
  }
}
