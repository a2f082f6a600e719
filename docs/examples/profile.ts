// profile.ts — a profile: a ledge, then a quarter round, as along the edge of a tabletop.
import type { Moulding } from '../../core/solid/profile.ts';

/** How much of reach and rise the ledge takes. */
const LEDGE = 0.25;

export const thumbnail: Moulding = {
  word: 'thumbnailed',
  isCurved: true,
  rows: (steps) => [
    [0, 0],
    [LEDGE, 0],
    ...Array.from({ length: steps }, (_, k) => {
      const angle = (((k + 1) / steps) * Math.PI) / 2;
      return [LEDGE + (1 - LEDGE) * (1 - Math.cos(angle)), Math.sin(angle)] as const;
    }).slice(0, -1),
    [1, 1],
  ],
};
