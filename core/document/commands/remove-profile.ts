// remove-profile.ts — a drawn profile taken away; edges that have it are chamfered from then on.
import { z } from 'zod';
import type { CommandKind } from './kind.ts';
import { profileEverywhere } from './save-profile.ts';

const schema = z.object({ do: z.literal('remove-profile'), name: z.string() });

export const removeProfile = {
  do: 'remove-profile',
  schema,
  apply: (project, { name }) => ({
    ...profileEverywhere(project, name, 'chamfer'),
    profiles: project.profiles.filter((known) => known.name !== name),
  }),
} as const satisfies CommandKind<z.infer<typeof schema>>;
