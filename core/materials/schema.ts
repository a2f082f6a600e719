// schema.ts — what things are made of, as data of the document.
import { z } from 'zod';

export const ColourSchema = z.string().regex(/^#[0-9a-f]{6}$/, 'a colour like #1f5c57');

const share = z.number().min(0).max(1);

export const MaterialSchema = z.object({
  /** sRGB. */
  colour: ColourSchema,
  opacity: share,
  roughness: share,
  metalness: share,
});
export type Material = z.infer<typeof MaterialSchema>;

/** Materials of single sides of a layer, by the names that its build gives them; those that are not named have the layer's. */
export const SideMaterialsSchema = z.strictObject({});

/** What a thing is made of that says nothing of it. */
export const PLAIN: Material = { colour: '#cccccc', opacity: 1, roughness: 1, metalness: 0 };
