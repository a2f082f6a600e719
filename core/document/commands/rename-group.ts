// rename-group.ts — the name of a group.
import { z } from 'zod';
import { GroupSchema } from '../groups.ts';
import { type CommandKind, groupOf } from './kind.ts';

const schema = z.object({ do: z.literal('rename-group'), group: z.string(), name: GroupSchema.shape.name });

export const renameGroup = {
  do: 'rename-group',
  schema,
  apply(project, { group: id, name }) {
    groupOf(project, id);
    return { ...project, groups: project.groups!.map((each) => (each.id === id ? { ...each, name } : each)) };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;
