// remove-rule.ts — a rule given up; values stay as they are.
import { z } from 'zod';
import { ruleOf } from '../ruled.ts';
import type { CommandKind } from './kind.ts';

const schema = z.object({ do: z.literal('remove-rule'), rule: z.string() });

export const removeRule = {
  do: 'remove-rule',
  schema,
  apply(project, { rule: id }) {
    const gone = ruleOf(project, id);
    return { ...project, rules: project.rules?.filter((rule) => rule !== gone) };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;
