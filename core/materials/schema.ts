// schema.ts — what things are made of, as data of the document: the metallic-roughness model of glTF 2.0 (§3.9) and, where a material
// says so, its ratified extensions. What is left out is as the specification has it by default.
import { z } from 'zod';
import { AssetSchema } from '../base/assets.ts';
import { LEAST, length } from '../base/quantities.ts';

/** sRGB (IEC 61966-2-1), which is how colours are chosen and written; files have them linear. */
export const ColourSchema = z.string().regex(/^#[0-9a-f]{6}$/, 'a colour like #1f5c57');

const share = z.number().min(0).max(1);

/** A picture by its bytes, and the name of the file that it came as. */
export const PictureOnSchema = z.object({ asset: AssetSchema, name: z.string().min(1).max(200) });
export type PictureOn = z.infer<typeof PictureOnSchema>;

export const MaterialSchema = z.object({
  colour: ColourSchema,
  /** Lies on it where its UVs say, tinted by its colour. */
  picture: PictureOnSchema.optional(),
  /** Of the whole of it, shine as well: of what is cut out or fades. Glass is transmissive. */
  opacity: share,
  roughness: share,
  metalness: share,
  /** How strongly it mirrors what it does not let in: 0 is matt from every side (KHR_materials_specular). */
  specular: share.optional(),
  /** Index of refraction: 1.33 for water, 1.5 for glass and lacquer, 2.42 for diamond (KHR_materials_ior). */
  ior: z.number().min(1).max(3).optional(),
  /** How much of the light that comes in goes through (KHR_materials_transmission). */
  transmission: share.optional(),
  /** How far light runs inside; 0 for a thin sheet (KHR_materials_volume). */
  thickness: length().optional(),
  /** White light has this colour after `attenuationDistance`. */
  attenuationColour: ColourSchema.optional(),
  attenuationDistance: length(LEAST).optional(),
  /** A clear layer on top, and its roughness (KHR_materials_clearcoat). */
  coat: share.optional(),
  coatRoughness: share.optional(),
  /** Fibres that catch light from the side, and how rough they are (KHR_materials_sheen). */
  sheen: ColourSchema.optional(),
  sheenRoughness: share.optional(),
  /** Light of its own; beyond a strength of 1 it is brighter than white paper (KHR_materials_emissive_strength). */
  glow: ColourSchema.optional(),
  glowStrength: z.number().min(0).max(1000).optional(),
});
export type Material = z.infer<typeof MaterialSchema>;

/** Materials of single sides of a layer, by the names that its build gives them; those that are not named have the layer's. */
export const SIDES_MADE = ['front', 'edge', 'wall', 'back'] as const;
export const SideMaterialsSchema = z.partialRecord(z.enum(SIDES_MADE), MaterialSchema);
export type SideMaterials = z.infer<typeof SideMaterialsSchema>;

/** What a thing is made of that says nothing of it. */
export const PLAIN: Material = { colour: '#cccccc', opacity: 1, roughness: 1, metalness: 0 };

/** As the specification has them where a file does not say. */
export const MATERIAL_DEFAULTS = {
  specular: 1,
  ior: 1.5,
  transmission: 0,
  thickness: 0,
  attenuationColour: '#ffffff',
  coat: 0,
  coatRoughness: 0,
  sheen: '#000000',
  sheenRoughness: 0,
  glow: '#000000',
  glowStrength: 1,
} as const satisfies Partial<Material>;

export type WholeMaterial = Material & { [K in keyof typeof MATERIAL_DEFAULTS]: NonNullable<Material[K]> };

/** With all that it does not say. */
export const wholeOf = (material: Material): WholeMaterial => ({ ...MATERIAL_DEFAULTS, ...material });
