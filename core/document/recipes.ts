// recipes.ts — what a layer is like, taken from one layer and put on others, in this project or another: whole or by its sentences.
import { asTyped } from '../base/figures.ts';
import { withLengths } from '../base/quantities.ts';
import { MM_PER_UNIT } from '../base/units.ts';
import type { EdgeShape } from '../builds/slab/schema.ts';
import type { LayerChange } from './commands/change-layers.ts';
import { type Layer, type Project, type Recipe, RecipeSchema } from './schema.ts';

/** The sentences of a recipe that can be put on by themselves. */
export const RECIPE_PARTS = ['depth', 'edge', 'front', 'faces', 'material', 'shading', 'UV', 'tidying'] as const;
export type RecipePart = (typeof RECIPE_PARTS)[number];

/** What a layer is like, in millimetres. Parts of meshes have a depth and a finish, and nothing else of a slab. */
export function recipeOf(
  { build, shading, uv, tidy, material, sideMaterials }: Layer,
  { unit, profiles }: Project,
): Recipe {
  const { kind: _, ...settings } = build;
  const edges: (EdgeShape | null)[] = build.kind === 'slab' ? [build.edge, build.backEdge] : [];
  const drawn = profiles.filter(({ name }) =>
    edges.some((edge) => typeof edge?.profile === 'object' && edge.profile.drawn === name),
  );
  // Other layers are those of the project.
  const { backEdge, regions: _regions, ...rest } = { backEdge: null, regions: [], ...settings };
  const recipe: Recipe = {
    ...rest,
    ...(backEdge ? { backEdge } : {}),
    shading,
    uv,
    tidy,
    material,
    ...(sideMaterials ? { sideMaterials } : {}),
    ...(drawn.length > 0 ? { profiles: drawn } : {}),
  };
  return withLengths(RecipeSchema, recipe, (length) => asTyped(length * MM_PER_UNIT[unit]));
}

/** What some sentences of a recipe change of layers, in the unit of their project. */
export function changeOf(recipe: Recipe, parts: readonly RecipePart[], { unit }: Pick<Project, 'unit'>): LayerChange {
  const here = withLengths(RecipeSchema, recipe, (length) => asTyped(length / MM_PER_UNIT[unit]));
  const {
    depth,
    edge,
    backEdge = null,
    front,
    faces,
    cell,
    wallRows,
    caps,
    material,
    sideMaterials,
    shading,
    uv,
    tidy,
  } = here;
  const given = <T extends object>(part: RecipePart, settings: T) => (parts.includes(part) ? known(settings) : {});
  const build = {
    ...given('depth', { depth }),
    ...(edge ? given('edge', { edge, backEdge }) : {}),
    ...given('faces', { faces, cell, wallRows, caps }),
    ...given('front', { front }),
  };
  return {
    ...(Object.keys(build).length > 0 ? { build } : {}),
    ...given('material', { material, sideMaterials }),
    ...given('shading', { shading }),
    ...given('UV', { uv }),
    ...given('tidying', { tidy }),
  };
}

/** What is said; null is. */
const known = <T extends object>(settings: T): Partial<T> =>
  Object.fromEntries(Object.entries(settings).filter(([, value]) => value !== undefined)) as Partial<T>;
