// building.ts — everything that is shown, evaluated; and its proofs.
import * as Comlink from 'comlink';
import {
  type BuildView,
  buffersOfDrawn,
  bytesOf,
  GeometryError,
  type Layer,
  type MadeLayer,
  type Overlap,
  type Overlays,
  overlapPlace,
  type PendingLayer,
  type Piercing,
  type Point3,
  type Project,
  type Proof,
  partedBases,
  piercingsOf,
  type Resolved,
  type Rule,
  renewed,
  type SheetView,
  type Subject,
  sheetView,
  subjectsOf,
} from '../../../core/index.ts';
import { attempt, type Outcome } from '../outcome.ts';
import { evaluator, heeding, keepDrawing, kept, pool, type Report, views, withSources } from './state.ts';

export interface TimedBuild extends BuildView {
  readonly ms: number;
}

/** What is kept for the next visit is put away when nobody waits. */
const KEEP_DELAY_MS = 1000;

const keptLayer = (project: Resolved, layer: Layer) => `layer ${evaluator.madeKey(project, layer)}`;

function keep(project: Resolved): void {
  for (const source of project.sources) keepDrawing(source);
  for (const layer of project.layers) {
    const made = evaluator.made(project, layer);
    if (made) void kept.put(keptLayer(project, layer), bytesOf(made), made);
  }
}

/** How many builds were asked for. */
let builds = 0;

export const building = {
  /** What lies on the sheet, for a page that waits for its first build. */
  sheet: (project: Project): Promise<Outcome<SheetView>> =>
    attempt(() => withSources(project, (resolved) => sheetView(evaluator, resolved))),

  /** A place where two layers overlap. */
  overlapPlace: (project: Project, overlap: Overlap): Promise<Outcome<Point3 | null>> =>
    attempt(() => withSources(project, (resolved) => overlapPlace(evaluator, resolved, overlap))),

  /** Bases with which no layers fill the same space or share a plane. */
  partedBases: (project: Project, gap: number): Promise<Outcome<{ layer: string; base: number }[]>> =>
    attempt(() => withSources(project, (resolved) => partedBases(evaluator, resolved, gap))),

  /** Layers as rules see them, the lowest first. */
  ruleSubjects: (project: Project, layers: readonly string[]): Promise<Outcome<readonly Subject[]>> =>
    attempt(() => withSources(project, (resolved) => subjectsOf(evaluator, resolved, layers))),

  /** What a rule gives its layers by now; null where that is what it gave. */
  renewed: (project: Project, rule: Rule): Promise<Outcome<Rule['gave'] | null>> =>
    attempt(() => withSources(project, (resolved) => renewed(evaluator, resolved, rule))),

  /**
   * Evaluates everything that is shown.
   * @param known keys of meshes and shapes the caller already has
   * @param report called with the share done while layers are made
   */
  async build(
    project: Project,
    known: readonly string[],
    overlays: Overlays,
    report: Report,
  ): Promise<Outcome<TimedBuild>> {
    builds++;
    const outcome = await attempt(() =>
      withSources(project, async (resolved) => {
        const started = performance.now();
        const had = new Set(known);
        const prepare = (layer: Layer) => views.prepare(resolved, layer, had, overlays);
        await makeLayers(resolved, heeding(report), prepare);
        const view = views.view(resolved, had, overlays);
        // A page that has nothing is being opened.
        if (known.length === 0) setTimeout(() => keep(resolved), KEEP_DELAY_MS);
        return { ...view, ms: performance.now() - started };
      }),
    );
    if (!outcome.ok) return outcome;
    const buffers = outcome.value.layers.flatMap(({ mesh }) => (mesh ? buffersOfDrawn(mesh) : []));
    // What is not shown is one empty array for all, and nothing can be handed over twice.
    return Comlink.transfer(outcome, [...new Set(buffers)] as ArrayBuffer[]);
  },

  /** Layers that stand at an angle to each other and share space. @param layers ids of those that are built */
  piercings: (project: Project, layers: readonly string[]): Promise<Outcome<readonly Piercing[]>> =>
    attempt(() =>
      withSources(project, (resolved) => {
        const built = resolved.layers.filter(({ id }) => layers.includes(id));
        return piercingsOf(evaluator, resolved, built);
      }),
    ),

  /**
   * Proofs of the shown layers by mesh key; call it after `build` with the same project. A build that is asked for meanwhile
   * ends it.
   */
  prove(project: Project): Promise<Outcome<Record<string, Proof>>> {
    const started = builds;
    return attempt(() =>
      withSources(project, async (resolved) => {
        const proofs: Record<string, Proof> = {};
        const sound = resolved.layers.filter((layer) => layer.shown && isBuilt(resolved, layer));
        await Promise.all(
          sound.map(async (layer) => {
            const { key, mesh } = evaluator.mesh(resolved, layer);
            if (!evaluator.isProven(resolved, layer)) {
              const proof = await pool.run((member) => member.prove(mesh));
              if (builds !== started) throw new GeometryError('cancelled', 'Something newer was built.');
              if (!proof.ok) throw new Error(proof.error.message);
              evaluator.adoptProof(resolved, layer, proof.value);
            }
            proofs[key] = evaluator.proof(resolved, layer);
          }),
        );
        return proofs;
      }),
    );
  },
};

