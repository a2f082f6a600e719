// One picture of everything: its colours where the mesh has them, its shade where the integral of its definition has it, and files
// that the validator of those who keep the format passes.
import { WebIO } from '@gltf-transform/core';
import { decode } from 'fast-png';
import { describe, expect, it } from 'vitest';
import { applyCommand } from '../document/commands/index.ts';
import { resolve } from '../document/resolve.ts';
import { exportProject } from '../evaluate/export.ts';
import type { Part } from '../formats/part.ts';
import { readSvg } from '../formats/svg/read.ts';
import type { Rigid } from '../geometry/rigid.ts';
import { PLAIN } from '../materials/schema.ts';
import { faceCount } from '../mesh/types.ts';
import { rgbOfHex } from '../picture/colour.ts';
import { encodePng, pngFacts } from '../picture/png.ts';
import type { SourceReader } from '../sources/kind.ts';
import { cube, meshFrom } from '../testing/meshes.ts';
import { NO_PICTURES, projectOf } from '../testing/projects.ts';
import { validateBytes } from '../testing/validator.ts';
import { bake } from './bake.ts';
import { shadeOf } from './shade.ts';
import { surfaceOf } from './surface.ts';
import { NOTHING, texelsOf } from './texels.ts';
import { BAKE_DEFAULTS } from './wishes.ts';

const FLAT = { ...BAKE_DEFAULTS, size: 512, shade: 0 } as const;

