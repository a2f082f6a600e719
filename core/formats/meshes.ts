// meshes.ts — a mesh file to its parts, whichever of the formats it is in. What comes in is not trusted.
import { GeometryError } from '../base/errors.ts';
import type { MeshFormatId } from './facts.ts';
import { meshFormat } from './index.ts';
import type { Part } from './part.ts';

export const MESH_LIMITS = { bytes: 120 * 2 ** 20, triangles: 2_000_000, parts: 400 } as const;

/**
 * The parts of a mesh file, in its own units: x right, y up, front towards +z.
 * @throws {GeometryError} 'bad-file' for what cannot be read, 'too-large' for more than {@link MESH_LIMITS}
 */
export async function readMeshes(bytes: Uint8Array, format: MeshFormatId): Promise<Part[]> {
  if (bytes.length > MESH_LIMITS.bytes) {
    const mb = (n: number) => Math.round(n / 2 ** 20);
    throw new GeometryError(
      'too-large',
      `The mesh file has ${mb(bytes.length)} MB; ${mb(MESH_LIMITS.bytes)} MB is the most. Reduce it first.`,
    );
  }
  const parts = (await meshFormat(format).read(bytes)).filter(({ mesh }) => mesh.corners.length > 0);
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