/** Whether a layer has a mesh; one that has none has said why when it was built. */
function isBuilt(project: Resolved, layer: Layer): boolean {
  try {
    evaluator.mesh(project, layer);
    return true;
  } catch (error) {
    if (error instanceof GeometryError) return false;
    throw error;
  }
}

/** A layer of more points than this is not made here, where nothing could stop it. */
const MANY_POINTS = 20_000;

/**
 * Makes the layers that are not known yet, several at a time where there are several. A single one, which is what a drag
 * changes, is made here and spares being copied; what cannot be made says so when it is built.
 * @param prepare told of each layer that is made, while others are not
 */
async function makeLayers(project: Resolved, report: Report, prepare: (layer: Layer) => void): Promise<void> {
  const shown = project.layers.filter((layer) => layer.shown);
  const unknown = shown.flatMap((layer) => pendingOf(project, layer) ?? []);
  const pending = (await Promise.all(unknown.map((each) => takeKept(project, each, prepare)))).flatMap(
    (each) => each ?? [],
  );
  const points = pending.reduce((sum, { job }) => sum + pointsOf(job), 0);
  if (pending.length === 0 || (pending.length === 1 && points < MANY_POINTS)) return;
  let done = 0;
  await Promise.all(
    pending.map(async ({ layer, job }) => {
      const made = await pool.run((member) => member.layer(job));
      if (!made.ok && made.error.code === 'cancelled') throw new GeometryError('cancelled', made.error.message);
      report(++done / pending.length);
      if (!made.ok) return;
      evaluator.adoptLayer(project, layer, made.value);
      prepare(layer);
    }),
  );
}

interface Pending {
  readonly layer: Layer;
  readonly job: PendingLayer;
}

/** Null for nothing, and for a layer that says what is wrong with it when it is built. */
function pendingOf(project: Resolved, layer: Layer): Pending | null {
  try {
    const job = evaluator.pending(project, layer);
    return job && { layer, job };
  } catch {
    return null;
  }
}

/** Takes what an earlier visit made of a layer; gives back what is still to be made. */
async function takeKept(project: Resolved, pending: Pending, prepare: (layer: Layer) => void): Promise<Pending | null> {
  const made = await kept.get<MadeLayer>(keptLayer(project, pending.layer));
  if (!made) return pending;
  evaluator.adoptLayer(project, pending.layer, made);
  prepare(pending.layer);
  return null;
}

function pointsOf({ shapes, regions }: PendingLayer): number {
  const rings = regions?.flatMap(({ outer, holes }) => [outer, ...holes]) ?? [];
  return shapes.reduce((sum, { path }) => sum + path.length, 0) + rings.reduce((sum, ring) => sum + ring.length / 2, 0);
}
