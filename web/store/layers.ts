// layers.ts — what is done with whole layers, from their list, their menu and by keys.
import type { Layer } from '../../core/index.ts';
import { dispatch, useProject } from './project.ts';
import { screen, useScreen } from './screen.ts';

const all = (): readonly Layer[] => useProject.getState().history?.present.layers ?? [];

/** In the order of the document. */
const chosen = (): Layer[] => {
  const { selected } = useScreen.getState();
  return all().filter(({ id }) => selected.includes(id));
};

/** Copies each of the chosen ones; the copies are chosen then. */
export function copyChosen(): void {
  const gesture = `copy ${performance.now()}`;
  const copies = chosen().map(({ id }) => {
    const copy = crypto.randomUUID();
    dispatch({ do: 'copy-layer', layer: id, id: copy }, gesture);
    return copy;
  });
  if (copies.length > 0) screen.select(copies);
}

export function removeChosenLayers(): void {
  const gesture = `remove ${performance.now()}`;
  const gone = chosen();
  const place = all().indexOf(gone[0]!);
  for (const { id } of gone) dispatch({ do: 'remove-layer', layer: id }, gesture);
  const next = all()[Math.max(0, place - 1)];
  screen.select(next ? [next.id] : []);
}

export const hideChosen = () => screen.toggleHidden(chosen().map(({ id }) => id));

/** Leaves the chosen layers out of the build, or takes them in where all are out. */
export function buildChosen(): void {
  const layers = chosen();
  if (layers.length === 0) return;
  const shown = layers.every((layer) => !layer.shown);
  dispatch({ do: 'change-layers', layers: layers.map(({ id }) => id), change: { shown } });
}

export function renameChosen(): void {
  const [first] = chosen();
  if (first) screen.rename(first.id);
}

/** @param by places up in the list, which shows the last one at the top */
export function moveChosen(by: 1 | -1): void {
  const [layer, ...others] = chosen();
  const to = layer ? all().indexOf(layer) + by : -1;
  if (layer && others.length === 0 && to >= 0 && to < all().length) dispatch({ do: 'move-layer', layer: layer.id, to });
}

/**
 * Chooses the layer above or below the one chosen last.
 * @param isRange whether the ones between stay chosen
 * @returns its id; null where there is none
 */
export function chooseNext(by: 1 | -1, isRange = false): string | null {
  const order = all().map(({ id }) => id);
  const { selected, anchor } = useScreen.getState();
  const ends = selected.map((id) => order.indexOf(id)).sort((a, b) => a - b);
  const far = isRange && order[ends[0]!] === anchor ? ends.at(-1) : isRange ? ends[0] : undefined;
  const from = far ?? order.indexOf(anchor ?? '');
  const next = order[from < 0 ? (by > 0 ? 0 : order.length - 1) : from + by];
  if (next === undefined) return null;
  if (isRange) screen.selectTo(next, order);
  else screen.select([next]);
  return next;
}

/** By a key of the page, where nothing has the focus that the arrows belong to. */
export function chooseIfFree(by: 1 | -1): void {
  if (document.activeElement === document.body) chooseNext(by);
}
