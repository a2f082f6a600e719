// remove-source.ts — a source taken away, and all layers that are made of it.
import { z } from 'zod';
import { type CommandKind, mustHaveSource } from './kind.ts';

const schema = z.object({ do: z.literal('remove-source'), source: z.string() });

export const removeSource = {
  do: 'remove-source',
  schema,
  apply(project, { source }) {
    mustHaveSource(project, source);
    return {
      ...project,
      sources: project.sources.filter(({ id }) => id !== source),
      layers: project.layers.filter((layer) => layer.source !== source),
    };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;
