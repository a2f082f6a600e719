// proof.ts — the station where meshes are measured. No stop on the route: the strip below leads here from everywhere.
import { BOTH } from '../desks.ts';
import type { Station } from '../kind.ts';
import { ProofPanel } from './ProofPanel.tsx';

export const proof = { path: 'proof', title: 'Proof', panel: ProofPanel, desk: BOTH, keys: [] } satisfies Station;
