// follow-rule.ts — layers that differ from a rule get again what it gave them.
import { z } from 'zod';
import { GeometryError } from '../../base/errors.ts';
import { withRuled } from '../ruled.ts';
import type { CommandKind } from './kind.ts';

const schema = z.object({ do: z.literal('follow-rule'), rule: z.string(), layers: z.array(z.string()) });

export const followRule = {
  do: 'follow-rule',
  schema,
  apply(project, { rule: id, layers }) {
    const rule = project.rules?.find((known) => known.id === id);
    if (!rule) throw new GeometryError('unknown-id', `There is no rule ${id} in this project.`);
    const values = new Map(
      rule.gave.filter(({ layer }) => layers.includes(layer)).map(({ layer, value }) => [layer, value]),
    );
    return {
      ...project,
      layers: project.layers.map((layer) =>
        values.has(layer.id) ? withRuled(layer, rule.what, values.get(layer.id)!) : layer,
      ),
    };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;
