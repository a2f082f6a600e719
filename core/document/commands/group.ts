// group.ts — layers and groups put into a new group, which stands where the highest of them did.
import { z } from 'zod';
import { GroupSchema, groupsAbove } from '../groups.ts';
import { type CommandKind, groupOf, layerOf } from './kind.ts';

const schema = z.object({
  do: z.literal('group'),
  id: GroupSchema.shape.id,
  name: GroupSchema.shape.name,
  layers: z.array(z.string()),
  groups: z.array(z.string()),
});

export const group = {
  do: 'group',
  schema,
  apply(project, { id, name, layers, groups: inner }) {
    const { groups = [] } = project;
    const members = new Set([
      ...layers.map((each) => layerOf(project, each).id),
      ...inner.map((each) => groupOf(project, each).id),
    ]);
    const chains = [
      ...project.layers.filter((layer) => members.has(layer.id)).map((layer) => groupsAbove(groups, layer.group)),
      ...groups.filter((each) => members.has(each.id)).map((each) => groupsAbove(groups, each.within)),
    ];
    const [first = []] = chains;
    // As deep as all of them are.
    const within = first.findLast((each, depth) => chains.every((chain) => chain[depth] === each));
    return {
      ...project,
      layers: project.layers.map((layer) => (members.has(layer.id) ? { ...layer, group: id } : layer)),
      groups: [
        ...groups.map((each) => (members.has(each.id) ? { ...each, within: id } : each)),
        { id, name, ...(within ? { within: within.id } : {}) },
      ],
    };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;
