// remove-rule.ts — a rule given up; values stay as they are.
import { z } from 'zod';
import { GeometryError } from '../../base/errors.ts';
import type { CommandKind } from './kind.ts';

const schema = z.object({ do: z.literal('remove-rule'), rule: z.string() });

export const removeRule = {
  do: 'remove-rule',
  schema,
  apply(project, { rule: id }) {
    const rules = project.rules ?? [];
    const left = rules.filter((rule) => rule.id !== id);
    if (left.length === rules.length) throw new GeometryError('unknown-id', `There is no rule ${id} in this project.`);
    return { ...project, rules: left };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;
