// rename-project.ts — another name for the project.
import { z } from 'zod';
import { ProjectSchema } from '../schema.ts';
import type { CommandKind } from './kind.ts';

const schema = z.object({ do: z.literal('rename-project'), name: ProjectSchema.shape.name });

export const renameProject = {
  do: 'rename-project',
  schema,
  apply: (project, { name }) => ({ ...project, name }),
} as const satisfies CommandKind<z.infer<typeof schema>>;
