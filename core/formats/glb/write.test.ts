// Binary glTF, byte for byte beside what the general-purpose library (glTF Transform) writes for the same scene.
import { Document, WebIO } from '@gltf-transform/core';
import { describe, expect, it } from 'vitest';
import { SHADING, shade } from '../../mesh/normals.ts';
import { rgbOfHex, toLinear } from '../../picture/colour.ts';
import { cube } from '../../testing/meshes.ts';
import type { MeshWriteOptions } from '../format.ts';
import type { Part } from '../part.ts';
import { writeGlb } from './write.ts';

async function byLibrary(parts: readonly Part[], { name, metresPerUnit }: MeshWriteOptions): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const root = document.createNode(name).setScale([metresPerUnit, metresPerUnit, metresPerUnit]);
  document.getRoot().setDefaultScene(document.createScene(name).addChild(root));
  document.getRoot().getAsset().generator = 'Outline Stack';
  for (const { name: partName, mesh, material, shading = SHADING, uvs: places = null } of parts) {
    const { positions, normals, uvs, indices } = shade(mesh, shading, places);
    const [r, g, b] = rgbOfHex(material.colour).map((v) => toLinear(v / 255)) as [number, number, number];
    const paint = document
      .createMaterial(partName)
      .setBaseColorFactor([r, g, b, material.opacity])
      .setAlphaMode(material.opacity < 1 ? 'BLEND' : 'OPAQUE')
      .setRoughnessFactor(material.roughness)
      .setMetallicFactor(material.metalness);
    const accessor = (type: 'VEC3' | 'VEC2' | 'SCALAR', array: Float32Array | Uint32Array | Uint16Array) =>
      document
        .createAccessor()
        .setType(type)
        .setArray(array as Float32Array<ArrayBuffer>)
        .setBuffer(buffer);
    const short = positions.length / 3 <= 65534;
    const primitive = document
      .createPrimitive()
      .setAttribute('POSITION', accessor('VEC3', positions))
      .setAttribute('NORMAL', accessor('VEC3', normals))
      .setIndices(accessor('SCALAR', short ? Uint16Array.from(indices) : indices))
      .setMaterial(paint);
    const downward = uvs?.map((v, i) => (i % 2 ? 1 - v : v));
    if (downward) primitive.setAttribute('TEXCOORD_0', accessor('VEC2', downward));
    root.addChild(document.createNode(partName).setMesh(document.createMesh(partName).addPrimitive(primitive)));
  }
  return new WebIO().writeBinary(document);
}

const part = (change: Partial<Part> = {}): Part => ({
  name: 'Cube',
  mesh: cube(2),
  material: { colour: '#204060', opacity: 1, roughness: 0.6, metalness: 0 },
  ...change,
});
const PLACES = Float32Array.from({ length: 48 }, (_, i) => (i % 5) / 4);
/** More points than 16 bits tell apart. */
const LARGE = part({
  name: 'Large',
  mesh: {
    positions: Float64Array.from({ length: 3 * 70_002 }, (_, i) => Math.sin(i)),
    starts: Uint32Array.from({ length: 23_335 }, (_, i) => 3 * i),
    corners: Uint32Array.from({ length: 70_002 }, (_, i) => i),
    sides: new Uint8Array(23_334),
  },
});

describe('a binary glTF', () => {
  it.each<[string, readonly Part[], MeshWriteOptions]>([
    ['of one part', [part()], { name: 'scene', metresPerUnit: 1 }],
    [
      'of several, at a scale, with names of all kinds',
      [part(), part({ name: 'Nåhe ☾ "x"' })],
      { name: 'S/', metresPerUnit: 0.001 },
    ],
    [
      'of parts on pictures and others',
      [part({ uvs: PLACES }), part(), part({ uvs: PLACES })],
      { name: 'uv', metresPerUnit: 1 },
    ],
    [
      'with materials as glTF has them by default, and clear ones',
      [
        part({ material: { colour: '#ffffff', opacity: 1, roughness: 1, metalness: 1 } }),
        part({ material: { colour: '#ffffff', opacity: 0.25, roughness: 0, metalness: 0.5 } }),
      ],
      { name: 'm', metresPerUnit: 1 },
    ],
    [
      'with an odd number of short indices, and long ones',
      [part({ mesh: oneTriangle() }), LARGE, part()],
      { name: 'l', metresPerUnit: 1 },
    ],
  ])('%s is what the library writes', async (_, parts, options) => {
    expect(writeGlb(parts, options)).toEqual(await byLibrary(parts, options));
  });
});

function oneTriangle(): Part['mesh'] {
  return {
    positions: Float64Array.of(0, 0, 0, 1, 0, 0, 0, 1, 0),
    starts: Uint32Array.of(0, 3),
    corners: Uint32Array.of(0, 1, 2),
    sides: new Uint8Array(1),
  };
}
