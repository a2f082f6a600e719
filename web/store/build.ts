// build.ts — what the geometry worker makes of the document: always the newest one, never two at a time.
import * as Comlink from 'comlink';
import { create } from 'zustand';
import {
  type Overlays,
  type Piercing,
  type Project,
  type Proof,
  type SheetView,
  type Totals,
  totalsOf,
} from '../../core/index.ts';
import { geometry, stopGeometry } from '../worker/client.ts';
import type { TimedBuild } from '../worker/geometry/building.ts';
import type { Failure } from '../worker/outcome.ts';
import { useProject } from './project.ts';
import { useScreen } from './screen.ts';

interface BuildState {
  readonly view: TimedBuild | null;
  /** The outlines alone, until there is a view. */
  readonly sheet: SheetView | null;
  /** The document that `view` was made from. */
  readonly of: Project | null;
  /** Proofs of the shown layers by mesh key. */
  readonly proofs: Readonly<Record<string, Proof>>;
  /** The document that proofs and totals are of; another one is still being checked. */
  readonly proven: Project | null;
  /** Layers of that document that run through each other at an angle. */
  readonly piercings: readonly Piercing[];
  /** Totals of the last complete proof, and of the one before it. */
  readonly totals: Totals | null;
  readonly before: Totals | null;
  readonly busy: boolean;
  /** Milliseconds a face took when last there was more to be made than a few. */
  readonly pace: number;
  /** Busy for long enough to say so. */
  readonly slow: boolean;
  /** Share of the layers that are made, while it is slow. */
  readonly progress: number;
  readonly failure: Failure | null;
}

const EMPTY: BuildState = {
  view: null,
  sheet: null,
  of: null,
  proofs: {},
  proven: null,
  piercings: [],
  totals: null,
  before: null,
  busy: false,
  pace: 0.01,
  slow: false,
  progress: 0,
  failure: null,
};

/** Faces from which on a build tells how fast this machine is. */
const TELLING = 5000;

const SLOW_MS = 200;
/** The proof waits for a pause, so that it never holds up a drag. */
const PROOF_DELAY_MS = 300;

export const useBuild = create<BuildState>(() => EMPTY);
const { setState: set, getState: get } = useBuild;

let wanted: Project | null = null;
/** What the last view came with. */
let overlays: Overlays = { checker: false, wire: false };
const areOverlaysNew = ({ checker, wire } = useScreen.getState()) =>
  checker !== overlays.checker || wire !== overlays.wire;
let proofTimer: ReturnType<typeof setTimeout> | undefined;

useProject.subscribe((state) => {
  const document = state.history?.present ?? null;
  if (document === wanted) return;
  wanted = document;
  if (!document) set(EMPTY);
  else if (!get().busy) void buildLatest();
});

useScreen.subscribe((state) => {
  if (areOverlaysNew(state) && wanted && !get().busy) void buildLatest();
});

async function buildLatest(): Promise<void> {
  clearTimeout(proofTimer);
  const slow = setTimeout(() => set({ slow: true }), SLOW_MS);
  set({ busy: true });
  if (!get().view) void showSheet();
  const report = Comlink.proxy((progress: number) => set({ progress }));
  while (wanted && (wanted !== get().of || areOverlaysNew())) {
    const project = wanted;
    const { checker, wire } = useScreen.getState();
    overlays = { checker, wire };
    const before = get().view;
    const seen = before?.layers ?? [];
    const known = seen.flatMap(({ key, mesh, shapesKey }) => (mesh ? [key, shapesKey] : [shapesKey]));
    const outcome = await geometry((api) => api.build(project, known, overlays, report));
    if (!wanted) break;
    if (outcome.ok) {
      set({
        view: completed(outcome.value, before),
        sheet: null,
        of: project,
        pace: paceOf(outcome.value),
        failure: null,
      });
    } else set({ failure: outcome.error, of: project });
  }
  clearTimeout(slow);
  set({ busy: false, slow: false, progress: 0 });
  proofTimer = setTimeout(() => void prove(), PROOF_DELAY_MS);
}

function paceOf({ layers, ms }: TimedBuild): number {
  const made = layers.reduce((sum, { mesh }) => sum + (mesh ? mesh.indices.length / 3 : 0), 0);
  return made >= TELLING ? ms / made : get().pace;
}

/** Shows the outlines while the first build takes its time. */
async function showSheet(): Promise<void> {
  const project = wanted;
  if (!project) return;
  const outcome = await geometry((api) => api.sheet(project));
  // Whatever is wrong with it, the build says so too.
  if (outcome.ok && wanted === project && !get().view) set({ sheet: outcome.value });
}

/** The view with what the worker left out because it had sent it before. */
function completed(view: TimedBuild, last: TimedBuild | null): TimedBuild {
  const seen = last?.layers ?? [];
  const meshes = new Map(seen.map(({ key, mesh }) => [key, mesh]));
  const shapes = new Map(seen.map((layer) => [layer.shapesKey, layer.shapes]));
  const before = new Map(seen.map((layer) => [layer.id, layer]));
  const layers = view.layers.map((layer) => {
    // What cannot be built is seen as it was last built.
    const { key, mesh } = (layer.error && before.get(layer.id)) || layer;
    return {
      ...layer,
      key,
      mesh: mesh ?? meshes.get(key) ?? null,
      shapes: layer.shapes ?? shapes.get(layer.shapesKey) ?? [],
    };
  });
  const refused = layers.flatMap(({ id, error }) =>
    error && last?.placed[id] ? [[id, last.placed[id]] as const] : [],
  );
  return { ...view, layers, placed: { ...Object.fromEntries(refused), ...view.placed } };
}

async function prove(): Promise<void> {
  const { of: project, view } = get();
  if (!project || !view || get().busy) return;
  const outcome = await geometry((api) => api.prove(project));
  // Whatever was built since, if only to be shown otherwise, ended it, and is proven in its turn.
  if (get().view !== view || get().busy) return;
  if (!outcome.ok) {
    set({ failure: outcome.error });
    return;
  }
  const built = view.layers.flatMap(({ id, meshKey }) => (meshKey ? [id] : []));
  const pierced = await geometry((api) => api.piercings(project, built));
  if (get().view !== view || get().busy) return;
  if (!pierced.ok) {
    set({ failure: pierced.error });
    return;
  }
  // By layer and copy, because equal layers share a mesh and its proof.
  const totals = totalsOf(
    view.layers.flatMap(({ id, meshKey }) => {
      const proof = outcome.value[meshKey];
      return proof ? (view.placed[id]?.places.map(() => proof) ?? [proof]) : [];
    }),
  );
  const previous = get().totals;
  const changed = previous && JSON.stringify(previous) !== JSON.stringify(totals);
  set({
    proofs: outcome.value,
    proven: project,
    piercings: pierced.value,
    totals,
    before: changed ? previous : get().before,
  });
}

/** Stops a build that takes too long; what was shown stays. */
export function cancelBuild(): void {
  stopGeometry();
}
