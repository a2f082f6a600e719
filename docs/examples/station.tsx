// station.tsx — a station: how high the stack is, and a key that frames it.
import { heightOf } from '../../core/index.ts';
import { Panel } from '../../web/controls/Panel.tsx';
import { formatNumber } from '../../web/format.ts';
import { BOTH } from '../../web/stations/desks.ts';
import { useBuilt } from '../../web/stations/freshness.ts';
import type { Station } from '../../web/stations/kind.ts';
import { useDocument } from '../../web/store/project.ts';
import { screen } from '../../web/store/screen.ts';

export const height = {
  path: 'height',
  title: 'Height',
  panel: HeightPanel,
  desk: BOTH,
  keys: [{ keys: 'h', shown: 'H', does: 'Look from the right', act: () => screen.lookFrom('right') }],
  useFreshness: useBuilt,
} satisfies Station;

function HeightPanel() {
  const { layers, unit } = useDocument();
  const top = Math.max(0, ...layers.map(({ base, build }) => base + heightOf(build)));
  return (
    <Panel title="Height">
      The stack is {formatNumber(top)} {unit} high.
    </Panel>
  );
}
