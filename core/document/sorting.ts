// sorting.ts — shapes of one source sorted into layers anew: one for each colour, each named group and colour, or each depth of
// nesting.
import { uniqueName } from '../base/names.ts';
import type { Drawing, Shape } from '../drawing.ts';
import { isInside } from '../outline/apart.ts';
import { boundsOf, ringArea } from '../outline/measure.ts';
import type { Bounds, Ring } from '../outline/types.ts';
import { groupName, namedGroups } from '../sources/groups.ts';
import type { Source } from '../sources/index.ts';
import { colourName } from '../sources/names.ts';
import { shapeRegions } from '../sources/placing.ts';
import type { Layer, Project } from './schema.ts';

export const SORTINGS = ['colour', 'group', 'nesting'] as const;
export type Sorting = (typeof SORTINGS)[number];

/**
 * @param wanted ids of the shapes that are sorted; they leave the layers they are in
 * @returns layers that changed, and new ones, each built like the layer its first shape came from
 */
export function sortIntoLayers(
  project: Project,
  source: Source,
  drawing: Drawing,
  wanted: readonly string[],
  by: Sorting,
  newId: () => string,
): { layers: Layer[]; gone: string[] } {
  const isWanted = new Set(wanted);
  const own = project.layers.filter((layer) => layer.source === source.id);
  const homes = new Map(own.flatMap((layer) => layer.members.map((member) => [member, layer] as const)));
  const shapes = drawing.shapes.filter(({ id }) => isWanted.has(id) && homes.has(id));
  const groups = SORTED[by](shapes, source, project.tolerance, drawing);
  const names = new Set(project.layers.map(({ name }) => name));
  const fresh = groups.map(({ members, name }): Layer => {
    const home = homes.get(members[0]!.id)!;
    const { colour } = members[0]!;
    return {
      ...home,
      id: newId(),
      name: uniqueName(name, names),
      members: members.map(({ id }) => id),
      skipped: members.flatMap(({ id }) => (homes.get(id)!.skipped.includes(id) ? [id] : [])),
      material: { ...home.material, colour },
    };
  });
  const left = own.flatMap((layer): Layer[] => {
    const without = (ids: readonly string[]) => ids.filter((id) => !isWanted.has(id));
    const members = without(layer.members);
    return members.length < layer.members.length ? [{ ...layer, members, skipped: without(layer.skipped) }] : [];
  });
  return {
    layers: [...left.filter(({ members }) => members.length > 0), ...fresh],
    gone: left.filter(({ members }) => members.length === 0).map(({ id }) => id),
  };
}

interface Group {
  readonly name: string;
  readonly members: readonly Shape[];
}

function byColour(shapes: readonly Shape[]): Group[] {
  const colours = [...new Set(shapes.map(({ colour }) => colour))];
  return colours.map((each) => ({ name: colourName(each), members: shapes.filter(({ colour }) => colour === each) }));
}

/** Shapes of one named group and one colour. */
function byGroup(shapes: readonly Shape[], drawing: Drawing): Group[] {
  const groupsOf = namedGroups(drawing, new Set());
  const keyOf = (shape: Shape) => JSON.stringify(groupsOf(shape));
  const keys = [...new Set(shapes.map(keyOf))];
  return keys.flatMap((key) => {
    const own = shapes.filter((shape) => keyOf(shape) === key);
    const name = groupsOf(own[0]!).at(-1);
    const colours = byColour(own);
    if (name === undefined) return colours;
    const words = groupName(name);
    return colours.map((each) => ({
      ...each,
      name: colours.length === 1 ? words : `${words}, ${each.name.toLowerCase()}`,
    }));
  });
}

const SORTED: Record<
  Sorting,
  (shapes: readonly Shape[], source: Source, tolerance: number, drawing: Drawing) => Group[]
> = {
  colour: byColour,
  group: (shapes, _source, _tolerance, drawing) => byGroup(shapes, drawing),
  nesting: byNesting,
};

const NESTED = ['Outermost', 'Inside', 'Inside that'];

/** A shape lies as deep as there are others around it. */
function byNesting(shapes: readonly Shape[], source: Source, tolerance: number): Group[] {
  const all = shapes.map((shape) => {
    const [largest] = shapeRegions([shape], source, tolerance)
      .map(({ outer }) => outer)
      .sort((a, b) => Math.abs(ringArea(b)) - Math.abs(ringArea(a)));
    return { shape, ring: largest ?? null, box: largest ? boundsOf([largest]) : null };
  });
  const depths = all.map(({ ring, box }) =>
    ring && box ? all.filter((other) => isAround(other, { ring, box })).length : 0,
  );
  const levels = [...new Set(depths)].sort((a, b) => a - b);
  return levels.map((level, i) => ({
    name: NESTED[i] ?? `${i} deep`,
    members: shapes.filter((_, k) => depths[k] === level),
  }));
}

interface Ringed {
  readonly ring: Ring | null;
  readonly box: Bounds | null;
}

function isAround({ ring, box }: Ringed, inner: { ring: Ring; box: Bounds }): boolean {
  if (!ring || !box || ring === inner.ring) return false;
  const isLarger = Math.abs(ringArea(ring)) > Math.abs(ringArea(inner.ring));
  return isLarger && isInside(inner.ring, ring);
}
