// import.ts — bringing files in: upload, read in the worker, one command to the document. A file that cannot be read
// leaves the project as it was.
import * as Comlink from 'comlink';
import { create } from 'zustand';
import {
  type Arrival,
  fileKind,
  type LeftOut,
  sniffPicture,
  toleranceFor,
  UNDERLAY,
  type Warning,
} from '../../core/index.ts';
import { api } from '../requests/api.ts';
import { geometry } from '../worker/client.ts';
import { isNamedAsProject, takeWaiting } from './arrivals.ts';
import { changePicture } from './picture.ts';
import { dispatch, useProject } from './project.ts';
import { screen } from './screen.ts';
import { sourceView } from './source-view.ts';

/** What came of one file. */
export interface ImportResult {
  readonly file: string;
  readonly source: string | null;
  readonly error: string | null;
  readonly layers: number;
  readonly size: number;
  readonly warnings: readonly Warning[];
  readonly leftOut: readonly LeftOut[];
}

const NOTHING: ImportResult = { file: '', source: null, error: null, layers: 0, size: 0, warnings: [], leftOut: [] };

/** What is said of a file that did not come in. */
const refused = (file: string, error: unknown): ImportResult => ({
  ...NOTHING,
  file,
  error: error instanceof Error ? error.message : String(error),
});

/** Bytes that tell what a file is. */
const HEAD = 64 * 1024;

interface ImportState {
  /** Name of the file being read. */
  readonly busy: string | null;
  /** Share of its trace that is done; null where there is nothing to say. */
  readonly progress: number | null;
  /** Results of the last drop. */
  readonly results: readonly ImportResult[];
  /** A picture whose trace has so many pieces that it waits for a word before layers are made of them. */
  readonly held: { readonly file: string; readonly value: Arrival; readonly message: string } | null;
}

export const useImport = create<ImportState>(() => ({ busy: null, progress: null, results: [], held: null }));

useProject.subscribe(({ id, history }, before) => {
  if (id !== before.id) putAside();
  const files = id && history ? takeWaiting(id) : null;
  if (files) void bringIn(files);
});

/** @returns the project that was opened last, where there were project files among them: those become projects of their own */
export async function bringIn(files: readonly File[]): Promise<string | null> {
  const results: ImportResult[] = [];
  let opened: string | null = null;
  const row = files.filter((file) => !isNamedAsProject(file)).length > 1 ? new Row() : null;
  for (const file of files) {
    useImport.setState({ busy: file.name });
    if (!isNamedAsProject(file)) results.push(await bringInOne(file, row));
    else {
      try {
        opened = (await api.openProjectFile(file)).id;
      } catch (error) {
        results.push(refused(file.name, error));
      }
    }
  }
  useImport.setState({ busy: null, results });
  return opened;
}

/** Left of a file that came with others, as a share of its size. */
const GAP_SHARE = 0.1;
/** Letters of a layer's name, as the document allows. */
const NAME_LENGTH = 120;

/** Files that came together stand side by side, and their layers are called after them. */
class Row {
  private right: number | null = null;

  placed(file: string, arrival: Arrival): Arrival {
    const { source, layers, size } = arrival;
    const stem = file.replace(/\.[^.]*$/, '');
    const named = layers.map((layer) => ({
      ...layer,
      name: (layers.length === 1 ? stem : `${stem}, ${layer.name}`).slice(0, NAME_LENGTH),
    }));
    const middle = this.right === null ? 0 : this.right + GAP_SHARE * size + size / 2;
    this.right = middle + size / 2;
    const [x, y] = source.origin;
    return { ...arrival, source: { ...source, origin: [x - middle / source.scale, y] }, layers: named };
  }
}

/** @param row of the files it came with; null where it came alone */
async function bringInOne(file: File, row: Row | null): Promise<ImportResult> {
  const nothing: ImportResult = { ...NOTHING, file: file.name };
  const project = useProject.getState();
  if (!project.history) return nothing;
  try {
    const head = new Uint8Array(await file.slice(0, HEAD).arrayBuffer());
    const { plural, advice, limit } = fileKind(head).file;
    if (file.size > limit(head)) {
      const mb = (bytes: number) => Math.round(bytes / 2 ** 20);
      return {
        ...nothing,
        error: `It is ${mb(file.size)} MB; ${plural} up to ${mb(limit(head))} MB are taken. ${advice}`,
      };
    }
    const bytes = new Uint8Array(await file.arrayBuffer());
    const { present } = project.history;
    const { hash } = await api.uploadAsset(bytes);
    const report = Comlink.proxy((share: number) => useImport.setState({ progress: share }));
    const outcome = await geometry((worker) => worker.bringIn({ asset: hash, name: file.name, head }, present, report));
    useImport.setState({ progress: null });
    if (!outcome.ok) return { ...nothing, error: outcome.error.message };
    if (useProject.getState().id !== project.id) return { ...nothing, error: 'The project was closed meanwhile.' };
    const value = row ? row.placed(file.name, outcome.value) : outcome.value;
    const many = value.warnings.find(({ code }) => code === 'many');
    if (!many) return taken(file.name, value);
    useImport.setState({ held: { file: file.name, value, message: many.message } });
    return { ...nothing, error: 'It has many pieces; say whether all of them are wanted.' };
  } catch (error) {
    return refused(file.name, error);
  }
}

/** Makes the layers of what came in, and shows them. */
function taken(file: string, { source, layers, groups, warnings, leftOut, size }: Arrival): ImportResult {
  const isFirst = useProject.getState().history?.present.layers.length === 0;
  dispatch({
    do: 'add-source',
    source,
    layers: [...layers],
    groups: [...groups],
    ...(isFirst && size > 0 ? { tolerance: toleranceFor(size) } : {}),
  });
  screen.select(
    layers
      .filter((layer) => layer.shown)
      .slice(-1)
      .map((layer) => layer.id),
  );
  screen.lookFrom('three-quarter');
  if (source.kind === 'picture') sourceView.set({ source: source.id, openStep: null, tool: null });
  return { file, source: source.id, error: null, layers: layers.length, size, warnings, leftOut };
}

/** Says no more of the last drop. */
export function putAside(): void {
  useImport.setState({ results: [] });
}

/** Brings in the picture that was held back: with its layers, or only to be drawn over. Null leaves it. */
export function decideHeld(as: 'layers' | 'underlay' | null): void {
  const { held } = useImport.getState();
  const value = held && (as === 'underlay' ? asUnderlay(held.value) : held.value);
  useImport.setState({ held: null, results: held && value && as ? [taken(held.file, value)] : [] });
}

function asUnderlay(arrival: Arrival): Arrival {
  const { source } = arrival;
  if (source.kind !== 'picture') return arrival;
  return {
    ...arrival,
    source: { ...source, pieces: [], trace: { ...source.trace, mode: UNDERLAY } },
    layers: [],
    warnings: [],
  };
}

/** A picture's file in place of the one it has: its layers and recipes stay. */
export async function replacePicture(source: string, file: File): Promise<void> {
  useImport.setState({ busy: file.name });
  try {
    const bytes = new Uint8Array(await file.arrayBuffer());
    if (!sniffPicture(bytes)) throw new Error('A picture can only be replaced by a picture.');
    const { hash } = await api.uploadAsset(bytes);
    changePicture(source, { asset: hash, name: file.name });
    useImport.setState({ results: [] });
  } catch (error) {
    useImport.setState({ results: [refused(file.name, error)] });
  }
  useImport.setState({ busy: null });
}
