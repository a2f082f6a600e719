// solid.worker.ts — one of several hands of the geometry worker: builds layers and proves meshes, and keeps nothing.
import * as Comlink from 'comlink';
import { type MadeLayer, type Mesh, makeLayer, type PendingLayer, type Proof, proofOf } from '../../core/index.ts';
import { attempt, type Outcome } from './outcome.ts';

const api = {
  layer(pending: PendingLayer): Outcome<MadeLayer> {
    const outcome = attempt(() => makeLayer(pending));
    if (!outcome.ok) return outcome;
    const { points, rows, starts, corners, sides, flow } = outcome.value.plan;
    const arrays = [points, rows, starts, corners, sides, flow.edges, flow.points, flow.next];
    return Comlink.transfer(
      outcome,
      arrays.map(({ buffer }) => buffer as ArrayBuffer),
    );
  },
  prove(mesh: Mesh): Outcome<Proof> {
    return attempt(() => proofOf(mesh));
  },
};
export type SolidApi = typeof api;
Comlink.expose(api);
