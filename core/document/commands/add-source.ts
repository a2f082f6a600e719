// add-source.ts — something brought in, with its layers on top.
import { z } from 'zod';
import { SourceSchema } from '../../sources/index.ts';
import { GroupsSchema } from '../groups.ts';
import { LayerSchema, ProjectSchema } from '../schema.ts';
import type { CommandKind } from './kind.ts';

const schema = z.object({
  do: z.literal('add-source'),
  source: SourceSchema,
  layers: z.array(LayerSchema),
  /** That the layers are in. */
  groups: GroupsSchema.optional(),
  /** For the first source, by the size of which it follows. */
  tolerance: ProjectSchema.shape.tolerance.optional(),
});

export const addSource = {
  do: 'add-source',
  schema,
  apply: (project, { source, layers, groups = [], tolerance = project.tolerance }) => ({
    ...project,
    tolerance,
    sources: [...project.sources, source],
    layers: [...project.layers, ...layers],
    ...(groups.length > 0 ? { groups: [...(project.groups ?? []), ...groups] } : {}),
  }),
} as const satisfies CommandKind<z.infer<typeof schema>>;
