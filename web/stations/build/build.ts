// build.ts — the station where flat becomes solid.
import type { Key } from '../../controls/keys.ts';
import { later } from '../../controls/later.ts';
import { screen } from '../../store/screen.ts';
import { vary } from '../../store/vary.ts';
import { BOTH } from '../desks.ts';
import { useBuilt } from '../freshness.ts';
import type { Station } from '../kind.ts';
import { LAYER_KEYS } from './layer-keys.ts';

const HANDLE_KEYS: readonly Key[] = [
  { keys: 'm', shown: 'M', does: 'Move what is chosen by hand', act: () => screen.toggleHandles('move') },
  { keys: 't', shown: 'T', does: 'Turn what is chosen by hand', act: () => screen.toggleHandles('turn') },
  { keys: 's', shown: 'S', does: 'Size what is chosen by hand', act: () => screen.toggleHandles('size') },
  { keys: 'c', shown: 'C', does: 'Open the contact sheet', act: vary.open },
  { keys: 'o', shown: 'O', does: 'Show what is chosen turning once', act: screen.spin },
];

export const build = {
  path: 'build',
  title: 'Build',
  panel: later(
    () => import('./BuildPanel.tsx'),
    (module) => module.BuildPanel,
  ),
  desk: BOTH,
  keys: [...LAYER_KEYS, ...HANDLE_KEYS],
  useFreshness: useBuilt,
} satisfies Station;
