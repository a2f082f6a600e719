// MeasurePanel.tsx — how long a line over the drawing is, or has to be.
import type { Source } from '../../../core/index.ts';
import { Panel } from '../../controls/Panel.tsx';
import { TextButton } from '../../controls/TextButton.tsx';
import { useDrawing } from '../../store/drawing.ts';
import { takeTool } from '../../store/outline.ts';
import { KnownLengthSentence } from '../KnownLengthSentence.tsx';
import { SnapSentence } from './SnapSentence.tsx';

export function MeasurePanel({ source }: { source: Source }) {
  const measured = useDrawing((state) => state.measured);
  const [dx, dy] = measured ? [measured.to[0] - measured.from[0], measured.to[1] - measured.from[1]] : [0, 0];
  const length = Math.hypot(dx, dy);
  return (
    <Panel title="Measure">
      {length > 0 ? (
        <>
          <KnownLengthSentence source={source} length={length} />
          <p className="text-quiet text-sm">Type the length it has in truth, and all of “{source.name}” follows.</p>
        </>
      ) : (
        <p>Drag from one place to another: along a printed dimension, a door, a side.</p>
      )}
      <SnapSentence source={source} />
      <p className="mt-2 text-sm">
        <TextButton onClick={() => void takeTool('choose')}>Done</TextButton>
      </p>
    </Panel>
  );
}
