// motion.tsx — the station for keyed placement, light and camera, which is not there yet.
import { ComingPanel } from '../ComingPanel.tsx';
import { BOTH } from '../desks.ts';
import type { Station } from '../kind.ts';

export const motion = {
  path: 'motion',
  title: 'Motion',
  panel: MotionPanel,
  desk: BOTH,
  keys: [],
  useFreshness: () => 'coming',
} satisfies Station;

function MotionPanel() {
  return <ComingPanel title="Motion" text="Placement, light and camera will be keyed here." />;
}
