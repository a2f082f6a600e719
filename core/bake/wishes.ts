// wishes.ts — how everything is baked into one picture, as data.
import { z } from 'zod';

/** Pixels of a side. */
export const BAKE_SIZES = [512, 1024, 2048, 4096, 8192] as const;

export const BakeSchema = z.object({
  size: z.literal(BAKE_SIZES),
  /** Pixels by which each piece is wider in the picture than on the mesh, so that nothing else is seen along its rim. */
  bleed: z.int().min(2).max(64),
  /** How dark it is where no light gets in: 0 for colours as they are. */
  shade: z.number().min(0).max(1),
  /** How far things darken each other, as a share of the longest side of all that is baked. */
  reach: z.number().min(0.001).max(1),
});
export type BakeWishes = z.infer<typeof BakeSchema>;

export const BAKE_DEFAULTS: BakeWishes = { size: 2048, bleed: 4, shade: 0.7, reach: 0.08 };
