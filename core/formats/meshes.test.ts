// Meshes in: what files are told by, what their scenes do to them, and what is refused. The glTF of the tests is written by
// the general-purpose library, not by us; STL and OBJ by hand.
import { Document, WebIO } from '@gltf-transform/core';
import { describe, expect, it } from 'vitest';
import { PLAIN } from '../materials/schema.ts';
import { proofOf } from '../mesh/proof.ts';
import { tidy } from '../mesh/tidy/tidy.ts';
import { CUBE_FACES, CUBE_POINTS, cube } from '../testing/meshes.ts';
import { sniffMesh } from './facts.ts';
import { writeGlb } from './glb/write.ts';
import { MESH_LIMITS, readMeshes } from './meshes.ts';
import { writeObj } from './obj/obj.ts';
import { writeStl } from './stl/stl.ts';

const text = (value: string) => new TextEncoder().encode(value);
const PART = { name: 'cube', mesh: cube(2), material: PLAIN };

const TETRAHEDRON = `solid peak
facet normal 0 0 -1
 outer loop
  vertex 0 0 0
  vertex 0 1 0
  vertex 1 0 0
 endloop
endfacet
facet normal 0 -1 0
 outer loop
  vertex 0 0 0
  vertex 1 0 0
  vertex 0 0 1
 endloop
endfacet
facet normal -1 0 0
 outer loop
  vertex 0 0 0
  vertex 0 0 1
  vertex 0 1 0
 endloop
endfacet
facet normal 1 1 1
 outer loop
  vertex 1 0 0
  vertex 0 1 0
  vertex 0 0 1
 endloop
endfacet
endsolid peak
`;

describe('telling meshes', () => {
  it('knows what we write, and text', async () => {
    expect(sniffMesh(await writeGlb([PART], { name: 'cube', metresPerUnit: 1 }))).toBe('glb');
    expect(sniffMesh(writeStl([PART]))).toBe('stl');
    expect(sniffMesh(text(writeObj([PART], 'a.mtl').obj))).toBe('obj');
    expect(sniffMesh(text(TETRAHEDRON))).toBe('stl');
    expect(sniffMesh(text('# by hand\ng box\nv 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3\n'))).toBe('obj');
  });

  it('leaves other files alone', () => {
    for (const other of [
      '<svg xmlns="http://www.w3.org/2000/svg"/>',
      'solid state drawing\nof a heron\n',
      '0\nSECTION\n',
      'v',
    ]) {
      expect(sniffMesh(text(other))).toBeNull();
    }
    expect(sniffMesh(new Uint8Array(400).fill(255))).toBeNull();
  });
});

describe('GLB from elsewhere', () => {
  /** A cube under a node that moves it, and one that does more. */
  async function scene(change: (node: ReturnType<Document['createNode']>) => void): Promise<Uint8Array> {
    const document = new Document();
    const buffer = document.createBuffer();
    const indices = CUBE_FACES.flatMap(([a, b, c, d]) => [a!, b!, c!, a!, c!, d!]);
    const accessor = (type: 'VEC3' | 'SCALAR', array: Float32Array | Uint16Array) =>
      document
        .createAccessor()
        .setType(type)
        .setArray(array as Float32Array<ArrayBuffer>)
        .setBuffer(buffer);
    const primitive = document
      .createPrimitive()
      .setAttribute('POSITION', accessor('VEC3', Float32Array.from(CUBE_POINTS.flat())))
      .setIndices(accessor('SCALAR', Uint16Array.from(indices)));
    const node = document.createNode('box').setMesh(document.createMesh().addPrimitive(primitive));
    change(node);
    const parent = document.createNode('all').setTranslation([10, 0, 0]).setScale([2, 2, 2]).addChild(node);
    document.createScene().addChild(parent);
    // Not in the scene, so not in the picture.
    document.createNode('spare').setMesh(node.getMesh()!);
    return new WebIO().writeBinary(document);
  }

  it('stands where its scene puts it', async () => {
    const [box, ...others] = await readMeshes(await scene((node) => node.setTranslation([1, 0, 0])), 'glb');
    expect(others).toEqual([]);
    expect(box!.name).toBe('box');
    const proof = proofOf(box!.mesh);
    expect(proof).toMatchObject({ min: [12, 0, 0], size: [2, 2, 2], closed: true });
    expect(proof.volume).toBeCloseTo(8, 9);
  });

  it('faces outward in a mirror image too', async () => {
    const [box] = await readMeshes(await scene((node) => node.setScale([-1, 1, 1])), 'glb');
    expect(proofOf(box!.mesh).volume).toBeCloseTo(8, 9);
    const [turned] = await readMeshes(
      await scene((node) => node.setRotation([0, 0, Math.SQRT1_2, Math.SQRT1_2])),
      'glb',
    );
    for (const [k, low] of [8, 0, 0].entries()) expect(proofOf(turned!.mesh).min[k]).toBeCloseTo(low, 6);
  });

  it('may come in strips and fans, and leaves lines out', async () => {
    const strip = await scene((node) => {
      const [primitive] = node.getMesh()!.listPrimitives();
      primitive!
        .setMode(5)
        .getIndices()!
        .setArray(Uint16Array.from([0, 1, 2, 3]));
    });
    const [face] = await readMeshes(strip, 'glb');
    const proof = proofOf(face!.mesh);
    expect([proof.counts.triangles, proof.area]).toEqual([2, 4]);
    // Both triangles of a strip face the same way.
    expect(tidy(face!.mesh, { weld: 0, straight: -1, flat: 1, close: false }).mesh.sides).toHaveLength(1);
    const lines = await scene((node) => node.getMesh()!.listPrimitives()[0]!.setMode(1));
    await expect(readMeshes(lines, 'glb')).rejects.toThrow(/no faces/);
  });

  it('is refused when its numbers lead nowhere', async () => {
    const wild = await scene((node) => {
      node
        .getMesh()!
        .listPrimitives()[0]!
        .getIndices()!
        .setArray(Uint16Array.from([0, 1, 200]));
    });
    await expect(readMeshes(wild, 'glb')).rejects.toThrow(/three known points/);
    await expect(readMeshes(text('glTF and nothing'), 'glb')).rejects.toThrow(/not a readable GLB/);
  });
});

