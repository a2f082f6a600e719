// marking.ts — edges and faces of one layer picked in the view, to be marked by hand.
import { create } from 'zustand';
import type { EdgePlace, Marked, MarkKind, PickedEdges, PickedFace, Point } from '../../core/index.ts';
import { geometry } from '../worker/client.ts';
import type { Outcome } from '../worker/outcome.ts';
import { dispatch, useProject } from './project.ts';
import { screen, useScreen } from './screen.ts';

/** What a click picks. */
export const PICKS = ['edge', 'line', 'face'] as const;
export type Pick = (typeof PICKS)[number];

interface MarkingState {
  /** The layer whose clicks pick; null while a click chooses layers. */
  readonly layer: string | null;
  readonly pick: Pick;
  /** Whether the edges of all faces were shown before. */
  readonly hadWire: boolean;
  readonly edges: readonly PickedEdges[];
  readonly faces: readonly PickedFace[];
  readonly marked: Marked | null;
  readonly refusal: string | null;
}

const NOTHING = { edges: [], faces: [], refusal: null } as const;
export const useMarking = create<MarkingState>(() => ({
  layer: null,
  pick: 'line',
  hadWire: false,
  marked: null,
  ...NOTHING,
}));
const { setState: set, getState: get } = useMarking;

const now = () => useProject.getState().history?.present;

/** What was asked for, unless something else is wanted by now. */
function taken<T>(layer: string, outcome: Outcome<T>): T | null {
  if (get().layer !== layer) return null;
  if (outcome.ok) return outcome.value;
  set({ refusal: outcome.error.message });
  return null;
}

export const marking = {
  /** Edges are seen while they are picked. */
  begin(layer: string): void {
    const { wire } = useScreen.getState();
    if (!wire) screen.toggleWire();
    set({ layer, marked: null, hadWire: wire, ...NOTHING });
  },
  end(): void {
    if (!get().hadWire && useScreen.getState().wire) screen.toggleWire();
    set({ layer: null, marked: null, ...NOTHING });
  },
  choose: (pick: Pick) => set({ pick, ...NOTHING }),

  /** @param point on the layer, in its own place @param isMore whether what is picked already stays so */
  async pick(layer: string, point: Point, isMore: boolean): Promise<void> {
    const project = now();
    const { pick } = get();
    if (!project) return;
    if (pick === 'face') {
      const face = taken(layer, await geometry((api) => api.faceAt(project, layer, point)));
      if (face)
        set({ ...NOTHING, faces: isMore ? [...get().faces.filter((known) => known.id !== face.id), face] : [face] });
    } else {
      const edges = taken(layer, await geometry((api) => api.edgesAt(project, layer, point, pick === 'line')));
      if (edges) set({ ...NOTHING, edges: isMore ? [...get().edges, edges] : [edges] });
    }
  },

  /** Looks at the marks of the layer again: it has changed. */
  async look(): Promise<void> {
    const [project, { layer }] = [now(), get()];
    if (!project || !layer) return;
    const marked = taken(layer, await geometry((api) => api.markedOn(project, layer)));
    if (marked) set({ marked });
  },

  /** @param is null for no mark */
  mark(is: MarkKind | null, at: readonly EdgePlace[] = get().edges.flatMap((picked) => picked.at)): void {
    const { layer } = get();
    if (!layer || at.length === 0) return;
    dispatch({ do: 'mark-edges', layer, at: at as EdgePlace[], is });
    set(NOTHING);
  },

  async join(): Promise<void> {
    const [project, { layer, faces }] = [now(), get()];
    if (!project || !layer) return;
    const points = faces.map(({ point }) => point);
    const edges = taken(layer, await geometry((api) => api.joinsOf(project, layer, points)));
    if (edges) marking.mark('joined', edges);
  },
};
