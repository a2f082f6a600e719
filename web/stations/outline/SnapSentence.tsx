// SnapSentence.tsx — what points under the hand snap to.
import type { Source } from '../../../core/index.ts';
import { Sentence } from '../../controls/Panel.tsx';
import { Tick } from '../../controls/Tick.tsx';
import { Value } from '../../controls/Value.tsx';
import { drawing, shareOfSheet, useDrawing } from '../../store/drawing.ts';
import { useDocumentPart } from '../../store/project.ts';

/** Share of the sheet between lines of the grid at first, and degrees between angles. */
const GRID_SHARE = 0.02;
const ANGLE = 45;

export function SnapSentence({ source }: { source: Source }) {
  const unit = useDocumentPart((document) => document.unit);
  const { points, edges, alignment, grid, angle } = useDrawing((state) => state.snaps);
  return (
    <details className="mt-2 text-sm">
      <summary className="cursor-pointer text-quiet">Snapping; Alt lets go of it, Shift holds an angle</summary>
      <div className="mt-1 flex flex-wrap gap-x-4 gap-y-1">
        <Tick label="points" isOn={points} onChange={(isOn) => drawing.snap({ points: isOn })} />
        <Tick label="edges" isOn={edges} onChange={(isOn) => drawing.snap({ edges: isOn })} />
        <Tick label="level with others" isOn={alignment} onChange={(isOn) => drawing.snap({ alignment: isOn })} />
        <Tick
          label="a grid"
          isOn={grid !== null}
          onChange={(isOn) => drawing.snap({ grid: isOn ? shareOfSheet(source, GRID_SHARE) : null })}
        />
        <Tick label="angles" isOn={angle !== null} onChange={(isOn) => drawing.snap({ angle: isOn ? ANGLE : null })} />
      </div>
      {(grid !== null || angle !== null) && (
        <Sentence>
          {grid !== null && (
            <>
              Lines of the grid are{' '}
              <Value
                label="Width of the grid"
                value={grid}
                min={1e-6}
                unit={unit}
                step={shareOfSheet(source, GRID_SHARE) / 10}
                onChange={(v) => drawing.snap({ grid: v })}
              />{' '}
              apart.{' '}
            </>
          )}
          {angle !== null && (
            <>
              Angles go in steps of{' '}
              <Value
                label="Step of the angle"
                value={angle}
                min={1}
                max={180}
                unit="°"
                step={1}
                onChange={(v) => drawing.snap({ angle: v })}
              />
              .
            </>
          )}
        </Sentence>
      )}
    </details>
  );
}
