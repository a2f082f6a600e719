// words.ts — how the proof says which way an edge was built.
import type { EdgePath } from '../../../core/index.ts';

export const EDGE_PATH_WORDS: Record<EdgePath, string> = {
  none: 'none',
  skeleton: 'by the straight skeleton, exact offsets',
  rings: 'by offset rings, where the skeleton did not pass its check',
};
