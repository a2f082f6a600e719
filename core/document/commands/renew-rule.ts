// renew-rule.ts — what a rule gives its layers by now, after they have changed. Those that differ from it on purpose still do.
import { z } from 'zod';
import { ruledValue, ruleOf, withValues } from '../ruled.ts';
import { RuleSchema } from '../rules.ts';
import { type CommandKind, layerOf } from './kind.ts';

const schema = z.object({ do: z.literal('renew-rule'), rule: z.string(), gave: RuleSchema.shape.gave });

export const renewRule = {
  do: 'renew-rule',
  schema,
  apply(project, { rule: id, gave }) {
    const rule = ruleOf(project, id);
    const before = new Map(rule.gave.map(({ layer, value }) => [layer, value]));
    const following = gave.filter(({ layer }) => ruledValue(layerOf(project, layer), rule.what) === before.get(layer));
    const values = new Map(following.map(({ layer, value }) => [layer, value]));
    return {
      ...project,
      rules: project.rules?.map((each) => (each === rule ? { ...rule, gave } : each)),
      layers: withValues(project.layers, rule.what, values),
    };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;
