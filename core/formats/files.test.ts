// Files out, read back by other means: the Khronos validator for GLB, plain parsing for OBJ and STL.
import { strFromU8, unzipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { proofOf } from '../mesh/proof.ts';
import { faceCount } from '../mesh/types.ts';
import type { Region } from '../outline/types.ts';
import { rgbOfHex, toEncoded, toLinear } from '../picture/colour.ts';
import { fitSpec, planSlab, raiseSlab } from '../solid/slab.ts';
import { audit } from '../testing/audit.ts';
import { roundEdge } from '../testing/edges.ts';
import { rectangle, region, regularPolygon, reversed, star } from '../testing/shapes.ts';
import { validateBytes } from '../testing/validator.ts';
import type { MeshFormatId } from './facts.ts';
import { readGlb } from './glb/glb.ts';
import { writeGlb } from './glb/write.ts';
import { meshFormat } from './index.ts';
import { readObj, writeObj } from './obj/obj.ts';
import { fileNames, type Part, rgbToHex } from './part.ts';
import { bytesOfFiles, exportFile, fileName, readBackMeshes } from './read-back.ts';
import { readStl, writeStl } from './stl/stl.ts';
import { decodeXml } from './svg/text.ts';

function slab(outline: Region, base = 0) {
  const { spec } = fitSpec({
    depth: 3,
    front: roundEdge({ reach: 0.6, rise: 0.6 }),
    back: null,
    faces: 'fewest',
    cell: 1,
    wallRows: 1,
  });
  return raiseSlab(planSlab([outline], spec), spec, base);
}

const GLB = { name: 'patch', metresPerUnit: 1 };

const PARTS: readonly Part[] = [
  {
    name: 'Night sky',
    mesh: slab(region(regularPolygon(48, 20), reversed(regularPolygon(12, 4)))),
    material: { colour: '#20344a', opacity: 1, roughness: 0.6, metalness: 0 },
  },
  {
    name: 'Star',
    mesh: slab(region(star(5, 6, 3)), 3),
    material: { colour: '#efdfb6', opacity: 0.5, roughness: 0.2, metalness: 1 },
  },
];

/** Parts written, and read back. */
async function writtenAndRead(parts: readonly Part[], id: MeshFormatId, name: string, against = parts) {
  const format = meshFormat(id);
  const options = { name: fileName(name), metresPerUnit: 0.001 };
  const files = await bytesOfFiles(format.write(parts, options));
  const { bytes } = exportFile(format, files, options.name);
  return { bytes, ...(await readBackMeshes(format, files, against, options)) };
}

describe('colours', () => {
  // IEC 61966-2-1: 0.5 encoded is 0.2140 linear; the two branches meet at 0.04045 / 12.92.
  it('follow the sRGB transfer function there and back', () => {
    expect(toLinear(0.5)).toBeCloseTo(0.21404, 5);
    expect(toLinear(0.04045)).toBeCloseTo(0.0031308, 6);
    for (const v of [0, 0.01, 0.2, 0.7, 1]) expect(toEncoded(toLinear(v))).toBeCloseTo(v, 9);
    expect(rgbToHex(rgbOfHex('#1f5c57').map((v) => v / 255))).toBe('#1f5c57');
  });
});

describe('GLB', () => {
  it('passes the Khronos validator without errors or warnings', async () => {
    const { issues, info } = await validateBytes(await writeGlb(PARTS, { name: 'patch', metresPerUnit: 0.001 }));
    expect(issues.messages).toEqual([]);
    expect([issues.numErrors, issues.numWarnings]).toEqual([0, 0]);
    const triangles = PARTS.reduce((sum, { mesh }) => sum + proofOf(mesh).counts.triangles, 0);
    expect(info.totalTriangleCount).toBe(triangles);
  });

  it('has a node a part with its name, colour and closed surface', async () => {
    const read = await readGlb(await writeGlb(PARTS, GLB));
    expect(read.map(({ name }) => name)).toEqual(['Night sky', 'Star']);
    for (const [i, { mesh, material }] of read.entries()) {
      expect(material.colour).toBe(PARTS[i]!.material.colour);
      expect(material.opacity).toBeCloseTo(PARTS[i]!.material.opacity, 6);
      expect(material.roughness).toBeCloseTo(PARTS[i]!.material.roughness, 6);
      expect(material.metalness).toBe(PARTS[i]!.material.metalness);
      const { loose, flat, volume } = audit(mesh.positions, mesh.corners);
      expect([loose, flat]).toEqual([0, 0]);
      expect(volume).toBeCloseTo(proofOf(PARTS[i]!.mesh).volume, 2);
    }
  });

  it('is the same for the same parts, and fails plainly on other bytes', async () => {
    expect(await writeGlb(PARTS, GLB)).toEqual(await writeGlb(PARTS, GLB));
    await expect(readGlb(new Uint8Array(40))).rejects.toThrow(/not a readable GLB/);
  });
});

describe('OBJ', () => {
  const { obj, mtl } = writeObj(PARTS, 'patch.mtl');

  it('keeps quads quads and gives every part its material', () => {
    expect(obj).toMatch(/^mtllib patch\.mtl\n/);
    expect(obj.match(/^o .+$/gm)).toEqual(['o Night_sky', 'o Star']);
    expect(obj.match(/^usemtl .+$/gm)).toEqual(['usemtl Night_sky', 'usemtl Star']);
    expect(mtl.match(/^newmtl .+$/gm)).toEqual(['newmtl Night_sky', 'newmtl Star']);
    const corners = [...obj.matchAll(/^f (.+)$/gm)].map(([, face]) => face!.split(' ').length);
    expect(corners.filter((n) => n === 4).length).toBeGreaterThan(200);
    expect(corners).toHaveLength(PARTS.reduce((sum, { mesh }) => sum + faceCount(mesh), 0));
  });

  it('counts points and normals from 1 through the whole file', () => {
    const points = obj.match(/^v /gm)!.length;
    const normals = obj.match(/^vn /gm)!.length;
    const used = [...obj.matchAll(/(\d+)\/\/(\d+)/g)].map(([, v, vn]) => [Number(v), Number(vn)] as const);
    expect(Math.max(...used.map(([v]) => v))).toBe(points);
    expect(Math.max(...used.map(([, vn]) => vn))).toBe(normals);
    expect(Math.min(...used.flat())).toBe(1);
  });

  it('comes back as it went, in float32', () => {
    for (const [i, part] of readObj({ obj, mtl }).entries()) {
      expect(part.material).toEqual(PARTS[i]!.material);
      expect(faceCount(part.mesh)).toBe(faceCount(PARTS[i]!.mesh));
      expect(proofOf(part.mesh)).toMatchObject({ closed: true, counts: proofOf(PARTS[i]!.mesh).counts });
    }
  });

  it('reads negative indices and says which line is wrong', () => {
    const [part] = readObj({ obj: 'v 0 0 0\nv 1 0 0\nv 0 1 0\nf -3 -2 -1\n', mtl: '' });
    expect([...part!.mesh.corners]).toEqual([0, 1, 2]);
    expect(() => readObj({ obj: 'v 0 0 0\nf 1 2 3\n', mtl: '' })).toThrow(/line 2/);
    expect(() => readObj({ obj: 'v 0 x 0\n', mtl: '' })).toThrow(/not a number/);
  });
});

describe('STL', () => {
  it('has 84 bytes and 50 a triangle, little-endian, facets along their normals', () => {
    const bytes = writeStl(PARTS);
    const view = new DataView(bytes.buffer);
    const count = view.getUint32(80, true);
    expect(bytes).toHaveLength(84 + 50 * count);
    expect(strFromU8(bytes.subarray(0, 5))).not.toBe('solid');
    for (let t = 0; t < count; t += 97) {
      const v = (k: number) => view.getFloat32(84 + 50 * t + 4 * k, true);
      const [ux, uy, uz] = [v(6) - v(3), v(7) - v(4), v(8) - v(5)];
      const [wx, wy, wz] = [v(9) - v(3), v(10) - v(4), v(11) - v(5)];
      const along = v(0) * (uy * wz - uz * wy) + v(1) * (uz * wx - ux * wz) + v(2) * (ux * wy - uy * wx);
      expect(along).toBeGreaterThan(0);
      expect(Math.hypot(v(0), v(1), v(2))).toBeCloseTo(1, 5);
    }
    const [body] = readStl(bytes);
    expect(audit(body!.mesh.positions, body!.mesh.corners)).toMatchObject({ loose: 0, flat: 0 });
  });

  it('keeps parts that lie wall to wall closed when equal points are welded', async () => {
    const wallToWall = [rectangle(0, 0, 10, 10), rectangle(10, 0, 10, 10), rectangle(0, 10, 10, 10)].map(
      (outline, i) => ({
        ...PARTS[0]!,
        name: `part ${i}`,
        mesh: slab(region(outline)),
      }),
    );
    const [body] = readStl(writeStl(wallToWall));
    expect(audit(body!.mesh.positions, body!.mesh.corners)).toMatchObject({ loose: 0, flat: 0 });
    expect((await writtenAndRead(wallToWall, 'stl', 'x')).ok).toBe(true);
  });

  it('refuses bytes whose length does not fit', () => {
    expect(() => readStl(writeStl(PARTS).subarray(0, 500))).toThrow(/not an STL/);
    expect(() => readStl(new Uint8Array(3))).toThrow(/not an STL/);
  });
});

describe('exports', () => {
  it.each(['glb', 'obj', 'stl'] as const)('read %s back and find it the same', async (format) => {
    const { ok, rows } = await writtenAndRead(PARTS, format, 'Salt / marsh');
    expect(rows.filter((row) => !row.same)).toEqual([]);
    expect(ok).toBe(true);
    expect(rows.map((row) => row.what)).toEqual(
      expect.arrayContaining(['triangles', 'closed parts', 'volume', 'depth']),
    );
  });

  it('notice a file that lost something', async () => {
    const { ok, rows } = await writtenAndRead(PARTS.slice(0, 1), 'glb', 'x', PARTS);
    expect(ok).toBe(false);
    expect(rows.filter((row) => !row.same).map((row) => row.what)).toEqual(
      expect.arrayContaining(['triangles', 'closed parts', 'parts', 'colours']),
    );
  });

  it('zip the OBJ with its library under plain names', async () => {
    const { bytes } = await writtenAndRead(PARTS, 'obj', 'Salt / marsh');
    expect(Object.keys(unzipSync(bytes))).toEqual(['Salt_marsh.obj', 'Salt_marsh.mtl']);
  });

  it('make names unique and free of what ends a token', () => {
    expect(fileNames(['a b', 'a b', ' ', 'x/y:z'])).toEqual(['a_b', 'a_b_2', 'part', 'x_y_z']);
  });
});

describe('text', () => {
  it('follows the byte order mark, then the declaration, then UTF-8', () => {
    const utf16 = Uint8Array.from([0xff, 0xfe, ...[...'<a/>'].flatMap((c) => [c.charCodeAt(0), 0])]);
    expect(decodeXml(utf16)).toBe('<a/>');
    const latin = Uint8Array.from([...'<?xml version="1.0" encoding="iso-8859-1"?><é/>'].map((c) => c.charCodeAt(0)));
    expect(decodeXml(latin)).toContain('<é/>');
    expect(() => decodeXml(Uint8Array.of(0x3c, 0xff, 0x80))).toThrow(/not text in UTF-8/);
    expect(() => decodeXml(new TextEncoder().encode('<?xml version="1.0" encoding="klingon"?><a/>'))).toThrow(
      /KLINGON/,
    );
  });
});
