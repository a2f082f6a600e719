// paint.ts — what layers and their sides are made of, whole: nothing of what they were made of stays.
import { z } from 'zod';
import { MaterialSchema, SIDES_MADE, type SideMaterials } from '../../materials/schema.ts';
import type { Layer } from '../schema.ts';
import { type CommandKind, unlockedLayerOf } from './kind.ts';

const PaintSchema = z.object({
  layer: z.string(),
  /** Null for the layer itself: all sides that are made of nothing else. */
  side: z.nullable(z.enum(SIDES_MADE)),
  /** Null makes a side as the layer is, and, for the layer itself, all of its sides. */
  material: z.nullable(MaterialSchema),
});
export type Paint = z.infer<typeof PaintSchema>;

const schema = z.object({ do: z.literal('paint'), paints: z.array(PaintSchema) });

export const paint = {
  do: 'paint',
  schema,
  apply(project, { paints }) {
    const byLayer = new Map<string, Paint[]>();
    for (const each of paints) {
      const { id } = unlockedLayerOf(project, each.layer);
      byLayer.set(id, [...(byLayer.get(id) ?? []), each]);
    }
    return { ...project, layers: project.layers.map((layer) => (byLayer.get(layer.id) ?? []).reduce(painted, layer)) };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;

function painted(layer: Layer, { side, material }: Paint): Layer {
  const { sideMaterials, ...rest } = layer;
  if (side === null) return material ? { ...layer, material } : rest;
  const { [side]: _, ...others } = sideMaterials ?? {};
  const sides: SideMaterials = material ? { ...others, [side]: material } : others;
  return Object.keys(sides).length > 0 ? { ...rest, sideMaterials: sides } : rest;
}
