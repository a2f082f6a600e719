// glb.ts — binary glTF 2.0: one node, mesh and material a part. https://registry.khronos.org/glTF/specs/2.0/glTF-2.0.html
import { Logger, type Node, type Primitive, WebIO } from '@gltf-transform/core';
import { GeometryError } from '../../base/errors.ts';
import { joinMeshes } from '../../mesh/place.ts';
import type { Mesh } from '../../mesh/types.ts';
import type { MeshFormat } from '../format.ts';
import { type Part, triangleMesh } from '../part.ts';
import { glbFacts } from './facts.ts';
import { readMaterial } from './materials.ts';
import { writeGlb } from './write.ts';

/** Of what is not understood nothing is needed. */
const QUIET = new Logger(Logger.Verbosity.ERROR);

export const glb = {
  ...glbFacts,
  read: (bytes) => readGlb(bytes),
  readWritten: ({ glb: bytes = new Uint8Array() }) => readWritten(bytes),
  write: (parts, options) => [{ extension: 'glb', chunks: [writeGlb(parts, options)] }],
} as const satisfies MeshFormat;

/**
 * Reads the parts of a GLB in metres, where its scene places them: one a primitive of triangles.
 * @throws {GeometryError} 'bad-file'
 */
export const readGlb = async (bytes: Uint8Array): Promise<Part[]> =>
  (await readPrimitives(bytes)).map(({ node: _, ...part }) => part);

async function readPrimitives(bytes: Uint8Array): Promise<(Part & { readonly node: Node })[]> {
  const document = await new WebIO()
    .setLogger(QUIET)
    .readBinary(bytes)
    .catch((error: Error) => {
      throw new GeometryError('bad-file', `This is not a readable GLB file: ${error.message}`);
    });
  const root = document.getRoot();
  const scene = root.getDefaultScene() ?? root.listScenes()[0];
  const nodes: Node[] = scene ? [] : root.listNodes();
  scene?.traverse((node) => nodes.push(node));
  return nodes.flatMap((node) => {
    const primitives = node.getMesh()?.listPrimitives() ?? [];
    return primitives.flatMap((primitive) => {
      const mesh = meshOf(primitive, node.getWorldMatrix());
      const material = readMaterial(primitive.getMaterial());
      const picture = primitive.getMaterial()?.getBaseColorTexture()?.getSize();
      const pictures = picture ? { pictures: [picture.join(' × ')] } : {};
      const name = node.getName() || node.getMesh()!.getName() || 'part';
      return mesh ? [{ name, mesh, material, node, ...pictures }] : [];
    });
  });
}

/** One part a node, whatever its sides are made of: as it was written. */
async function readWritten(bytes: Uint8Array): Promise<Part[]> {
  const nodes = new Map<Node, Part[]>();
  for (const { node, ...part } of await readPrimitives(bytes)) nodes.set(node, [...(nodes.get(node) ?? []), part]);
  return [...nodes.values()].map((parts) => ({
    ...parts[0]!,
    mesh: joinMeshes(parts.map(({ mesh }) => mesh)),
    colours: parts.map(({ material }) => material.colour),
    pictures: parts.flatMap(({ pictures = [] }) => pictures),
  }));
}

/** Null for what is no triangles. @param matrix column by column */
function meshOf(primitive: Primitive, matrix: readonly number[]): Mesh | null {
  const places = primitive.getAttribute('POSITION');
  const mode = primitive.getMode();
  if (!places || mode < TRIANGLES) return null;
  const positions = new Float64Array(3 * places.getCount());
  const at = [0, 0, 0];
  for (let i = 0; i < places.getCount(); i++) {
    const [x, y, z] = places.getElement(i, at) as [number, number, number];
    for (let k = 0; k < 3; k++) {
      positions[3 * i + k] = matrix[k]! * x + matrix[4 + k]! * y + matrix[8 + k]! * z + matrix[12 + k]!;
    }
  }
  const listed = primitive.getIndices()?.getArray() ?? Uint32Array.from({ length: places.getCount() }, (_, i) => i);
  const indices = trianglesIn(listed, mode);
  if (indices.length % 3 !== 0 || indices.some((point) => point >= places.getCount())) {
    throw new GeometryError('bad-file', 'The GLB file has a triangle without three known points.');
  }
  // A mirror image runs the other way round.
  if (determinant(matrix) < 0) {
    for (let t = 0; t < indices.length; t += 3) [indices[t + 1], indices[t + 2]] = [indices[t + 2]!, indices[t + 1]!];
  }
  return triangleMesh(positions, indices);
}

/** Values of a primitive's mode. */
const [TRIANGLES, TRIANGLE_STRIP] = [4, 5];

/** Three indices a triangle, of a list, a strip or a fan. */
function trianglesIn(listed: ArrayLike<number>, mode: number): Uint32Array {
  if (mode === TRIANGLES) return Uint32Array.from(listed);
  const corners: number[] = [];
  for (let i = 2; i < listed.length; i++) {
    if (mode !== TRIANGLE_STRIP) corners.push(listed[0]!, listed[i - 1]!, listed[i]!);
    else if (i % 2 === 0) corners.push(listed[i - 2]!, listed[i - 1]!, listed[i]!);
    else corners.push(listed[i - 1]!, listed[i - 2]!, listed[i]!);
  }
  return Uint32Array.from(corners);
}

const determinant = (m: readonly number[]) =>
  m[0]! * (m[5]! * m[10]! - m[6]! * m[9]!) -
  m[4]! * (m[1]! * m[10]! - m[2]! * m[9]!) +
  m[8]! * (m[1]! * m[6]! - m[2]! * m[5]!);
