// import.ts — bringing files in: upload, read in the worker, one command to the document. A file that cannot be read
// leaves the project as it was.
import { create } from 'zustand';
import { type LeftOut, SVG_LIMITS, type Warning } from '../../core/index.ts';
import { api } from '../requests/api.ts';
import { geometry } from '../worker/client.ts';
import { dispatch, useProject } from './project.ts';
import { screen } from './screen.ts';

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

interface ImportState {
  /** Name of the file being read. */
  readonly busy: string | null;
  /** Results of the last drop. */
  readonly results: readonly ImportResult[];
}

export const useImport = create<ImportState>(() => ({ busy: null, results: [] }));

/** Files that wait for a project that is just being opened. */
let waiting: { readonly project: string; readonly files: readonly File[] } | null = null;

useProject.subscribe(({ id, history }) => {
  if (!waiting || !history || id !== waiting.project) return;
  const { files } = waiting;
  waiting = null;
  void bringIn(files);
});

/** Brings files in as soon as the project is open. */
export function bringInLater(project: string, files: readonly File[]): void {
  waiting = { project, files };
}

export async function bringIn(files: readonly File[]): Promise<void> {
  const results: ImportResult[] = [];
  for (const file of files) {
    useImport.setState({ busy: file.name });
    results.push(await bringInOne(file));
  }
  useImport.setState({ busy: null, results });
}

async function bringInOne(file: File): Promise<ImportResult> {
  const nothing = { file: file.name, source: null, error: null, layers: 0, size: 0, warnings: [], leftOut: [] };
  const project = useProject.getState();
  if (!project.history) return nothing;
  if (file.size > SVG_LIMITS.bytes) {
    const mb = (bytes: number) => Math.round(bytes / 2 ** 20);
    const error = `It is ${mb(file.size)} MB; vector files up to ${mb(SVG_LIMITS.bytes)} MB are taken. Simplify it first.`;
    return { ...nothing, error };
  }
  try {
    const bytes = new Uint8Array(await file.arrayBuffer());
    const { present } = project.history;
    const { hash } = await api.uploadAsset(bytes);
    const outcome = await geometry((worker) => worker.bringIn(bytes, hash, file.name, present));
    if (!outcome.ok) return { ...nothing, error: outcome.error.message };
    if (useProject.getState().id !== project.id) return { ...nothing, error: 'The project was closed meanwhile.' };
    const { source, layers, warnings, leftOut, size } = outcome.value;
    dispatch({ do: 'add-source', source, layers: [...layers] });
    screen.select(
      layers
        .filter((layer) => layer.shown)
        .slice(-1)
        .map((layer) => layer.id),
    );
    screen.lookFrom('three-quarter');
    return { ...nothing, source: source.id, layers: layers.length, size, warnings, leftOut };
  } catch (error) {
    return { ...nothing, error: error instanceof Error ? error.message : String(error) };
  }
}
