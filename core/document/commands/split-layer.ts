// split-layer.ts — a layer with several outlines made a group of layers with one each, so that each can have its own depth and
// material. Nothing of how it looks and where it stands changes.
import { z } from 'zod';
import { GeometryError } from '../../base/errors.ts';
import { MOST_BEFORE_NUMBER, uniqueName } from '../../base/names.ts';
import { GroupSchema } from '../groups.ts';
import type { Rule } from '../rules.ts';
import type { Layer } from '../schema.ts';
import { type CommandKind, unlockedLayerOf } from './kind.ts';

const schema = z.object({
  do: z.literal('split-layer'),
  layer: z.string(),
  /** Of the new layers: one for each member. */
  ids: z.array(z.string()),
  /** Of the group that they are in. */
  group: GroupSchema.shape.id,
});

export const splitLayer = {
  do: 'split-layer',
  schema,
  apply(project, { layer: of, ids, group }) {
    const layer = unlockedLayerOf(project, of);
    const { placement, ...rest } = layer;
    if (layer.members.length < 2) {
      throw new GeometryError('out-of-range', `“${layer.name}” was not split: it has one outline only.`);
    }
    if (ids.length !== layer.members.length) {
      const message = `“${layer.name}” was not split: it has ${layer.members.length} outlines, and ${ids.length} were named.`;
      throw new GeometryError('out-of-range', message);
    }
    const names = new Set(project.layers.map(({ name }) => name));
    const layers = layer.members.map((member, i): Layer => {
      const skipped = layer.skipped.filter((each) => each === member);
      const name = uniqueName(`${layer.name.slice(0, MOST_BEFORE_NUMBER)} ${i + 1}`, names);
      return { ...rest, id: ids[i]!, name, members: [member], skipped, group };
    });
    return {
      ...project,
      layers: project.layers.flatMap((other) => (other === layer ? layers : [other])),
      groups: [
        ...(project.groups ?? []),
        {
          id: group,
          name: layer.name,
          ...(layer.group ? { within: layer.group } : {}),
          // All of them turn about the middle that the layer had.
          ...(placement ? { placement } : {}),
        },
      ],
      ...(project.rules ? { rules: project.rules.map((rule) => given(rule, of, ids)) } : {}),
    };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;

/** What a rule gave the layer, it gave each of those that it became. */
function given(rule: Rule, of: string, ids: readonly string[]): Rule {
  if (!rule.gave.some(({ layer }) => layer === of)) return rule;
  const gave = rule.gave.flatMap((each) => (each.layer === of ? ids.map((layer) => ({ ...each, layer })) : [each]));
  return { ...rule, gave };
}
