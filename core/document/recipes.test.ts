// Recipes go from layer to layer, through files and through other units, and change nothing else.
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { heightOf } from '../builds/index.ts';
import { readSvg } from '../formats/svg/read.ts';
import { projectOf } from '../testing/projects.ts';
import type { LayerChange } from './commands/change-layers.ts';
import { applyCommand } from './commands/index.ts';
import { changeOf, RECIPE_PARTS, type RecipePart, recipeOf } from './recipes.ts';
import { RecipeSchema } from './schema.ts';

const { project: plain } = projectOf(readSvg(readFileSync('demo/patch.svg', 'utf8')), { size: 90 });
const [first, second] = plain.layers.filter(({ shown }) => shown).map(({ id }) => id) as [string, string];
const change = (layer: string, of: LayerChange, project = plain) =>
  applyCommand(project, { do: 'change-layers', layers: [layer], change: of });
const profile = {
  name: 'Wave',
  points: [
    [0, 0],
    [0.5, 0.2],
    [1, 1],
  ] as [number, number][],
  isSmooth: true,
};
const drawn = applyCommand(plain, { do: 'save-profile', profile });
const worked = change(
  first,
  {
    build: {
      depth: 7.3,
      edge: { on: 'both', profile: { drawn: 'Wave' }, reach: 0.6, rise: null, steps: 5 },
      faces: 'grid',
      cell: 2,
    },
    material: { colour: '#123456', roughness: 0.2 },
    shading: { crease: 12 },
    uv: 'packed',
    tidy: { weld: 0.01, straight: -1, flat: 2, close: false },
  },
  drawn,
);
const layerOf = (project: typeof plain, id: string) => project.layers.find((layer) => layer.id === id)!;
const recipe = recipeOf(layerOf(worked, first), worked);
const onSecond = (parts: readonly RecipePart[]) => change(second, changeOf(recipe, parts, worked), worked);

describe('a recipe', () => {
  it('makes another layer like the one it was taken from, which keeps its name, place and outlines', () => {
    const [model, before] = [layerOf(worked, first), layerOf(worked, second)];
    const after = layerOf(onSecond(RECIPE_PARTS), second);
    const { build, material, shading, uv, tidy } = model;
    expect(after).toEqual({ ...before, build, material, shading, uv, tidy });
  });

  it('is a file that the command line takes, with the profiles that it needs', () => {
    expect(RecipeSchema.parse(JSON.parse(JSON.stringify(recipe)))).toEqual(recipe);
    expect(recipe.profiles).toEqual([profile]);
    expect(recipeOf(layerOf(plain, second), plain).profiles).toBeUndefined();
  });

  it.each([
    ['depth', { build: { depth: 7.3 } }],
    ['material', { material: recipe.material }],
    ['UV', { uv: 'packed' }],
    ['tidying', { tidy: recipe.tidy }],
  ] as const)('gives its %s alone', (part, expected) => {
    expect(changeOf(recipe, [part], worked)).toEqual(expected);
  });

  it('gives nothing where nothing is wished for, or nothing is said', () => {
    expect(changeOf(recipe, [], worked)).toEqual({});
    expect(changeOf({}, RECIPE_PARTS, worked)).toEqual({});
  });

  it('means the same lengths in another unit', () => {
    const inches = applyCommand(worked, { do: 'set-unit', unit: 'in' });
    expect(recipeOf(layerOf(inches, first), inches)).toEqual(recipe);
    const after = change(second, changeOf(recipe, ['depth', 'edge'], inches), inches);
    expect(heightOf(layerOf(after, second).build)).toBeCloseTo(7.3 / 25.4, 9);
  });
});

it('leave out the layers of the project that stand out of a front', () => {
  const raised = change(first, { build: { regions: [{ layer: second, by: 1 }] } });
  const recipe = recipeOf(raised.layers.find(({ id }) => id === first)!, raised);
  expect(RecipeSchema.safeParse(recipe).success).toBe(true);
  expect(recipe).not.toHaveProperty('regions');
});
