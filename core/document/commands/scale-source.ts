// scale-source.ts — how large a source lies on the sheet.
import { z } from 'zod';
import { SOURCE_BASE } from '../../sources/kind.ts';
import { type CommandKind, mustHaveSource } from './kind.ts';

const schema = z.object({ do: z.literal('scale-source'), source: z.string(), scale: SOURCE_BASE.scale });

export const scaleSource = {
  do: 'scale-source',
  schema,
  apply(project, { source, scale }) {
    mustHaveSource(project, source);
    return { ...project, sources: project.sources.map((each) => (each.id === source ? { ...each, scale } : each)) };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;
