// proof.ts — the station where meshes are measured. No stop on the route: the strip below leads here from everywhere.
import { later } from '../../controls/later.ts';
import { BOTH } from '../desks.ts';
import type { Station } from '../kind.ts';

export const proof = {
  path: 'proof',
  title: 'Proof',
  panel: later(
    () => import('./ProofPanel.tsx'),
    (module) => module.ProofPanel,
  ),
  desk: BOTH,
  keys: [],
} satisfies Station;
