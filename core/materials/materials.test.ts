// Materials at the boundary of glTF: every one passes the validator of those who keep the format, and comes out as it went in.
import type { Mesh, MeshPhysicalMaterial } from 'three';
import { GLTFLoader } from 'three/addons/loaders/GLTFLoader.js';
import { describe, expect, it } from 'vitest';
import { applyCommand } from '../document/commands/index.ts';
import { exportProject } from '../evaluate/export.ts';
import { writeGlb } from '../formats/glb/write.ts';
import { paintOf } from '../formats/part.ts';
import { readSvg } from '../formats/svg/read.ts';
import { cube } from '../testing/meshes.ts';
import { NO_PICTURES, projectOf } from '../testing/projects.ts';
import { validateBytes } from '../testing/validator.ts';
import { ballPicture } from './ball.ts';
import { isAlike, LIBRARY, madeOf, PALETTES, swapped, withoutShine } from './library.ts';
import { type Material, MaterialSchema, PLAIN } from './schema.ts';
import { materialsOf } from './sides.ts';

const FULL: Material = {
  colour: '#bcbcbc',
  opacity: 0.5,
  roughness: 0.25,
  metalness: 0.75,
  specular: 0.4,
  ior: 1.33,
  transmission: 0.9,
  thickness: 3,
  attenuationColour: '#808080',
  attenuationDistance: 20,
  coat: 0.7,
  coatRoughness: 0.1,
  sheen: '#ffffff',
  sheenRoughness: 0.3,
  glow: '#ff8000',
  glowStrength: 5,
};
const written = (material: Material) =>
  writeGlb([{ name: 'Cube', mesh: cube(2), material }], { name: 'x', metresPerUnit: 0.001 });
const jsonOf = (glb: Uint8Array) =>
  JSON.parse(
    new TextDecoder().decode(glb.subarray(20, 20 + new DataView(glb.buffer, glb.byteOffset).getUint32(12, true))),
  );

describe('a material in a GLB', () => {
  const all = [
    ...LIBRARY.map((named) => [named.name, madeOf(named, { colour: '#336699' })] as const),
    ['all at once', FULL] as const,
    ['nothing said', PLAIN] as const,
  ];
  it.each(all)('%s: no error, no warning', async (_, material) => {
    const { issues } = await validateBytes(written(material));
    expect(issues.messages).toEqual([]);
  });

  it('has linear colours (IEC 61966-2-1) and lengths in metres where the format wants them', () => {
    const { materials, extensionsUsed } = jsonOf(written(FULL));
    const [{ pbrMetallicRoughness, emissiveFactor, extensions, alphaMode }] = materials;
    // 0xbc = 188 is 0.5029 of the light (worked example of the transfer function's own definition).
    expect(pbrMetallicRoughness.baseColorFactor[0]).toBeCloseTo(0.50289, 4);
    expect(emissiveFactor[1]).toBeCloseTo(0.21586, 4);
    expect(alphaMode).toBe('BLEND');
    expect(extensions).toMatchObject({
      KHR_materials_specular: { specularFactor: 0.4 },
      KHR_materials_ior: { ior: 1.33 },
      KHR_materials_transmission: { transmissionFactor: 0.9 },
      // In units of the mesh, and in the world, which is in metres.
      KHR_materials_volume: { thicknessFactor: 3, attenuationDistance: 0.02 },
      KHR_materials_clearcoat: { clearcoatFactor: 0.7, clearcoatRoughnessFactor: 0.1 },
      KHR_materials_sheen: { sheenColorFactor: [1, 1, 1], sheenRoughnessFactor: 0.3 },
      KHR_materials_emissive_strength: { emissiveStrength: 5 },
    });
    expect(extensionsUsed.toSorted()).toEqual(Object.keys(extensions).toSorted());
  });

  it('is read by the library that draws the view, extensions and all', async () => {
    const glb = written(FULL);
    const { scene } = await new GLTFLoader().parseAsync(glb.slice().buffer, '');
    const found = (scene.getObjectByName('Cube') as Mesh).material as MeshPhysicalMaterial;
    const { clearcoat, ior, transmission, thickness, attenuationDistance, emissiveIntensity, sheenRoughness } = found;
    expect(`#${found.color.getHexString()}`).toBe(FULL.colour);
    expect(`#${found.emissive.getHexString()}`).toBe(FULL.glow);
    expect({ clearcoat, ior, transmission, thickness, emissiveIntensity, sheenRoughness }).toEqual({
      clearcoat: FULL.coat,
      ior: FULL.ior,
      transmission: FULL.transmission,
      thickness: FULL.thickness,
      emissiveIntensity: FULL.glowStrength,
      sheenRoughness: FULL.sheenRoughness,
    });
    expect(attenuationDistance).toBeCloseTo(0.02, 9);
  });

  it('writes nothing that is so by default', () => {
    const { materials, extensionsUsed } = jsonOf(
      written({ ...PLAIN, ior: 1.5, coat: 0, glow: '#000000', glowStrength: 3 }),
    );
    expect(materials[0].extensions).toBeUndefined();
    expect(materials[0].emissiveFactor).toBeUndefined();
    expect(extensionsUsed).toBeUndefined();
  });
});

