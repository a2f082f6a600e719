// ToolPanel.tsx — what the tool in hand wants to know.
import { useState } from 'react';
import type { Source } from '../../../core/index.ts';
import { ColourField } from '../../controls/ColourField.tsx';
import { Panel } from '../../controls/Panel.tsx';
import { Tick } from '../../controls/Tick.tsx';
import { fillPicked, outline, takeTool, useOutline } from '../../store/outline.ts';
import { DrawPanel } from './DrawPanel.tsx';
import { MeasurePanel } from './MeasurePanel.tsx';
import { PointsPanel } from './PointsPanel.tsx';
import { WallsPanel } from './WallsPanel.tsx';

export function ToolPanel({ source }: { source: Source }) {
  const tool = useOutline((state) => state.tool);
  if (tool === 'split') {
    return (
      <Panel title="Split">
        <p>Drag a line across the chosen shapes. What lies right of it becomes a shape of its own.</p>
        <PutDown />
      </Panel>
    );
  }
  if (tool === 'points') return <PointsPanel source={source} />;
  if (tool === 'draw') return <DrawPanel source={source} />;
  if (tool === 'walls') return <WallsPanel source={source} />;
  if (tool === 'measure') return <MeasurePanel source={source} />;
  return tool === 'faces' ? <FacesPanel /> : null;
}

function FacesPanel() {
  const { faces, picked } = useOutline();
  const [colour, setColour] = useState('#2f6f60');
  const [keepsLines, setKeepsLines] = useState(false);
  return (
    <Panel
      title="Fill faces"
      aside={<span className="figure text-quiet">{`${picked.length} of ${faces.length}`}</span>}
    >
      <p>Click the faces to fill; click again to leave one open.</p>
      <p className="my-1 flex items-center gap-4 text-sm">
        <button
          type="button"
          className="text-tide hover:underline"
          onClick={() => outline.set({ picked: faces.map((_, i) => i) })}
        >
          Pick all
        </button>
        <ColourField label="Colour of the faces" value={colour} onChange={setColour} />
        <Tick label="keep the lines" isOn={keepsLines} onChange={setKeepsLines} />
      </p>
      <button
        type="button"
        disabled={picked.length === 0}
        className="mt-1 w-full rounded-edge bg-tide px-3 py-1.5 text-sheet"
        onClick={() => void fillPicked(colour, keepsLines)}
      >
        Fill {picked.length === 1 ? 'the face' : `${picked.length} faces`}
      </button>
      <PutDown />
    </Panel>
  );
}

function PutDown() {
  return (
    <button type="button" className="mt-2 text-sm text-tide hover:underline" onClick={() => void takeTool('choose')}>
      Done
    </button>
  );
}