const drawing = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 60 40">
  <path fill="#aa3322" d="M2 2h36v30h-36z M10 10h10v10h-10z"/>
  <circle fill="#2255aa" cx="45" cy="20" r="12"/><path fill="#44aa66" d="M5 34 L55 34 30 39z"/></svg>`;

const made = projectOf(readSvg(drawing));
const sided = made.project.layers.reduce(
  (project, { id }, i) =>
    applyCommand(project, {
      do: 'paint',
      paints: [{ layer: id, side: 'wall', material: { ...PLAIN, colour: ['#ffdd00', '#00ffdd', '#dd00ff'][i]! } }],
    }),
  made.project,
);
const parts = made.evaluator.parts(resolve(sided));

/** What a renderer reads at u, v of a picture: four pixels by their nearness. */
function seen({ data, width, height }: ReturnType<typeof decode>, u: number, v: number): number[] {
  const [x, y] = [u * width - 0.5, (1 - v) * height - 0.5];
  const [left, top] = [Math.floor(x), Math.floor(y)];
  const channels = data.length / (width * height);
  return [0, 1, 2].map((k) => {
    const at = (column: number, row: number) => data[channels * (row * width + column) + k]! as number;
    const upper = (1 - x + left) * at(left, top) + (x - left) * at(left + 1, top);
    const lower = (1 - x + left) * at(left, top + 1) + (x - left) * at(left + 1, top + 1);
    return (1 - y + top) * upper + (y - top) * lower;
  });
}

const SIDE_NAMES = ['front', 'edge', 'wall', 'back'] as const;
const colourOf = ({ material, sideMaterials }: Part, side: number) =>
  (sideMaterials?.[SIDE_NAMES[side]!] ?? material).colour;

describe('a baked picture', () => {
  it('has the very colour of each face up to its rim, however thin it is', () => {
    const { parts: baked, pictures } = bake(parts, FLAT);
    const picture = decode(pictures.get('baked')!);
    expect(new Set(baked.map(({ material }) => material)).size).toBe(1);
    for (const [i, { mesh, uvs }] of baked.entries()) {
      for (let f = 0; f < faceCount(mesh); f++) {
        const expected = rgbOfHex(colourOf(parts[i]!, mesh.sides[f]!));
        const [from, to] = [mesh.starts[f]!, mesh.starts[f + 1]!];
        for (let c = from; c < to; c++) {
          const next = c + 1 < to ? c + 1 : from;
          // Where two sides of one chart meet, their colours run into each other; halfway along outer rims nothing does.
          if (mesh.sides[f] === 1 || mesh.sides[f] === 2) continue;
          const [u, v] = [0, 1].map((k) => (uvs![2 * c + k]! + uvs![2 * next + k]!) / 2) as [number, number];
          for (const [k, got] of seen(picture, u, v).entries()) expect(got).toBeCloseTo(expected[k]!, 0);
        }
      }
    }
  });

  it('gives every face a place of its own, with room for the bleed on both sides of a gap', () => {
    const surface = surfaceOf(parts, 512, 5);
    const texels = texelsOf(surface, 512);
    const owners = new Int32Array(texels.length).fill(-1);
    for (const [i, texel] of texels.entries()) if (texel !== NOTHING) owners[i] = surface.charts[texel - 1]!;
    const strangers: number[] = [];
    for (let y = 0; y < 512; y++) {
      for (let x = 0; x < 512; x++) {
        const own = owners[512 * y + x]!;
        // 2 × 5 pixels less the two that are only touched.
        for (let d = 1; own >= 0 && d <= 8; d++) {
          const right = x + d < 512 ? owners[512 * y + x + d]! : own;
          const below = y + d < 512 ? owners[512 * (y + d) + x]! : own;
          for (const other of [right, below]) if (other >= 0 && other !== own) strangers.push(own, other);
        }
      }
    }
    expect(strangers).toEqual([]);
    // No two faces of one chart on one pixel: what all cover is what each covers.
    const area = surface.places.length / 6;
    let sum = 0;
    for (let t = 0; t < area; t++) {
      const [ax, ay, bx, by, cx, cy] = surface.places.subarray(6 * t, 6 * t + 6);
      sum += Math.abs((bx! - ax!) * (cy! - ay!) - (by! - ay!) * (cx! - ax!)) / 2;
    }
    const pixels = texels.reduce((count, texel) => count + (texel === NOTHING ? 0 : 1), 0);
    expect(pixels).toBeGreaterThan(0.999 * sum);
  });

  it('bakes meshes without outlines too, and mirror images as what they show', () => {
    const mirrored: Rigid = [-1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0];
    const stand = { place: mirrored, middle: [0, 0, 0] as const };
    const lone: Part = { name: 'a', mesh: cube(3), material: PLAIN };
    const { used, pictures } = bake([lone, { ...lone, name: 'b', stand }], { ...FLAT, shade: 1 });
    // Six squares of each, in a square that is at best filled.
    expect(used).toBeGreaterThan(0.6);
    const { data, channels } = decode(pictures.get('baked')!);
    expect(channels).toBe(3);
    // Two cubes with a common face: that is dark, nothing else is.
    const dark = Array.from({ length: data.length / 3 }, (_, i) => data[3 * i]!).filter((v) => v === 0).length;
    expect(dark / (data.length / 3)).toBeGreaterThan(0.05);
    expect(dark / (data.length / 3)).toBeLessThan(0.2);
  });
});

describe('contact shade', () => {
  // A floor 40 wide, and a wall 20 high along the middle of it.
  const mesh = meshFrom(
    [
      [-20, -20, 0],
      [20, -20, 0],
      [20, 20, 0],
      [-20, 20, 0],
      [-20, 0, 0],
      [20, 0, 0],
      [20, 0, 20],
      [-20, 0, 20],
    ],
    [
      [0, 1, 2, 3],
      [4, 5, 6, 7],
    ],
  );

  it.each([0.2, 1, 2.5, 4.5])('is what its integral is, %f from a wall', (distance) => {
    const [size, reach] = [512, 5];
    const surface = surfaceOf([{ name: 'x', mesh, material: PLAIN }], size, 2);
    const texels = texelsOf(surface, size);
    const shades = shadeOf(surface, texels, size, reach, () => {});
    // The pixel of the place (0, −distance) of the floor.
    const [ax, ay, bx, , , cy] = surface.places;
    const scale = (bx! - ax!) / 40;
    const [column, row] = [Math.floor(ax! + 20 * scale), Math.floor(ay! + ((20 - distance) / 40) * (cy! - ay!))];
    const off = 20 - ((row + 0.5 - ay!) / (cy! - ay!)) * 40;
    let dark = 0;
    const [rings, spokes] = [400, 400];
    for (let i = 0; i < rings; i++) {
      for (let j = 0; j < spokes; j++) {
        const across = Math.sqrt((i + 0.5) / rings);
        const way = across * Math.sin((2 * Math.PI * (j + 0.5)) / spokes);
        const length = off / way;
        if (way > 0 && length < reach) dark += (1 - length / reach) / (rings * spokes);
      }
    }
    expect((shades[row * size + column]! - 1) / 65_534).toBeCloseTo(1 - dark, 1.5);
  });
});

/** Red, green above; blue, white below. */
const FOUR = new Uint8ClampedArray([...[255, 0, 0, 255, 0, 255, 0, 255], ...[0, 0, 255, 255, 255, 255, 255, 255]]);
const FOUR_ASSET = 'b'.repeat(64);
const reader: SourceReader = {
  ...NO_PICTURES,
  picture: async () => ({ picture: { width: 2, height: 2, data: FOUR }, dpi: null }),
};

describe('a picture on the front', () => {
  const square = projectOf(readSvg('<svg viewBox="0 0 10 10"><path d="M0 0h10v10h-10z"/></svg>'));
  const [layer] = square.project.layers;
  const shown = applyCommand(square.project, {
    do: 'paint',
    paints: [
      {
        layer: layer!.id,
        side: 'front',
        material: { ...PLAIN, colour: '#ffffff', picture: { asset: FOUR_ASSET, name: 'four.png' } },
      },
    ],
  });

  it('stands upright and reads from left to right, in a GLB and in an OBJ', async () => {
    const wishes = { format: 'glb', lengths: 'metres' } as const;
    const { files, read } = await exportProject(square.evaluator, resolve(shown), wishes, reader);
    expect(read.ok).toBe(true);
    expect(read.rows.find(({ what }) => what === 'pictures')?.read).toBe('1 of 2 × 2');
    const { issues } = await validateBytes(files.glb!);
    // That the other sides have UVs and no picture is no fault.
    expect([issues.numErrors, issues.numWarnings]).toEqual([0, 0]);
    const document = await new WebIO().readBinary(files.glb!);
    const front = document
      .getRoot()
      .listMeshes()[0]!
      .listPrimitives()
      .find((each) => each.getMaterial()!.getBaseColorTexture())!;
    const [places, uvs] = [front.getAttribute('POSITION')!, front.getAttribute('TEXCOORD_0')!];
    const normals = front.getAttribute('NORMAL')!;
    const flat = [...new Set<number>(front.getIndices()!.getArray()!)];
    expect(flat.every((i) => normals.getElement(i, [])[2]! > 0.99)).toBe(true);
    for (const i of flat) {
      // In glTF 2.0 (§3.6), u = 0, v = 0 is the upper left of a picture; the front is ten units wide.
      const [x, y] = places.getElement(i, [] as number[]);
      const [u, v] = uvs.getElement(i, [] as number[]);
      expect(u!).toBeCloseTo(0.5 + x! / 10, 4);
      expect(v!).toBeCloseTo(0.5 - y! / 10, 4);
    }
    const image = decode(document.getRoot().listTextures()[0]!.getImage()!);
    expect([...image.data.subarray(0, 3)]).toEqual([255, 0, 0]);
    const obj = await exportProject(square.evaluator, resolve(shown), { ...wishes, format: 'obj' }, reader);
    expect(obj.read.ok).toBe(true);
    expect(new TextDecoder().decode(obj.files.mtl)).toMatch(/^map_Kd Test\.1\.png$/m);
    expect(pngFacts(obj.files['1.png']!)).toEqual({ width: 2, height: 2, isOpaque: true });
  });

  it('is baked the same way round', async () => {
    const wishes = { format: 'glb', lengths: 'units', bake: FLAT } as const;
    const { files, read } = await exportProject(square.evaluator, resolve(shown), wishes, reader);
    expect(read.ok).toBe(true);
    const document = await new WebIO().readBinary(files.glb!);
    expect(document.getRoot().listMaterials()).toHaveLength(1);
    const primitive = document.getRoot().listMeshes()[0]!.listPrimitives()[0]!;
    const picture = decode(document.getRoot().listTextures()[0]!.getImage()!);
    const [places, normals, uvs] = ['POSITION', 'NORMAL', 'TEXCOORD_0'].map((name) => primitive.getAttribute(name)!);
    const front = Array.from({ length: places!.getCount() }, (_, i) => i).filter(
      (i) => normals!.getElement(i, [])[2]! > 0.99,
    );
    const at = (x: number, y: number) => {
      const weights = front.map((i) => {
        const [px, py] = places!.getElement(i, [] as number[]);
        return [1 / (Math.hypot(px! - x, py! - y) + 1e-9), uvs!.getElement(i, [])] as const;
      });
      return weights.reduce((best, each) => (each[0] > best[0] ? each : best))[1] as number[];
    };
    const middle = front.reduce((sum, i) => sum.map((v, k) => v + uvs!.getElement(i, [])[k]! / front.length), [0, 0]);
    const pixel = (x: number, y: number) => {
      const uv = at(x, y).map((v, k) => v + 0.5 * (middle[k]! - v));
      return seen(picture, uv[0]!, 1 - uv[1]!).map((v) => Math.round(v / 255));
    };
    expect([pixel(-5, 5), pixel(5, 5), pixel(-5, -5), pixel(5, -5)]).toEqual([
      [1, 0, 0],
      [0, 1, 0],
      [0, 0, 1],
      [1, 1, 1],
    ]);
  });
});

describe('files', () => {
  it.each(['glb', 'obj'] as const)(
    'baked into %s hold one picture and read back as they were built',
    async (format) => {
      const wishes = { format, lengths: 'units', bake: { ...FLAT, shade: 0.7 } } as const;
      const { files, read } = await exportProject(made.evaluator, resolve(sided), wishes, NO_PICTURES);
      expect(read.rows.filter(({ same }) => !same)).toEqual([]);
      expect(read.rows.find(({ what }) => what === 'pictures')?.read).toBe('3 of 512 × 512');
      if (files.glb) expect((await validateBytes(files.glb)).issues.messages).toEqual([]);
    },
  );

  it('that hold no pictures say so', async () => {
    const wishes = { format: 'stl', lengths: 'units', bake: FLAT } as const;
    await expect(exportProject(made.evaluator, resolve(sided), wishes, NO_PICTURES)).rejects.toThrow(
      'STL holds no pictures, so nothing can be baked into it. Take GLB or OBJ.',
    );
  });

  it('keep what can be seen through', () => {
    const clear = new Uint8Array([10, 20, 30, 40]);
    expect(pngFacts(encodePng(clear, 1, 1)).isOpaque).toBe(false);
    expect([...decode(encodePng(clear, 1, 1)).data]).toEqual([10, 20, 30, 40]);
  });
});
