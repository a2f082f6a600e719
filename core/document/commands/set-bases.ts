// set-bases.ts — layers that each get a base of their own.
import { z } from 'zod';
import { withValues } from '../ruled.ts';
import { LayerSchema } from '../schema.ts';
import { type CommandKind, unlockedLayerOf } from './kind.ts';

const schema = z.object({
  do: z.literal('set-bases'),
  bases: z.array(z.object({ layer: z.string(), base: LayerSchema.shape.base })),
});

export const setBases = {
  do: 'set-bases',
  schema,
  apply(project, { bases }) {
    const wanted = new Map(bases.map(({ layer, base }) => [unlockedLayerOf(project, layer).id, base]));
    return { ...project, layers: withValues(project.layers, 'base', wanted) };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;
