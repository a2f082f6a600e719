// layers.ts — what is done with whole layers and groups, from their list, their menu and by keys.
import {
  type Branch,
  branchesOf,
  type Group,
  groupsAbove,
  heightOf,
  type Layer,
  layersIn,
  type Project,
} from '../../core/index.ts';
import { groupTaken } from './placing.ts';
import { dispatch, useProject } from './project.ts';
import { screen, useScreen } from './screen.ts';

const present = (): Project | null => useProject.getState().history?.present ?? null;
const all = (): readonly Layer[] => present()?.layers ?? [];

/** In the order of the document. */
const chosen = (): Layer[] => {
  const { selected } = useScreen.getState();
  return all().filter(({ id }) => selected.includes(id));
};
const chosenIds = () => chosen().map(({ id }) => id);

/** A row of the list: a layer, or a group with the layers in it. */
export type StackRow =
  | { readonly id: string; readonly depth: number; readonly layer: Layer; readonly group?: undefined }
  | {
      readonly id: string;
      readonly depth: number;
      readonly layer?: undefined;
      readonly group: Group;
      /** All that are in it, the lowest first. */
      readonly layers: readonly Layer[];
      readonly isFolded: boolean;
    };

/**
 * The rows of the list, the highest first.
 * @param wanted what is searched for: layers, and groups, whose name holds it; groups are unfolded then
 */
export function rowsOf(project: Project, folded: readonly string[], wanted = ''): StackRow[] {
  const looked = wanted.trim().toLowerCase();
  const isWanted = (name: string) => name.toLowerCase().includes(looked);
  const rows = (tree: readonly Branch<Layer>[], depth: number, isAll: boolean): StackRow[] =>
    tree.toReversed().flatMap((branch): StackRow[] => {
      if (branch.layer) {
        const { layer } = branch;
        return isAll || isWanted(layer.name) ? [{ id: layer.id, depth, layer }] : [];
      }
      const { group, members } = branch;
      const isOpen = looked !== '' || !folded.includes(group.id);
      const inner = rows(members, depth + 1, isAll || isWanted(group.name));
      if (inner.length === 0) return [];
      const row = { id: group.id, depth, group, layers: layersIn(project, group.id), isFolded: !isOpen };
      return [row, ...(isOpen ? inner : [])];
    });
  return rows(branchesOf(project), 0, looked === '');
}

/** Copies each of the chosen ones; the copies are chosen then. */
export function copyChosen(): void {
  const gesture = `copy ${performance.now()}`;
  const copies = chosenIds().map((id) => {
    const copy = crypto.randomUUID();
    dispatch({ do: 'copy-layer', layer: id, id: copy }, gesture);
    return copy;
  });
  if (copies.length > 0) screen.select(copies);
}

/** Makes each chosen layer with several outlines a group of layers with one each; what was chosen stays chosen. */
export function splitChosen(): void {
  const gesture = `split ${performance.now()}`;
  const several = chosen().filter(({ members }) => members.length > 1);
  const kept = chosen().filter((layer) => !several.includes(layer));
  const made = several.flatMap(({ id, members }) => {
    const ids = members.map(() => crypto.randomUUID());
    dispatch({ do: 'split-layer', layer: id, ids, group: crypto.randomUUID() }, gesture);
    return ids;
  });
  if (made.length > 0) screen.select([...kept.map(({ id }) => id), ...made]);
}

export function removeChosenLayers(): void {
  const gesture = `remove ${performance.now()}`;
  const gone = chosen();
  const place = all().indexOf(gone[0]!);
  for (const { id } of gone) dispatch({ do: 'remove-layer', layer: id }, gesture);
  const next = all()[Math.max(0, place - 1)];
  screen.select(next ? [next.id] : []);
}

export const hideChosen = () => screen.toggleHidden(chosenIds());

/** Leaves the chosen layers out of the build, or takes them in where all are out. */
export const buildChosen = () => toggleBuilt(chosen());

export function toggleBuilt(layers: readonly Layer[]): void {
  if (layers.length === 0) return;
  const shown = layers.every((layer) => !layer.shown);
  dispatch({ do: 'change-layers', layers: layers.map(({ id }) => id), change: { shown } });
}

