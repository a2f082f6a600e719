// recipes.ts — recipes that are kept by name, from one project and one visit to the next, put on layers, and written to files.
import { create } from 'zustand';
import {
  changeOf,
  type Layer,
  RECIPE_PARTS,
  type Recipe,
  type RecipePart,
  RecipeSchema,
  recipeOf,
} from '../../core/index.ts';
import { store, stored, withNamed, withoutNamed } from './kept.ts';
import { dispatch, useProject } from './project.ts';

export interface KeptRecipe {
  readonly name: string;
  readonly recipe: Recipe;
}

interface RecipesState {
  /** The newest first. */
  readonly kept: readonly KeptRecipe[];
  /** Which sentences are put on. */
  readonly parts: readonly RecipePart[];
  readonly failure: string | null;
}

const KEY = 'outline-stack.recipes';

const known = stored(KEY, ({ name, recipe }): KeptRecipe | null => {
  const read = RecipeSchema.safeParse(recipe);
  return read.success ? { name: name as string, recipe: read.data } : null;
});

export const useRecipes = create<RecipesState>(() => ({ kept: known, parts: RECIPE_PARTS, failure: null }));
const { setState: set, getState: get } = useRecipes;

function keep(kept: readonly KeptRecipe[]): void {
  const isStored = store(KEY, kept);
  set({
    kept,
    failure: isStored ? null : 'This browser keeps nothing more; write the recipe to a file, or forget others.',
  });
}

export const recipes = {
  /** Keeps what a layer is like, in place of what had that name. */
  keep(name: string, layer: Layer): void {
    const project = useProject.getState().history?.present;
    if (!project) return;
    keep(withNamed(get().kept, { name, recipe: recipeOf(layer, project) }));
  },
  forget: (name: string) => keep(withoutNamed(get().kept, name)),
  toggle(part: RecipePart): void {
    const { parts } = get();
    set({ parts: RECIPE_PARTS.filter((each) => (each === part) !== parts.includes(each)) });
  },
  /** Puts the chosen sentences of a recipe on layers, as one step. */
  putOn({ recipe }: KeptRecipe, layers: readonly string[]): void {
    const project = useProject.getState().history?.present;
    if (!project) return;
    const gesture = `recipe ${performance.now()}`;
    const own = new Set(project.profiles.map(({ name }) => name));
    const { parts } = get();
    for (const profile of parts.includes('edge') ? (recipe.profiles ?? []) : []) {
      if (!own.has(profile.name)) dispatch({ do: 'save-profile', profile }, gesture);
    }
    dispatch({ do: 'change-layers', layers: [...layers], change: changeOf(recipe, parts, project) }, gesture);
  },
  /** A recipe from a file, kept under the file's name. */
  async read(file: File): Promise<void> {
    const name = file.name.replace(/\.[^.]*$/, '').slice(0, 60);
    let value: unknown;
    try {
      value = JSON.parse(await file.text());
    } catch {
      set({ failure: `${file.name} is no JSON, so it holds no recipe.` });
      return;
    }
    const read = RecipeSchema.safeParse(value);
    if (read.success) keep(withNamed(get().kept, { name, recipe: read.data }));
    else {
      const issue = read.error.issues[0]!;
      set({ failure: `${file.name} is no recipe: ${issue.path.join('.') || 'file'}: ${issue.message}.` });
    }
  },
};

/** As the command line reads it. */
export const recipeFile = ({ recipe }: KeptRecipe): string =>
  `data:application/json;charset=utf-8,${encodeURIComponent(`${JSON.stringify(recipe, null, 2)}\n`)}`;
