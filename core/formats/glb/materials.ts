// materials.ts — what things are made of, as glTF 2.0 (§3.9) and its ratified extensions write it, and back. Colours are linear there
// (IEC 61966-2-1). What is as the specification has it by default is not written.
import type { Material as GltfMaterial } from '@gltf-transform/core';
import { MATERIAL_DEFAULTS, type Material } from '../../materials/schema.ts';
import { linearOfHex, toEncoded } from '../../picture/colour.ts';
import { rgbToHex } from '../part.ts';

type Json = Record<string, unknown>;

/** A picture in a file. */
export interface Texture {
  readonly index: number;
  readonly isOpaque: boolean;
}

/** Fields that differ from what is so by default, by the names that files have for them. */
function own(material: Material, names: Partial<Record<keyof typeof MATERIAL_DEFAULTS, string>>): Json | null {
  const fields: Json = {};
  for (const [field, name] of Object.entries(names)) {
    const key = field as keyof typeof MATERIAL_DEFAULTS;
    const value = material[key];
    if (value === undefined || value === MATERIAL_DEFAULTS[key]) continue;
    fields[name] = typeof value === 'string' ? linearOfHex(value) : value;
  }
  return Object.keys(fields).length > 0 ? fields : null;
}

/**
 * @param metresPerUnit how far light gets is measured in the world, which is in metres
 * @param texture number of its picture in the file; null for none
 */
export function materialOf(name: string, material: Material, metresPerUnit: number, texture: Texture | null): Json {
  const { colour, opacity, roughness, metalness, glow, glowStrength } = material;
  const baseColorFactor = [...linearOfHex(colour), opacity];
  const shines = glow !== undefined && glow !== MATERIAL_DEFAULTS.glow && glowStrength !== 0;
  // Without the light that goes through, nothing in there can be seen.
  const goesThrough = (material.transmission ?? 0) > 0;
  const volume = goesThrough
    ? own(material, { thickness: 'thicknessFactor', attenuationColour: 'attenuationColor' })
    : null;
  const distance = goesThrough && volume ? material.attenuationDistance : undefined;
  const extensions: Json = {
    KHR_materials_specular: own(material, { specular: 'specularFactor' }),
    KHR_materials_ior: own(material, { ior: 'ior' }),
    KHR_materials_transmission: own(material, { transmission: 'transmissionFactor' }),
    KHR_materials_volume:
      distance === undefined ? volume : { ...volume, attenuationDistance: distance * metresPerUnit },
    KHR_materials_clearcoat:
      (material.coat ?? 0) > 0
        ? own(material, { coat: 'clearcoatFactor', coatRoughness: 'clearcoatRoughnessFactor' })
        : null,
    KHR_materials_sheen: material.sheen
      ? own(material, { sheen: 'sheenColorFactor', sheenRoughness: 'sheenRoughnessFactor' })
      : null,
    KHR_materials_emissive_strength: shines ? own(material, { glowStrength: 'emissiveStrength' }) : null,
  };
  const used = Object.fromEntries(Object.entries(extensions).filter(([, fields]) => fields !== null));
  return {
    name,
    ...(opacity < 1 || texture?.isOpaque === false ? { alphaMode: 'BLEND' } : {}),
    ...(shines ? { emissiveFactor: linearOfHex(glow) } : {}),
    pbrMetallicRoughness: {
      ...(texture ? { baseColorTexture: { index: texture.index } } : {}),
      ...(baseColorFactor.every((v) => v === 1) ? {} : { baseColorFactor }),
      ...(roughness === 1 ? {} : { roughnessFactor: roughness }),
      ...(metalness === 1 ? {} : { metallicFactor: metalness }),
    },
    ...(Object.keys(used).length > 0 ? { extensions: used } : {}),
  };
}

/** What a file has to name because some of its materials use it. */
export function extensionsUsed(materials: readonly Json[]): { extensionsUsed?: string[] } {
  const names = new Set(materials.flatMap(({ extensions = {} }) => Object.keys(extensions as Json)));
  return names.size > 0 ? { extensionsUsed: [...names] } : {};
}

/** What a material that was read is like, as far as all files have it. */
export function readMaterial(paint: GltfMaterial | null): Material {
  const [r = 1, g = 1, b = 1, opacity = 1] = paint?.getBaseColorFactor() ?? [];
  return {
    colour: rgbToHex([r, g, b].map(toEncoded)),
    opacity,
    roughness: paint?.getRoughnessFactor() ?? 1,
    metalness: paint?.getMetallicFactor() ?? 0,
  };
}
