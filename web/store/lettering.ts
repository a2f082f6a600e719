// lettering.ts — texts while they are set: the newest wish is set in the worker, and what comes of it is one change of the
// document.
import { create } from 'zustand';
import { LETTERING_DEFAULTS, type Lettering, type LetteringSource, sniffFont } from '../../core/index.ts';
import { api } from '../requests/api.ts';
import { geometry } from '../worker/client.ts';
import { dispatch, useProject } from './project.ts';
import { screen } from './screen.ts';

interface LetteringState {
  /** Texts that are not set yet, by source. */
  readonly wanted: Readonly<Record<string, Lettering>>;
  readonly busy: boolean;
  readonly failure: string | null;
}

const EMPTY: LetteringState = { wanted: {}, busy: false, failure: null };
export const useLettering = create<LetteringState>(() => EMPTY);
const { setState: set, getState: get } = useLettering;

useProject.subscribe(({ id }, before) => {
  if (id !== before.id) set(EMPTY);
});

/** The text as it is wished for: what the controls show while it is being set. */
export const useWishedText = ({ id, lettering }: LetteringSource): Lettering =>
  useLettering((state) => state.wanted[id]) ?? lettering;

/** Adds a text to the project. */
export async function addText(text: string): Promise<void> {
  const project = useProject.getState().history?.present;
  if (!project) return;
  set({ busy: true, failure: null });
  const outcome = await geometry((worker) => worker.bringInText({ ...LETTERING_DEFAULTS, text }, project));
  set({ busy: false });
  if (!outcome.ok) {
    set({ failure: outcome.error.message });
    return;
  }
  const { source, layers } = outcome.value;
  dispatch({ do: 'add-source', source, layers: [...layers] });
  screen.select(layers.slice(-1).map(({ id }) => id));
  screen.lookFrom('three-quarter');
}

let gestureOfWanted: string | null = null;

/** @param gesture key of the drag in progress, so that it undoes as one */
export function changeText(source: LetteringSource, change: Partial<Lettering>, gesture: string | null = null): void {
  gestureOfWanted = gesture;
  const { wanted, busy } = get();
  set({ wanted: { ...wanted, [source.id]: { ...(wanted[source.id] ?? source.lettering), ...change } }, failure: null });
  if (!busy) void setWanted();
}

async function setWanted(): Promise<void> {
  set({ busy: true });
  for (let next = Object.entries(get().wanted)[0]; next; next = Object.entries(get().wanted)[0]) {
    const [id, lettering] = next;
    const gesture = gestureOfWanted;
    const project = useProject.getState().history?.present;
    if (project?.sources.some((source) => source.id === id)) {
      const outcome = await geometry((worker) => worker.reletter(project, id, lettering));
      if (!outcome.ok) set({ failure: outcome.error.message });
      else if (useProject.getState().history?.present === project) {
        const { source, layers, gone } = outcome.value;
        dispatch({ do: 'change-source', source, layers: [...layers], gone: [...gone] }, gesture);
      } else if (get().wanted[id] === lettering) continue;
    }
    // Something newer may be wished for already.
    if (get().wanted[id] === lettering) {
      const { [id]: _, ...rest } = get().wanted;
      set({ wanted: rest });
    }
  }
  set({ busy: false });
}

/** A font file for a text. */
export async function bringInFont(source: LetteringSource, file: File): Promise<void> {
  try {
    const bytes = new Uint8Array(await file.arrayBuffer());
    if (!sniffFont(bytes)) throw new Error(`${file.name} is not a font: use TTF, OTF, WOFF or WOFF 2.`);
    const { hash } = await api.uploadAsset(bytes);
    changeText(source, { font: { from: 'file', asset: hash, name: file.name } });
  } catch (error) {
    set({ failure: error instanceof Error ? error.message : String(error) });
  }
}
