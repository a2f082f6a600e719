// MeasureMarks.tsx — a line over the drawing from one place to another.
import { type PointerEvent, useRef, useState } from 'react';
import type { Snapped, Spot } from '../../core/index.ts';
import { LengthLine } from '../picture/LengthLine.tsx';
import { drawing, useDrawing } from '../store/drawing.ts';
import type { Place } from './choosing.ts';
import type { FlatEye } from './eye.ts';
import { SnapMark } from './SnapMark.tsx';
import type { Snap } from './snapping.ts';

interface MeasureMarksProps {
  snap: Snap;
  pixel: number;
  /** All that is seen. */
  frame: FlatEye['frame'];
  placeAt: FlatEye['placeAt'];
}

export function MeasureMarks({ snap, pixel, frame, placeAt }: MeasureMarksProps) {
  const measured = useDrawing((state) => state.measured);
  const [near, setNear] = useState<Snapped | null>(null);
  const from = useRef<Spot | null>(null);
  const down = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    from.current = snap(placeAt(event), event).at;
  };
  const move = (event: PointerEvent) => {
    const next = snap(placeAt(event), event, { from: from.current });
    setNear(next);
    if (from.current && event.buttons !== 0) drawing.set({ measured: { from: from.current, to: next.at } });
  };
  return (
    <g data-measured={measured !== null}>
      <rect
        {...frame}
        fill="transparent"
        className="cursor-crosshair"
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={() => {
          from.current = null;
        }}
      />
      <g className="pointer-events-none">
        {measured && <LengthLine from={placeOf(measured.from)} to={placeOf(measured.to)} pixel={pixel} />}
        {near && <SnapMark near={near} pixel={pixel} />}
      </g>
    </g>
  );
}

const placeOf = ([x, y]: Spot): Place => ({ x, y });
