// resize.ts — a layer, or all that is in a group, made larger or smaller. Outlines and distances change; depths, edges and bases do
// where that is asked for, and then say so: nothing is hidden in a factor.
import { z } from 'zod';
import { height, withLengths } from '../../base/quantities.ts';
import { BuildSchema } from '../../builds/index.ts';
import { groupsAbove, layersIn } from '../groups.ts';
import { type Placement, UNPLACED } from '../placement.ts';
import type { Layer } from '../schema.ts';
import { type CommandKind, groupOf, unlockedLayerOf } from './kind.ts';

const schema = z.object({
  do: z.literal('resize'),
  /** Of a layer or a group. */
  id: z.string(),
  factor: z.number().min(1e-4).max(1e4),
  /** The point that stays, in the group that the thing is in. */
  about: z.tuple([height(), height(), height()]),
  /** Whether depths, edges, bases and what stands behind one another follow. */
  lengths: z.boolean(),
});

export const resize = {
  do: 'resize',
  schema,
  apply(project, { id, factor, about, lengths }) {
    const { groups = [] } = project;
    const isGroup = groups.some((group) => group.id === id);
    const own = isGroup ? layersIn(project, groupOf(project, id).id) : [unlockedLayerOf(project, id)];
    const isOwn = new Set(own.map((layer) => unlockedLayerOf(project, layer.id).id));
    const isInner = new Set(
      groups.filter(({ within }) => groupsAbove(groups, within).some((above) => above.id === id)),
    );
    const by: Scaling = { factor, lengths };
    const placed = <T extends { readonly id: string; readonly placement?: Placement | undefined }>(thing: T): T => {
      const placement = thing.placement && scaledPlacement(thing.placement, by);
      if (thing.id !== id) return placement ? { ...thing, placement } : thing;
      const { move, ...rest } = placement ?? UNPLACED;
      const stays = move.map((v, k) => v + (1 - scaleOf(by, k)) * about[k]!) as [number, number, number];
      return { ...thing, placement: { ...rest, move: stays } };
    };
    return {
      ...project,
      layers: project.layers.map((layer) => (isOwn.has(layer.id) ? placed(scaledLayer(layer, by)) : layer)),
      ...(project.groups
        ? { groups: groups.map((group) => (group.id === id || isInner.has(group) ? placed(group) : group)) }
        : {}),
    };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;

interface Scaling {
  readonly factor: number;
  readonly lengths: boolean;
}

/** Along x and y outlines are scaled, along z what is not built deeper stays. */
const scaleOf = ({ factor, lengths }: Scaling, axis: number) => (axis === 2 && !lengths ? 1 : factor);

function scaledLayer(layer: Layer, { factor, lengths }: Scaling): Layer {
  const scale = (layer.scale ?? 1) * factor;
  if (!lengths) return { ...layer, scale };
  const build = withLengths(BuildSchema, layer.build, (length) => length * factor);
  return { ...layer, scale, base: layer.base * factor, build };
}

function scaledPlacement(placement: Placement, by: Scaling): Placement {
  const scaled = (point: readonly number[]) => point.map((v, k) => v * scaleOf(by, k)) as [number, number, number];
  const { copies, middle } = placement;
  return {
    ...placement,
    move: scaled(placement.move),
    middle: typeof middle === 'string' ? middle : scaled(middle),
    ...(copies?.along === 'line' ? { copies: { ...copies, step: scaled(copies.step) } } : {}),
    ...(copies?.along === 'ring' ? { copies: { ...copies, centre: scaled(copies.centre) } } : {}),
  };
}
