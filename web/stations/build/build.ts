// build.ts — the station where flat becomes solid.
import { later } from '../../controls/later.ts';
import { BOTH } from '../desks.ts';
import { useBuilt } from '../freshness.ts';
import type { Station } from '../kind.ts';
import { LAYER_KEYS } from './layer-keys.ts';

export const build = {
  path: 'build',
  title: 'Build',
  panel: later(
    () => import('./BuildPanel.tsx'),
    (module) => module.BuildPanel,
  ),
  desk: BOTH,
  keys: LAYER_KEYS,
  useFreshness: useBuilt,
} satisfies Station;
