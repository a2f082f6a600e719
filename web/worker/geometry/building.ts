// building.ts — everything that is shown, evaluated; and its proofs.
import * as Comlink from 'comlink';
import {
  type BuildView,
  buffersOfDrawn,
  GeometryError,
  type Overlays,
  type Project,
  type Proof,
  type Resolved,
} from '../../../core/index.ts';
import { attempt, type Outcome } from '../outcome.ts';
import { evaluator, heeding, pool, type Report, views, withSources } from './state.ts';

export interface TimedBuild extends BuildView {
  readonly ms: number;
}

/** How many builds were asked for. */
let builds = 0;

export const building = {
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
        await makeLayers(resolved, heeding(report));
        const view = views.view(resolved, new Set(known), overlays);
        return { ...view, ms: performance.now() - started };
      }),
    );
    if (!outcome.ok) return outcome;
    const buffers = outcome.value.layers.flatMap(({ mesh }) => (mesh ? buffersOfDrawn(mesh) : []));
    // What is not shown is one empty array for all, and nothing can be handed over twice.
    return Comlink.transfer(outcome, [...new Set(buffers)] as ArrayBuffer[]);
  },

  /**
   * Proofs of the shown layers by mesh key; call it after `build` with the same project. A build that is asked for meanwhile
   * ends it.
   */
  prove(project: Project): Promise<Outcome<Record<string, Proof>>> {
    const started = builds;
    return attempt(() =>
      withSources(project, async (resolved) => {
        const proofs: Record<string, Proof> = {};
        const shown = resolved.layers.filter((layer) => layer.shown);
        await Promise.all(
          shown.map(async (layer) => {
            const { key, whole } = evaluator.mesh(resolved, layer);
            if (!evaluator.isProven(resolved, layer)) {
              const proof = await pool.run((member) => member.prove(whole));
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

/** A layer of more points than this is not made here, where nothing could stop it. */
const MANY_POINTS = 20_000;

/**
 * Makes the layers that are not known yet, several at a time where there are several. A single one, which is what a drag
 * changes, is made here and spares being copied; what cannot be made says so when it is built.
 */
async function makeLayers(project: Resolved, report: Report): Promise<void> {
  const pending = project.layers.flatMap((layer) => {
    const job = layer.shown ? pendingOf(project, layer) : null;
    return job ? [{ layer, job }] : [];
  });
  const points = pending.reduce((sum, { job }) => sum + pointsOf(job), 0);
  if (pending.length === 0 || (pending.length === 1 && points < MANY_POINTS)) return;
  let done = 0;
  await Promise.all(
    pending.map(async ({ layer, job }) => {
      const made = await pool.run((member) => member.layer(job));
      if (!made.ok && made.error.code === 'cancelled') throw new GeometryError('cancelled', made.error.message);
      if (made.ok) evaluator.adoptLayer(project, layer, made.value);
      report(++done / pending.length);
    }),
  );
}

type Pending = NonNullable<ReturnType<typeof evaluator.pending>>;

/** Null for nothing, and for a layer that says what is wrong with it when it is built. */
function pendingOf(project: Resolved, layer: Resolved['layers'][number]): Pending | null {
  try {
    return evaluator.pending(project, layer);
  } catch {
    return null;
  }
}

function pointsOf({ shapes, regions }: Pending): number {
  const rings = regions?.flatMap(({ outer, holes }) => [outer, ...holes]) ?? [];
  return shapes.reduce((sum, { path }) => sum + path.length, 0) + rings.reduce((sum, ring) => sum + ring.length / 2, 0);
}
