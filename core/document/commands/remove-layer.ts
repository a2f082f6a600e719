// remove-layer.ts — a layer taken away.
import { z } from 'zod';
import { type CommandKind, unlockedLayerOf } from './kind.ts';

const schema = z.object({ do: z.literal('remove-layer'), layer: z.string() });

export const removeLayer = {
  do: 'remove-layer',
  schema,
  apply(project, { layer: id }) {
    const layer = unlockedLayerOf(project, id);
    return { ...project, layers: project.layers.filter((other) => other !== layer) };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;
