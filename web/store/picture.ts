// picture.ts — a picture's preparation and trace while they are being changed: the newest wish is traced in the worker,
// and what comes of it is one change of the document.
import * as Comlink from 'comlink';
import { create } from 'zustand';
import type { Layer, PictureSource } from '../../core/index.ts';
import { countOf, formatCount } from '../format.ts';
import { geometry, stopGeometry } from '../worker/client.ts';
import type { TraceStats } from '../worker/geometry/arriving.ts';
import { dispatch, undoChange, useProject } from './project.ts';

/** What can be changed about a picture. */
export type PictureChange = Partial<Pick<PictureSource, 'prepare' | 'trace' | 'asset' | 'name'>>;

interface Result {
  readonly source: PictureSource;
  readonly layers: readonly Layer[];
}

interface PictureState {
  /** Changes that are not traced yet, by source. */
  readonly wanted: Readonly<Record<string, PictureChange>>;
  readonly busy: boolean;
  /** Share done, once it takes long enough to say so. */
  readonly progress: number | null;
  readonly failure: string | null;
  /** What the last traces came to, by source. */
  readonly stats: Readonly<Record<string, TraceStats>>;
  /** What became of the pieces of a source whose picture was replaced last. */
  readonly replaced: Readonly<Record<string, string | null>>;
  /** A trace of so many pieces that it waits for a word before layers are made of it. */
  readonly held: (Result & { readonly message: string }) | null;
}

const EMPTY: PictureState = {
  wanted: {},
  busy: false,
  progress: null,
  failure: null,
  stats: {},
  replaced: {},
  held: null,
};

export const usePicture = create<PictureState>(() => EMPTY);
const { setState: set, getState: get } = usePicture;

/** Waits shorter than this are not worth a bar. */
const SLOW_MS = 200;

useProject.subscribe(({ id }, before) => {
  if (id !== before.id) set(EMPTY);
});

/** The source as it is wished for: what is shown in the controls while its trace is on the way. */
export function useWished(source: PictureSource): PictureSource {
  const change = usePicture((state) => state.wanted[source.id]);
  return change ? { ...source, ...change } : source;
}

let gestureOfWanted: string | null = null;

/** @param gesture key of the drag in progress, so that it undoes as one */
export function changePicture(id: string, change: PictureChange, gesture: string | null = null): void {
  gestureOfWanted = gesture;
  const { wanted, busy } = get();
  set({ wanted: { ...wanted, [id]: { ...wanted[id], ...change } }, held: null, failure: null });
  if (!busy) void traceWanted();
}

async function traceWanted(): Promise<void> {
  set({ busy: true });
  for (let next = Object.entries(get().wanted)[0]; next; next = Object.entries(get().wanted)[0]) {
    const [id, change] = next;
    const gesture = gestureOfWanted;
    const project = useProject.getState().history?.present;
    const source = project?.sources.find((known) => known.id === id);
    if (!project || source?.kind !== 'picture') {
      forget(id, change);
      continue;
    }
    const started = performance.now();
    const report = Comlink.proxy((share: number) => {
      if (performance.now() - started > SLOW_MS) set({ progress: share });
    });
    const outcome = await geometry((api) => api.retrace(project, { ...source, ...change }, report));
    set({ progress: null });
    if (useProject.getState().history === null) break;
    // Taken back meanwhile.
    if (!get().wanted[id]) continue;
    if (!outcome.ok) {
      forget(id, change);
      set({ failure: outcome.error.message });
      continue;
    }
    const { stats, warnings, source: traced, layers, gone } = outcome.value;
    const replaced = traced.asset === source.asset ? null : comparedPieces(source, traced);
    set({ stats: { ...get().stats, [id]: stats }, replaced: { ...get().replaced, [id]: replaced } });
    const many = warnings.find(({ code }) => code === 'many');
    const isKnown = project.sources.includes(source) && source.pieces.length >= traced.pieces.length / 2;
    if (many && !isKnown) set({ held: { source: traced, layers, message: many.message } });
    else dispatch({ do: 'change-source', source: traced, layers: [...layers], gone: [...gone] }, gesture);
    forget(id, change);
  }
  set({ busy: false });
}

/** What became of the pieces when a picture took another's place. */
function comparedPieces(before: PictureSource, after: PictureSource): string {
  const known = new Map(before.pieces.map((piece) => [piece.id, piece]));
  const matched = after.pieces.flatMap((piece) =>
    known.has(piece.id) ? [[known.get(piece.id)!, piece] as const] : [],
  );
  const changed = matched.filter(([was, is]) => Math.abs(is.area / was.area - 1) > CHANGED_SHARE).length;
  const fresh = after.pieces.length - matched.length;
  const gone = before.pieces.length - matched.length;
  return `${countOf(matched.length, 'piece')} ${matched.length === 1 ? 'matches' : 'match'} what was there and ${matched.length === 1 ? 'keeps its' : 'keep their'} recipe, ${formatCount(changed)} of them larger or smaller; ${formatCount(fresh)} ${fresh === 1 ? 'is' : 'are'} new, ${formatCount(gone)} ${gone === 1 ? 'is' : 'are'} gone.`;
}

/** A piece has changed when its area differs by more. */
const CHANGED_SHARE = 0.05;

/** Only what has been worked on: something newer may be wished for already. */
function forget(id: string, change: PictureChange): void {
  const { wanted } = get();
  if (wanted[id] !== change) return;
  const { [id]: _, ...rest } = wanted;
  set({ wanted: rest });
}

/** Takes the last change back: a wish that is still being traced, else what is in the document. */
export function undoLast(): void {
  if (Object.keys(get().wanted).length > 0) set({ wanted: {} });
  else undoChange();
}

/** Makes layers of the trace that was held back. */
export function takeHeld(): void {
  const { held } = get();
  if (!held) return;
  dispatch({ do: 'change-source', source: held.source, layers: [...held.layers] });
  set({ held: null });
}

export const dropHeld = () => set({ held: null });

/** Stops a trace that takes too long; the picture keeps the one it had. */
export const cancelTrace = stopGeometry;

/** Asks for the figures of a picture that was traced before the page was opened. */
export async function fetchStats(source: PictureSource): Promise<void> {
  const outcome = await geometry((api) => api.traceStats(source));
  if (outcome.ok) set({ stats: { ...get().stats, [source.id]: outcome.value } });
}
