// words.ts — how the proof says how true an edge is.
import type { EdgePath } from '../../../core/index.ts';

export const EDGE_PATH_WORDS: Record<EdgePath, string> = {
  none: 'none',
  skeleton: 'exact: every point as far in as the profile says',
  rings: 'approximated by offset outlines, where the exact edge did not pass its check',
};
