// stage.tsx — the station for floor, backdrop, lights and camera, which is not there yet.
import { ComingPanel } from '../ComingPanel.tsx';
import { BOTH } from '../desks.ts';
import type { Station } from '../kind.ts';

export const stage = {
  path: 'stage',
  title: 'Stage',
  panel: StagePanel,
  desk: BOTH,
  keys: [],
  useFreshness: () => 'coming',
} satisfies Station;

function StagePanel() {
  return <ComingPanel title="Stage" text="Floor, backdrop, lights and camera will be set here." />;
}