describe('STL', () => {
  it('is read as text, each body a part', async () => {
    const parts = await readMeshes(text(TETRAHEDRON + TETRAHEDRON.replaceAll('peak', 'other peak')), 'stl');
    expect(parts.map(({ name }) => name)).toEqual(['peak', 'other peak']);
    const proof = proofOf(parts[1]!.mesh);
    expect(proof).toMatchObject({ closed: true, shells: 1 });
    expect(proof.volume).toBeCloseTo(1 / 6, 12);
  });

  it('names the line of a point that is no point', async () => {
    await expect(readMeshes(text(TETRAHEDRON.replace('vertex 0 1 0', 'vertex 0 one 0')), 'stl')).rejects.toThrow(
      /line 5/,
    );
    await expect(readMeshes(text(TETRAHEDRON.replace('  vertex 0 1 0\n', '')), 'stl')).rejects.toThrow(/“peak”/);
  });

  it('may begin like text and be binary, and have bytes behind it', async () => {
    const bytes = writeStl([PART]);
    bytes.set(text('solid cube'), 0);
    expect(proofOf((await readMeshes(bytes, 'stl'))[0]!.mesh).volume).toBeCloseTo(8, 6);
    const longer = new Uint8Array(writeStl([PART]).length + 7);
    longer.set(writeStl([PART]));
    expect(proofOf((await readMeshes(longer, 'stl'))[0]!.mesh).closed).toBe(true);
  });
});

describe('OBJ', () => {
  const POINTS = 'v 0 0 0\nv 1 0 0\nv 1 1 0\nv 0 1 0\n';

  it('has groups for parts where it has no objects, faces of any size, and numbers from the end', async () => {
    const parts = await readMeshes(text(`${POINTS}g one\nf 1/1/1 2//2 \\\n 3/4 4\ng two\nf -4 -3 -2\n`), 'obj');
    expect(parts.map(({ name, mesh }) => [name, mesh.corners.length])).toEqual([
      ['one', 4],
      ['two', 3],
    ]);
  });

  it('is refused in one sentence where a face or a point makes no sense', async () => {
    await expect(readMeshes(text(`${POINTS}f 1 2 9\n`), 'obj')).rejects.toThrow(/in line 5/);
    await expect(readMeshes(text('v 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3\n'), 'obj')).rejects.toThrow(/not a number/);
    await expect(readMeshes(text(POINTS), 'obj')).rejects.toThrow(/no faces/);
  });

  it('is refused when it is too large', async () => {
    const many = Array.from({ length: MESH_LIMITS.parts + 1 }, (_, i) => `o part${i}\nf 1 2 3`).join('\n');
    await expect(readMeshes(text(`${POINTS}${many}\n`), 'obj')).rejects.toThrow(/401 parts/);
    await expect(readMeshes(new Uint8Array(MESH_LIMITS.bytes + 1), 'stl')).rejects.toThrow(/120 MB is the most/);
  });
});
