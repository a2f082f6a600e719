// build.ts — the station where flat becomes solid.
import { BOTH } from '../desks.ts';
import { useBuilt } from '../freshness.ts';
import type { Station } from '../kind.ts';
import { BuildPanel } from './BuildPanel.tsx';

export const build = {
  path: 'build',
  title: 'Build',
  panel: BuildPanel,
  desk: BOTH,
  keys: [],
  useFreshness: useBuilt,
} satisfies Station;
