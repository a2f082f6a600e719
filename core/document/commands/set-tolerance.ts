// set-tolerance.ts — how closely curves are followed.
import { z } from 'zod';
import { ProjectSchema } from '../schema.ts';
import type { CommandKind } from './kind.ts';

const schema = z.object({ do: z.literal('set-tolerance'), tolerance: ProjectSchema.shape.tolerance });

export const setTolerance = {
  do: 'set-tolerance',
  schema,
  apply: (project, { tolerance }) => ({ ...project, tolerance }),
} as const satisfies CommandKind<z.infer<typeof schema>>;
