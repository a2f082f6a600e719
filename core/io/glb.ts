// glb.ts — binary glTF 2.0: one node, mesh and material a part. https://registry.khronos.org/glTF/specs/2.0/glTF-2.0.html
import { Document, WebIO } from '@gltf-transform/core';
import { GeometryError } from '../errors.ts';
import { shade } from '../mesh/normals.ts';
import { hexToRgb, linearToSrgb, type Part, rgbToHex, srgbToLinear, triangleMesh } from './part.ts';

export interface GlbOptions {
  /** Name of the scene and of its root node. */
  readonly name?: string;
  /** Metres in one unit of the meshes; 1 leaves lengths as they are. Kept as the root node's scale. */
  readonly metresPerUnit?: number;
}

/** 16-bit indices reach this far; the last value is kept for primitive restart. */
const MAX_SHORT_INDEX = 65534;

export async function writeGlb(
  parts: readonly Part[],
  { name = 'scene', metresPerUnit = 1 }: GlbOptions = {},
): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const root = document.createNode(name).setScale([metresPerUnit, metresPerUnit, metresPerUnit]);
  document.getRoot().setDefaultScene(document.createScene(name).addChild(root));
  document.getRoot().getAsset().generator = 'Outline Stack';
  for (const { name: partName, mesh, material } of parts) {
    const { positions, normals, indices } = shade(mesh);
    const short = positions.length / 3 <= MAX_SHORT_INDEX;
    const [r, g, b] = hexToRgb(material.colour).map(srgbToLinear) as [number, number, number];
    const paint = document
      .createMaterial(partName)
      .setBaseColorFactor([r, g, b, material.opacity])
      .setAlphaMode(material.opacity < 1 ? 'BLEND' : 'OPAQUE')
      .setRoughnessFactor(material.roughness)
      .setMetallicFactor(material.metalness);
    const accessor = (type: 'VEC3' | 'SCALAR', array: Float32Array | Uint32Array | Uint16Array) =>
      document
        .createAccessor()
        .setType(type)
        .setArray(array as Float32Array<ArrayBuffer>)
        .setBuffer(buffer);
    const primitive = document
      .createPrimitive()
      .setAttribute('POSITION', accessor('VEC3', positions))
      .setAttribute('NORMAL', accessor('VEC3', normals))
      .setIndices(accessor('SCALAR', short ? Uint16Array.from(indices) : indices))
      .setMaterial(paint);
    root.addChild(document.createNode(partName).setMesh(document.createMesh(partName).addPrimitive(primitive)));
  }
  return new WebIO().writeBinary(document);
}

/** Reads the parts of a GLB in the units of its meshes; node transforms are not applied. */
export async function readGlb(bytes: Uint8Array): Promise<Part[]> {
  const document = await new WebIO().readBinary(bytes).catch((error: Error) => {
    throw new GeometryError('bad-file', `This is not a readable GLB file: ${error.message}`);
  });
  const parts: Part[] = [];
  for (const node of document.getRoot().listNodes()) {
    for (const primitive of node.getMesh()?.listPrimitives() ?? []) {
      const positions = primitive.getAttribute('POSITION')?.getArray();
      if (!positions) continue;
      const indices =
        primitive.getIndices()?.getArray() ?? Uint32Array.from({ length: positions.length / 3 }, (_, i) => i);
      const paint = primitive.getMaterial();
      const [r = 1, g = 1, b = 1, opacity = 1] = paint?.getBaseColorFactor() ?? [];
      parts.push({
        name: node.getName(),
        mesh: triangleMesh(positions, indices),
        material: {
          colour: rgbToHex([r, g, b].map(linearToSrgb)),
          opacity,
          roughness: paint?.getRoughnessFactor() ?? 1,
          metalness: paint?.getMetallicFactor() ?? 0,
        },
      });
    }
  }
  return parts;
}
