// ungroup.ts — a group taken away; what is in it stays, in the group around it.
import { z } from 'zod';
import { GeometryError } from '../../base/errors.ts';
import { PlacementSchema } from '../placement.ts';
import { type CommandKind, groupOf } from './kind.ts';
import { withPlacements } from './place.ts';

const schema = z.object({
  do: z.literal('ungroup'),
  group: z.string(),
  /** Of what is in it, where the group itself was placed, so that nothing moves. */
  places: z.array(z.object({ id: z.string(), placement: PlacementSchema })),
});

export const ungroup = {
  do: 'ungroup',
  schema,
  apply(project, { group: id, places }) {
    const { within, name, placement } = groupOf(project, id);
    if (placement?.copies) {
      throw new GeometryError(
        'out-of-range',
        `The group “${name}” was kept: it stands there in copies. Take its copies away first.`,
      );
    }
    const placed = withPlacements(project, places);
    return {
      ...placed,
      layers: placed.layers.map((layer) => (layer.group === id ? { ...layer, group: within } : layer)),
      groups: placed.groups!.flatMap((each) =>
        each.id === id ? [] : each.within === id ? [{ ...each, within }] : [each],
      ),
    };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;