/** Locks the chosen layers, or unlocks them where any is locked. */
export const lockChosen = () => toggleLocked(chosen());

export function toggleLocked(layers: readonly Layer[]): void {
  if (layers.length === 0) return;
  const locked = !layers.some((layer) => layer.locked);
  dispatch({ do: 'change-layers', layers: layers.map(({ id }) => id), change: { locked } });
}

export function renameChosen(): void {
  const { group } = useScreen.getState();
  const [first] = chosen();
  if (group ?? first) screen.rename(group ?? first!.id);
}

/** What is moved or grouped when the chosen ones are: groups of which all are chosen count as one. */
function movedThings(project: Project): { layers: string[]; groups: string[] } {
  const ids = new Set(chosenIds());
  const isWhole = (group: Group) => layersIn(project, group.id).every(({ id }) => ids.has(id));
  const { group: chosenGroup } = useScreen.getState();
  const groups = project.groups ?? [];
  // A group of which each layer was chosen by itself is not meant where it is the only thing that is chosen.
  const whole =
    chosenGroup === null && groups.some((group) => isWhole(group) && layersIn(project, group.id).length === ids.size)
      ? []
      : groups.filter(isWhole);
  const isOuter = (group: Group) => !groupsAbove(groups, group.within).some((above) => whole.includes(above));
  return {
    layers: chosen().flatMap(({ id, group }) =>
      groupsAbove(groups, group).some((above) => whole.includes(above)) ? [] : [id],
    ),
    groups: whole.filter(isOuter).map(({ id }) => id),
  };
}

/** Puts the chosen layers and groups into a new group, whose name is typed then. */
export function groupChosen(): void {
  const project = present();
  if (!project || chosen().length === 0) return;
  const id = crypto.randomUUID();
  const names = new Set(project.groups?.map(({ name }) => name));
  let name = 'Group';
  for (let n = 2; names.has(name); n++) name = `Group ${n}`;
  dispatch({ do: 'group', id, name, ...movedThings(project) });
  chooseGroup(id);
  screen.rename(id);
}

/** Takes away the group that is chosen, or the innermost ones that the chosen layers are in. */
export function ungroupChosen(): void {
  const project = present();
  if (!project) return;
  const { group } = useScreen.getState();
  const ids = chosenIds();
  const gone = group ? [group] : [...new Set(chosen().flatMap((layer) => layer.group ?? []))];
  const gesture = `ungroup ${performance.now()}`;
  for (const id of gone) groupTaken(id, gesture);
  screen.select(ids);
}

export function chooseGroup(id: string): void {
  const project = present();
  if (project)
    screen.selectGroup(
      id,
      layersIn(project, id).map((layer) => layer.id),
    );
}

/** What layers can be chosen for having the same of. */
const ALIKE = {
  colour: ({ material }: Layer) => material.colour,
  material: ({ material: { colour: _, ...finish } }: Layer) => JSON.stringify(finish),
  depth: ({ build }: Layer) => heightOf(build),
  source: ({ source }: Layer) => source,
} as const;

/** Chooses all layers that are like one of the chosen ones in something. */
export function chooseAlike(by: keyof typeof ALIKE): void {
  const of: (layer: Layer) => string | number = ALIKE[by];
  const values = new Set(chosen().map(of));
  screen.select(all().flatMap((layer) => (values.has(of(layer)) ? [layer.id] : [])));
}

/** Chooses the group that the chosen layer is in, or the one around the chosen group. */
export function chooseGroupAround(): void {
  const project = present();
  const { group } = useScreen.getState();
  const inner = group ? project?.groups?.find(({ id }) => id === group)?.within : chosen()[0]?.group;
  if (inner) chooseGroup(inner);
}

