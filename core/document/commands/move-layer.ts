// move-layer.ts — a layer's place in the order in which layers are painted.
import { z } from 'zod';
import { type CommandKind, layerOf } from './kind.ts';

const schema = z.object({ do: z.literal('move-layer'), layer: z.string(), to: z.int().min(0) });

export const moveLayer = {
  do: 'move-layer',
  schema,
  apply(project, { layer: id, to }) {
    const layer = layerOf(project, id);
    const others = project.layers.filter((other) => other !== layer);
    return { ...project, layers: [...others.slice(0, to), layer, ...others.slice(to)] };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;
