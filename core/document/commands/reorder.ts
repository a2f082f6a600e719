// reorder.ts — the place of layers and groups in the stack: the order in which layers are painted, and what group they are in.
import { z } from 'zod';
import { GeometryError } from '../../base/errors.ts';
import { type Branch, branchesOf, type Group, groupsAbove, layersOf } from '../groups.ts';
import type { Layer, Project } from '../schema.ts';
import { type CommandKind, groupOf, layerOf } from './kind.ts';

const schema = z.object({
  do: z.literal('reorder'),
  /** Ids of layers and groups; they keep their order among each other. */
  moved: z.array(z.string()).min(1),
  /** The group they come into; null for none. */
  into: z.nullable(z.string()),
  /** Id of the layer or group there that they come to lie on; null for the lowest place. */
  on: z.nullable(z.string()),
});

export const reorder = {
  do: 'reorder',
  schema,
  apply(project, { moved, into, on }) {
    const { groups = [] } = project;
    for (const id of moved) if (!groups.some((group) => group.id === id)) layerOf(project, id);
    if (into !== null) groupOf(project, into);
    if (on !== null && !isIn(project, on, into)) {
      throw new GeometryError('unknown-id', `There is nothing ${on} in that group to lie on.`);
    }
    const isMoved = (id: string) => moved.includes(id);
    if (groupsAbove(groups, into ?? undefined).some(({ id }) => isMoved(id))) {
      throw new GeometryError('out-of-range', 'The change was not made: a group cannot be put inside itself.');
    }
    const taken: Branch<Layer>[] = [];
    const left = without(branchesOf(project), isMoved, taken);
    const put = taken.map((branch) => inGroup(branch, into));
    const tree = inserted(left, { into, on }, put);
    const within = new Map(put.flatMap(({ group }) => (group ? [[group.id, group] as const] : [])));
    return {
      ...project,
      layers: layersOf(tree),
      ...(project.groups ? { groups: groups.map((group) => within.get(group.id) ?? group) } : {}),
    };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;

const isIn = ({ layers, groups = [] }: Project, id: string, into: string | null) =>
  layers.some((layer) => layer.id === id && (layer.group ?? null) === into) ||
  groups.some((group) => group.id === id && (group.within ?? null) === into);

type Tree = readonly Branch<Layer>[];

/** @param taken is filled with what is left out, in order */
function without(tree: Tree, isMoved: (id: string) => boolean, taken: Branch<Layer>[]): Branch<Layer>[] {
  return tree.flatMap((branch): Branch<Layer>[] => {
    if (isMoved((branch.layer ?? branch.group).id)) {
      taken.push(branch);
      return [];
    }
    return branch.layer ? [branch] : [{ ...branch, members: without(branch.members, isMoved, taken) }];
  });
}

function inGroup(branch: Branch<Layer>, id: string | null): Branch<Layer> {
  if (branch.layer) return { layer: placedIn(branch.layer, 'group', id) };
  return { ...branch, group: placedIn<Group, 'within'>(branch.group, 'within', id) };
}

function placedIn<T extends { readonly [k in K]?: string | undefined }, K extends string>(
  thing: T,
  key: K,
  id: string | null,
): T {
  if ((thing[key] ?? null) === id) return thing;
  const { [key]: _, ...rest } = thing;
  return (id === null ? rest : { ...rest, [key]: id }) as T;
}

function inserted(tree: Tree, { into, on }: { into: string | null; on: string | null }, put: Tree): Branch<Layer>[] {
  if (into !== null) {
    return tree.map((branch) => {
      if (branch.layer) return branch;
      const isHere = branch.group.id === into;
      return { ...branch, members: inserted(branch.members, { into: isHere ? null : into, on }, put) };
    });
  }
  if (on === null) return [...put, ...tree];
  return tree.flatMap((branch) => ((branch.layer ?? branch.group).id === on ? [branch, ...put] : [branch]));
}