/** @param by places up in the list, which shows the last one at the top; within the group that it is in */
export function moveChosen(by: 1 | -1): void {
  const project = present();
  if (!project) return;
  const { layers, groups } = movedThings(project);
  const [id, ...others] = [...layers, ...groups];
  if (!id || others.length > 0) return;
  const into = parentOf(project, id);
  const siblings = siblingsIn(project, into);
  const place = siblings.indexOf(id);
  if (siblings[place + by] === undefined) return;
  dispatch({ do: 'reorder', moved: [id], into, on: by > 0 ? siblings[place + 1]! : (siblings[place - 2] ?? null) });
}

const parentOf = ({ layers, groups = [] }: Project, id: string): string | null =>
  layers.find((layer) => layer.id === id)?.group ?? groups.find((group) => group.id === id)?.within ?? null;

/** Ids of what is directly in a group, the lowest first. */
function siblingsIn(project: Project, into: string | null): string[] {
  const find = (tree: readonly Branch<Layer>[]): readonly Branch<Layer>[] | null => {
    for (const { group, members } of tree) {
      if (!group) continue;
      const found = group.id === into ? members : find(members);
      if (found) return found;
    }
    return null;
  };
  const tree = branchesOf(project);
  return ((into === null ? tree : find(tree)) ?? []).map(({ layer, group }) => (layer ?? group).id);
}

/** Where something is let go of in the list. */
export interface DropPlace {
  /** The row it is let go at. */
  readonly row: string;
  readonly side: 'above' | 'below' | 'in';
}

/** Moves a row, or all that is chosen where it is one of those, to where it is let go. */
export function dropRow(id: string, { row, side }: DropPlace): void {
  const project = present();
  if (!project || row === id) return;
  const { selected, group } = useScreen.getState();
  const { layers, groups } = movedThings(project);
  // Of a group that was chosen as a whole, a single layer can still be taken out.
  const isChosen = group === null ? selected.includes(id) : group === id;
  const moved = isChosen ? [...layers, ...groups] : [id];
  if (moved.includes(row)) return;
  const into = side === 'in' ? row : parentOf(project, row);
  const siblings = siblingsIn(project, into).filter((each) => !moved.includes(each));
  const on = side === 'in' ? siblings.at(-1) : side === 'above' ? row : siblings[siblings.indexOf(row) - 1];
  dispatch({ do: 'reorder', moved: inOrder(project, moved), into, on: on ?? null });
  // Of a chosen group those are chosen that are in it now.
  if (group !== null) chooseGroup(group);
}

/** Ids as they follow each other in the stack. */
function inOrder(project: Project, ids: readonly string[]): string[] {
  const first = (id: string) =>
    project.layers.findIndex(
      (layer) => layer.id === id || groupsAbove(project.groups ?? [], layer.group).some((group) => group.id === id),
    );
  return ids.toSorted((a, b) => first(a) - first(b));
}

/**
 * Chooses the row above or below the one chosen last.
 * @param isRange whether the ones between stay chosen
 * @returns its id; null where there is none
 */
export function chooseNext(by: 1 | -1, isRange = false): string | null {
  const project = present();
  const { selected, anchor, group, folded } = useScreen.getState();
  if (!project) return null;
  if (!isRange) {
    // From row to row as the list shows them, from the lowest up.
    const rows = rowsOf(project, folded).toReversed();
    const from = rows.findIndex(({ id }) => id === (group ?? anchor ?? ''));
    const next = rows[from < 0 ? (by > 0 ? 0 : rows.length - 1) : from + by];
    if (!next) return null;
    if (next.group) chooseGroup(next.id);
    else screen.select([next.id]);
    return next.id;
  }
  const order = all().map(({ id }) => id);
  const ends = selected.map((id) => order.indexOf(id)).sort((a, b) => a - b);
  const far = order[ends[0]!] === anchor ? ends.at(-1) : ends[0];
  const from = far ?? order.indexOf(anchor ?? '');
  const next = order[from < 0 ? (by > 0 ? 0 : order.length - 1) : from + by];
  if (next === undefined) return null;
  screen.selectTo(next, order);
  return next;
}

/** By a key of the page, where nothing has the focus that the arrows belong to. */
export function chooseIfFree(by: 1 | -1): void {
  if (document.activeElement === document.body) chooseNext(by);
}
