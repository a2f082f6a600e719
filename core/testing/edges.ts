// edges.ts — made-up edges for tests.
import type { SlabEdge } from '../solid/slab.ts';

/** Rounded in 3 steps, reaching in 1 and down 1, unless something else is said. */
export const roundEdge = (change: Partial<SlabEdge> = {}): SlabEdge => ({
  profile: 'round',
  reach: 1,
  rise: 1,
  steps: 3,
  way: 'in',
  beyond: 'ridge',
  corners: 'mitred',
  mitreLimit: 5,
  ...change,
});
