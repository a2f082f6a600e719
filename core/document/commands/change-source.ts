// change-source.ts — a source with other settings, edits or another file, and its layers as they follow from that; new ones go on top.
import { z } from 'zod';
import { SourceSchema } from '../../sources/index.ts';
import { LayerSchema } from '../schema.ts';
import { type CommandKind, mustHaveSource } from './kind.ts';

const schema = z.object({
  do: z.literal('change-source'),
  source: SourceSchema,
  layers: z.array(LayerSchema),
  /** Layers that nothing is left of. */
  gone: z.array(z.string()).optional(),
});

export const changeSource = {
  do: 'change-source',
  schema,
  apply(project, { source, layers, gone = [] }) {
    mustHaveSource(project, source.id);
    const known = new Set(project.layers.map(({ id }) => id));
    const next = new Map(layers.map((layer) => [layer.id, layer]));
    return {
      ...project,
      sources: project.sources.map((each) => (each.id === source.id ? source : each)),
      layers: [
        ...project.layers.flatMap((layer) => (gone.includes(layer.id) ? [] : (next.get(layer.id) ?? layer))),
        ...layers.filter(({ id }) => !known.has(id)),
      ],
    };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;
