// command.ts — a command: the stack upside down, each layer as high above the sheet as it was below the top.
import { z } from 'zod';
import { heightOf } from '../../core/builds/index.ts';
import type { CommandKind } from '../../core/document/commands/kind.ts';

const schema = z.object({ do: z.literal('turn-stack') });

export const turnStack = {
  do: 'turn-stack',
  schema,
  apply(project) {
    const top = Math.max(0, ...project.layers.map(({ base, build }) => base + heightOf(build)));
    const layers = project.layers.map((layer) => ({ ...layer, base: top - layer.base - heightOf(layer.build) }));
    return { ...project, layers: layers.reverse() };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;
