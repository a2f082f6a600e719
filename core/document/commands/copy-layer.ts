// copy-layer.ts — a layer once more, standing on the one it is a copy of, so that none of their sides lie in one plane.
import { z } from 'zod';
import { MOST_BEFORE_NUMBER, uniqueName } from '../../base/names.ts';
import { heightOf } from '../../builds/index.ts';
import { type CommandKind, layerOf } from './kind.ts';

const schema = z.object({
  do: z.literal('copy-layer'),
  layer: z.string(),
  /** Id of the copy. */
  id: z.string(),
});

export const copyLayer = {
  do: 'copy-layer',
  schema,
  apply(project, { layer: of, id }) {
    const layer = layerOf(project, of);
    const name = uniqueName(
      layer.name.slice(0, MOST_BEFORE_NUMBER),
      new Set(project.layers.map((other) => other.name)),
    );
    const copy = { ...layer, id, name, base: layer.base + heightOf(layer.build) };
    return { ...project, layers: project.layers.flatMap((other) => (other === layer ? [layer, copy] : [other])) };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;
