// words.ts — what the proof's findings are called, one and many.
import type { EdgePath, Fault } from '../../../core/index.ts';

export const FAULT_WORDS: Record<Fault, readonly [one: string, many: string]> = {
  open: ['open edge', 'open edges'],
  crowded: ['edge with more than two faces', 'edges with more than two faces'],
  flipped: ['edge whose faces run the same way', 'edges whose faces run the same way'],
  inward: ['shell that faces inward', 'shells that face inward'],
  crossing: ['self-crossing', 'self-crossings'],
  zero: ['face without area', 'faces without area'],
  splinter: ['splinter', 'splinters'],
};

export const EDGE_PATH_WORDS: Record<EdgePath, string> = {
  none: 'none',
  skeleton: 'by the straight skeleton, exact offsets',
  rings: 'by offset rings, where the skeleton did not pass its check',
};
