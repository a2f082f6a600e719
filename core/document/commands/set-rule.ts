// set-rule.ts — a rule taken: its layers get what it gave them, and follow no other rule for the same value.
import { z } from 'zod';
import { GeometryError } from '../../base/errors.ts';
import { withValues } from '../ruled.ts';
import { type Rule, RuleSchema } from '../rules.ts';
import { type CommandKind, layerOf } from './kind.ts';

const schema = z.object({ do: z.literal('set-rule'), rule: RuleSchema });

export const setRule = {
  do: 'set-rule',
  schema,
  apply(project, { rule }) {
    if (rule.gave.length === 0) throw new GeometryError('out-of-range', 'The rule has no layers to give values to.');
    const values = new Map(rule.gave.map(({ layer, value }) => [layerOf(project, layer).id, value]));
    return {
      ...project,
      rules: [...withoutLayers(project.rules ?? [], rule, new Set(values.keys())), rule],
      layers: withValues(project.layers, rule.what, values),
    };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;

/** Other rules for the same value let go of these layers; those that hold none any more go. */
function withoutLayers(rules: readonly Rule[], { id, what }: Rule, layers: ReadonlySet<string>): Rule[] {
  return rules.flatMap((rule) => {
    if (rule.id === id) return [];
    if (rule.what !== what || !rule.gave.some(({ layer }) => layers.has(layer))) return [rule];
    const gave = rule.gave.filter(({ layer }) => !layers.has(layer));
    return gave.length > 0 ? [{ ...rule, gave }] : [];
  });
}
