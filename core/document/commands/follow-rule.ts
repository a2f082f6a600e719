// follow-rule.ts — layers that differ from a rule get again what it gave them.
import { z } from 'zod';
import { ruleOf, withValues } from '../ruled.ts';
import type { CommandKind } from './kind.ts';

const schema = z.object({ do: z.literal('follow-rule'), rule: z.string(), layers: z.array(z.string()) });

export const followRule = {
  do: 'follow-rule',
  schema,
  apply(project, { rule: id, layers }) {
    const { what, gave } = ruleOf(project, id);
    const values = new Map(
      gave.filter(({ layer }) => layers.includes(layer)).map(({ layer, value }) => [layer, value]),
    );
    return { ...project, layers: withValues(project.layers, what, values) };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;
