// vary.ts — the contact sheet: a value varied along a row, another along a column, and what each variant looks like. Nothing of it
// is in the document until one is taken.
import * as Comlink from 'comlink';
import { create } from 'zustand';
import {
  type BuildView,
  commandOf,
  GeometryError,
  type Project,
  startValues,
  VARIED,
  type Variation,
  type Varied,
  variant,
} from '../../core/index.ts';
import { geometry } from '../worker/client.ts';
import { dispatch, useProject } from './project.ts';
import { useScreen } from './screen.ts';

/** A value that is varied, and what it is in turn. */
export interface Line {
  readonly varied: Varied;
  readonly values: readonly (number | string)[];
}

export interface Cell {
  readonly key: string;
  readonly variations: readonly Variation[];
  /** A picture of it, once there is one. */
  readonly url: string | null;
  readonly failure: string | null;
}

/** What is to be photographed. */
export interface Sitting {
  readonly key: string;
  readonly project: Project;
  readonly view: BuildView;
}

interface VaryState {
  readonly isOpen: boolean;
  readonly layers: readonly string[];
  readonly row: Line;
  readonly column: Line | null;
  readonly cells: readonly Cell[];
  readonly sitting: Sitting | null;
  /** Keys of the two that are seen large. */
  readonly large: readonly string[];
}

const [FIRST] = VARIED;

export const useVary = create<VaryState>(() => ({
  isOpen: false,
  layers: [],
  row: { varied: FIRST!, values: [] },
  column: null,
  cells: [],
  sitting: null,
  large: [],
}));
const { setState: set, getState: get } = useVary;

/** Of an earlier sheet nothing is taken any more. */
let sheet = 0;

export const variedBy = (id: string): Varied | undefined => VARIED.find((varied) => varied.id === id);

function lineOf(varied: Varied): Line {
  const { layers } = useProject.getState().history!.present;
  const own = layers.filter(({ id }) => get().layers.includes(id));
  return { varied, values: startValues(varied, own) };
}

export const vary = {
  /** Opens the sheet for the chosen layers, or for all that are built. */
  open(): void {
    const { selected } = useScreen.getState();
    const layers = useProject.getState().history?.present.layers ?? [];
    const built = layers.filter(({ shown }) => shown).map(({ id }) => id);
    const chosen = selected.filter((id) => built.includes(id));
    set({ isOpen: true, layers: chosen.length > 0 ? chosen : built });
    set({ row: lineOf(get().row.varied), column: get().column && lineOf(get().column!.varied) });
    void make();
  },
  close(): void {
    sheet++;
    for (const { url } of get().cells) if (url) URL.revokeObjectURL(url);
    set({ isOpen: false, cells: [], sitting: null, large: [] });
  },
  setRow(line: Partial<Line>): void {
    const { row } = get();
    const next = line.varied && line.varied !== row.varied ? lineOf(line.varied) : { ...row, ...line };
    set({ row: next });
    void make();
  },
  setColumn(line: Partial<Line> | null): void {
    const { column } = get();
    if (line === null) set({ column: null });
    else if (line.varied && line.varied !== column?.varied) set({ column: lineOf(line.varied) });
    else if (column) set({ column: { ...column, ...line } });
    void make();
  },
  /** Seen large beside the one that was picked before. */
  enlarge(key: string): void {
    const { large } = get();
    set({ large: large.includes(key) ? large.filter((other) => other !== key) : [...large.slice(-1), key] });
  },
  /** A picture of what sat for it. */
  taken(key: string, url: string): void {
    if (get().sitting?.key !== key) {
      URL.revokeObjectURL(url);
      return;
    }
    set({ cells: get().cells.map((cell) => (cell.key === key ? { ...cell, url } : cell)), sitting: null });
    next?.();
  },
  /** Makes the document what the variant is. */
  take({ variations }: Cell): void {
    const gesture = `vary ${performance.now()}`;
    for (const variation of variations) {
      const { layers, unit } = useProject.getState().history!.present;
      const own = layers.filter(({ id }) => get().layers.includes(id));
      dispatch(commandOf(variation, own, unit), gesture);
    }
    vary.close();
  },
};

/** Goes on when a picture was taken. */
let next: (() => void) | null = null;

/** Makes variants one after another. */
async function make(): Promise<void> {
  const own = ++sheet;
  const project = useProject.getState().history?.present;
  if (!project) return;
  const { row, column, layers } = get();
  for (const { url } of get().cells) if (url) URL.revokeObjectURL(url);
  const cells = (column?.values ?? [null]).flatMap((down) =>
    row.values.map((across): Cell => {
      const variations = [
        { varied: row.varied, value: across },
        ...(column && down !== null ? [{ varied: column.varied, value: down }] : []),
      ];
      return { key: JSON.stringify([across, down]), variations, url: null, failure: null };
    }),
  );
  set({ cells, sitting: null, large: [] });
  const isCurrent = () => own === sheet && get().isOpen;
  for (const { key, variations } of cells) {
    if (!isCurrent()) return;
    const made = await built(project, layers, variations);
    if (!isCurrent()) return;
    if (typeof made === 'string') {
      set({ cells: get().cells.map((cell) => (cell.key === key ? { ...cell, failure: made } : cell)) });
      continue;
    }
    const photographed = new Promise<void>((resolve) => {
      next = resolve;
    });
    set({ sitting: { key, ...made } });
    await photographed;
  }
}

/** The variant and what it looks like, or why there is none. */
async function built(
  project: Project,
  layers: readonly string[],
  variations: readonly Variation[],
): Promise<Omit<Sitting, 'key'> | string> {
  try {
    const of = variant(project, layers, variations);
    const report = Comlink.proxy(() => undefined);
    const outcome = await geometry((api) => api.build(of, [NOBODY], { checker: false, wire: false }, report));
    if (!outcome.ok) return outcome.error.message;
    const failed = outcome.value.layers.find(({ error }) => error);
    return failed?.error ? failed.error.message : { project: of, view: outcome.value };
  } catch (error) {
    if (error instanceof GeometryError) return error.message;
    throw error;
  }
}

/** A key of no mesh: all are sent. */
const NOBODY = '-';
