// mark-edges.ts — edges of a layer's mesh made hard, soft, or gone; or again what they are without a hand.
import { z } from 'zod';
import { MarkSchema } from '../schema.ts';
import { type CommandKind, unlockedLayerOf } from './kind.ts';

const schema = z.object({
  do: z.literal('mark-edges'),
  layer: z.string(),
  /** Of an edge that is marked already, the place that its mark has. */
  at: z.array(MarkSchema.shape.at),
  /** Null for no mark. */
  is: z.nullable(MarkSchema.shape.is),
});

export const markEdges = {
  do: 'mark-edges',
  schema,
  apply(project, { layer: id, at, is }) {
    const layer = unlockedLayerOf(project, id);
    const places = new Set(at.map((place) => JSON.stringify(place)));
    const others = (layer.marks ?? []).filter((mark) => !places.has(JSON.stringify(mark.at)));
    const marks = is ? [...others, ...at.map((place) => ({ is, at: place }))] : others;
    const { marks: _, ...rest } = layer;
    const changed = marks.length > 0 ? { ...rest, marks } : rest;
    return { ...project, layers: project.layers.map((each) => (each === layer ? changed : each)) };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;