describe('sides of something else', () => {
  const made = projectOf(
    readSvg('<svg viewBox="0 0 50 50"><rect x="5" y="5" width="40" height="30" fill="#204060"/></svg>'),
    {
      depth: 4,
    },
  );
  const [layer] = made.project.layers;
  const [gold, glass] = ['gold', 'glass'].map((id) => madeOf(LIBRARY.find((each) => each.id === id)!, layer!.material));
  const painted = applyCommand(made.project, {
    do: 'paint',
    paints: [
      { layer: layer!.id, side: 'edge', material: gold! },
      { layer: layer!.id, side: 'back', material: glass! },
    ],
  });

  it('are primitives of one mesh, closed together, and read back', async () => {
    const { files, read } = await exportProject(
      made.evaluator,
      painted,
      { format: 'glb', lengths: 'metres' },
      NO_PICTURES,
    );
    expect(read.rows.filter(({ same }) => !same)).toEqual([]);
    expect(read.rows.find(({ what }) => what === 'colours')!.read.split(' ')).toHaveLength(3);
    const json = jsonOf(files.glb!);
    expect(json.meshes[0].primitives).toHaveLength(3);
    expect(json.materials.map(({ name }: { name: string }) => name)).toEqual([
      layer!.name,
      `${layer!.name}, edge`,
      `${layer!.name}, back`,
    ]);
    expect((await validateBytes(files.glb!)).issues.messages).toEqual([]);
  });

  it('are named in OBJ and MTL, faces under each', async () => {
    const { files, read } = await exportProject(
      made.evaluator,
      painted,
      { format: 'obj', lengths: 'units' },
      NO_PICTURES,
    );
    expect(read.ok).toBe(true);
    const text = new TextDecoder().decode(files.obj!);
    expect(text.match(/^usemtl /gm)).toHaveLength(3);
  });

  it('cover all triangles once, those of a side together', () => {
    const [part] = made.evaluator.parts(painted);
    const paint = paintOf(part!);
    for (const side of part!.mesh.sides) expect(paint.filter(({ has }) => has[side])).toHaveLength(1);
  });

  it('that are alike are one material; as the rest is none of its own', () => {
    const alike = applyCommand(painted, { do: 'paint', paints: [{ layer: layer!.id, side: 'wall', material: gold! }] });
    expect(materialsOf(alike.layers[0]!.material, alike.layers[0]!.sideMaterials)).toHaveLength(3);
    const back = applyCommand(painted, {
      do: 'paint',
      paints: [
        { layer: layer!.id, side: 'edge', material: null },
        { layer: layer!.id, side: 'back', material: null },
      ],
    });
    expect(back.layers[0]).toEqual(layer);
    const all = applyCommand(painted, { do: 'paint', paints: [{ layer: layer!.id, side: null, material: null }] });
    expect(all.layers[0]).toEqual(layer);
  });
});

describe('the library', () => {
  it('holds valid materials, each another', () => {
    const made = LIBRARY.map((named) => madeOf(named, { colour: '#123456' }));
    for (const material of made) expect(MaterialSchema.parse(material)).toEqual(material);
    for (const [i, a] of made.entries()) for (const b of made.slice(i + 1)) expect(isAlike(a, b)).toBe(false);
  });

  it('keeps the colour of what it is put on, unless it is of one colour', () => {
    const of = (id: string) => madeOf(LIBRARY.find((each) => each.id === id)!, { colour: '#123456' });
    expect(of('enamel').colour).toBe('#123456');
    expect(of('gold').colour).not.toBe('#123456');
    expect(of('neon').glow).toBe('#123456');
  });

  it('has its lengths in the unit of the project', () => {
    const glass = LIBRARY.find(({ id }) => id === 'glass')!;
    expect(madeOf(glass, { colour: '#ffffff' }, 1000).thickness).toBeCloseTo(0.002, 9);
  });

  it('takes all shine away and leaves the colour', () => {
    expect(withoutShine(FULL)).toMatchObject({ colour: FULL.colour, roughness: 1, metalness: 0, specular: 0 });
    expect(withoutShine(FULL).coat).toBeUndefined();
  });

  it('puts palettes on so that dark stays dark', () => {
    for (const { colours } of PALETTES) {
      const light = [0.9, 0.1, 0.5, 0.1, 0.7];
      const found = swapped(colours, light);
      expect(found[1]).toBe(colours[0]);
      expect(found[3]).toBe(colours[0]);
      expect(found[0]).toBe(colours.at(-1));
      const order = light.map((_, i) => i).sort((i, j) => light[i]! - light[j]!);
      const places = order.map((i) => (colours as readonly string[]).indexOf(found[i]!));
      expect(places).toEqual(places.toSorted((a, b) => a - b));
    }
  });
});

describe('a ball of a material', () => {
  const mean = (material: Material) => {
    const pixels = ballPicture(material, 32);
    let [sum, count] = [0, 0];
    for (let i = 0; i < pixels.length; i += 4) {
      if (pixels[i + 3]! < 255) continue;
      sum += pixels[i]! + pixels[i + 1]! + pixels[i + 2]!;
      count += 3;
    }
    return sum / count;
  };
  it('is round, clear around it, and lighter for lighter materials', () => {
    const pixels = ballPicture(PLAIN, 32);
    expect(pixels[3]).toBe(0);
    expect(pixels[4 * (16 * 32 + 16) + 3]).toBe(255);
    expect(mean({ ...PLAIN, colour: '#eeeeee' })).toBeGreaterThan(mean({ ...PLAIN, colour: '#222222' }) + 60);
  });
  it('shows shine as something brighter than the rest of it', () => {
    const top = (material: Material) => Math.max(...ballPicture(material, 32).filter((_, i) => i % 4 === 0));
    const dark = { ...PLAIN, colour: '#202020' };
    expect(top({ ...dark, roughness: 0.1 })).toBeGreaterThan(top({ ...dark, roughness: 1, specular: 0 }) + 60);
  });
});
