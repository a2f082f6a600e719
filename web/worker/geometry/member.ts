// member.ts — the module of the pool's workers: builds layers and proves meshes, and keeps nothing.
import * as Comlink from 'comlink';
import {
  buffersOfMade,
  type MadeLayer,
  type Mesh,
  makeLayer,
  type PendingLayer,
  type Proof,
  proofOf,
} from '../../../core/index.ts';
import { attempt, type Outcome } from '../outcome.ts';

const api = {
  async layer(pending: PendingLayer): Promise<Outcome<MadeLayer>> {
    const outcome = await attempt(() => makeLayer(pending));
    if (!outcome.ok) return outcome;
    return Comlink.transfer(outcome, buffersOfMade(pending, outcome.value) as ArrayBuffer[]);
  },
  prove: (mesh: Mesh): Promise<Outcome<Proof>> => attempt(() => proofOf(mesh)),
};
export type MemberApi = typeof api;
Comlink.expose(api);
