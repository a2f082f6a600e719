// build.ts — the station where flat becomes solid.
import { BOTH } from '../desks.ts';
import { useBuilt } from '../freshness.ts';
import type { Station } from '../kind.ts';
import { BuildPanel } from './BuildPanel.tsx';
import { LAYER_KEYS } from './layer-keys.ts';

export const build = {
  path: 'build',
  title: 'Build',
  panel: BuildPanel,
  desk: BOTH,
  keys: LAYER_KEYS,
  useFreshness: useBuilt,
} satisfies Station;
