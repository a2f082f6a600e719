// groups.ts — layers that are placed, turned and hidden together, and groups of groups. Layers of a group follow each other in the
// stack; a group lasts as long as there is a layer in it.
import { z } from 'zod';
import { GeometryError } from '../base/errors.ts';
import { OfObject } from '../base/of-object.ts';
import { PlacementSchema } from './placement.ts';

export const GroupSchema = z.object({
  id: z.string().min(1).max(200),
  name: z.string().trim().min(1).max(120),
  /** The group it is in. */
  within: z.string().min(1).max(200).optional(),
  placement: PlacementSchema.optional(),
});
export type Group = z.infer<typeof GroupSchema>;

export const MOST_GROUPS = 1000;
export const GroupsSchema = z.array(GroupSchema).max(MOST_GROUPS);

/** Something that can be in a group. */
interface Member {
  readonly id: string;
  readonly group?: string | undefined;
}

interface Stack<L extends Member> {
  readonly layers: readonly L[];
  readonly groups?: readonly Group[] | undefined;
}

const byId = new OfObject((groups: readonly Group[]) => new Map(groups.map((group) => [group.id, group])));

/**
 * The groups that a layer or a group is in, the outermost first.
 * @throws {GeometryError} 'out-of-range' for a group that is inside itself
 */
export function groupsAbove(groups: readonly Group[], inner: string | undefined): Group[] {
  const chain: Group[] = [];
  for (let id = inner; id !== undefined; ) {
    const group = byId.get(groups).get(id);
    if (!group) break;
    if (chain.includes(group)) {
      throw new GeometryError(
        'out-of-range',
        `The change was not made: the group “${group.name}” would be inside itself.`,
      );
    }
    chain.unshift(group);
    id = group.within;
  }
  return chain;
}

/** All layers of a group and of the groups in it, the lowest first. */
export function layersIn<L extends Member>({ layers, groups = [] }: Stack<L>, group: string): L[] {
  return layers.filter((layer) => groupsAbove(groups, layer.group).some(({ id }) => id === group));
}

/** A row of the stack as a tree: a layer, or a group with what is in it. */
export type Branch<L extends Member> =
  | { readonly layer: L; readonly group?: undefined; readonly members?: undefined }
  | { readonly group: Group; readonly members: readonly Branch<L>[]; readonly layer?: undefined };

/** The stack as a tree, the lowest first; a group stands where its highest layer does. */
export function branchesOf<L extends Member>({ layers, groups = [] }: Stack<L>): Branch<L>[] {
  return branches(
    layers.map((layer) => ({ layer, above: layer.group === undefined ? [] : groupsAbove(groups, layer.group) })),
    0,
  );
}

interface Placed<L> {
  readonly layer: L;
  readonly above: readonly Group[];
}

function branches<L extends Member>(placed: readonly Placed<L>[], depth: number): Branch<L>[] {
  const members = new Map<Group, Placed<L>[]>();
  for (const each of placed) {
    const group = each.above[depth];
    if (!group) continue;
    const own = members.get(group);
    if (own) own.push(each);
    else members.set(group, [each]);
  }
  return placed.flatMap((each): Branch<L>[] => {
    const group = each.above[depth];
    if (!group) return [{ layer: each.layer }];
    const own = members.get(group)!;
    return own.at(-1) === each ? [{ group, members: branches(own, depth + 1) }] : [];
  });
}

export const layersOf = <L extends Member>(tree: readonly Branch<L>[]): L[] =>
  tree.flatMap(({ layer, members }) => (members ? layersOf(members) : [layer]));

/**
 * The stack with the layers of each group one after another and without groups that hold none; the very same lists where nothing
 * is to be done. @throws {GeometryError} 'out-of-range' for a group that is inside itself
 */
export function settled<S extends Stack<L>, L extends Member>(stack: S): S {
  const { groups } = stack;
  if (!groups) return stack;
  for (const { id } of groups) groupsAbove(groups, id);
  const known = new Set(groups.map(({ id }) => id));
  const layers = stack.layers.map((layer) => {
    if (layer.group === undefined || known.has(layer.group)) return layer;
    const { group: _, ...rest } = layer;
    return rest as L;
  });
  const used = new Set(layers.flatMap(({ group }) => groupsAbove(groups, group)));
  const left = groups.filter((group) => used.has(group));
  const ordered = layersOf(branchesOf({ layers, groups: left }));
  const isSame = ordered.every((layer, i) => layer === stack.layers[i]);
  const { groups: _, ...rest } = stack;
  return {
    ...rest,
    layers: isSame ? stack.layers : ordered,
    ...(left.length === 0 ? {} : { groups: left.length === groups.length ? groups : left }),
  } as S;
}
