// DrawMarks.tsx — the pen over the view: points set by clicks and pulled into curves, rectangles and ellipses dragged out.
import { type PointerEvent, useRef, useState } from 'react';
import {
  draggedBox,
  ellipseIn,
  type Path,
  pathOfLines,
  printPath,
  rectanglePath,
  type Snapped,
  type Source,
  type Spot,
  withCorner,
} from '../../core/index.ts';
import { drawing, penWidth, useDrawing } from '../store/drawing.ts';
import { DIGITS } from '../store/outline.ts';
import { useWallThickness } from '../store/walls.ts';
import type { FlatEye } from './eye.ts';
import { PointerArea } from './PointerArea.tsx';
import { SnapMark } from './SnapMark.tsx';
import { SNAP, type Snap } from './snapping.ts';

interface DrawMarksProps {
  source: Source;
  snap: Snap;
  pixel: number;
  /** All that is seen. */
  frame: FlatEye['frame'];
  placeAt: FlatEye['placeAt'];
}

/** A press that moves less than this many pixels sets a corner. */
const PULL = 4;

export function DrawMarks({ source, snap, pixel, frame, placeAt }: DrawMarksProps) {
  const { figure, isFilled, line, width } = useDrawing();
  const isWall = figure === 'wall';
  const isLine = figure === 'line' || isWall;
  const thickness = useWallThickness();
  const [near, setNear] = useState<Snapped | null>(null);
  /** While a figure is dragged out. */
  const [dragged, setDragged] = useState<Path | null>(null);
  const press = useRef<{ at: Spot; client: { x: number; y: number }; isPulled: boolean } | null>(null);
  const last = line.points.at(-1);
  const level = line.points.map(({ at }) => at);

  const down = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    const { at } = snap(placeAt(event), event, { from: last?.at ?? null, level });
    const client = { x: event.clientX, y: event.clientY };
    if (isLine && !drawing.press(source, at, SNAP * pixel)) return;
    press.current = { at, client, isPulled: false };
  };

  const move = (event: PointerEvent) => {
    const from = press.current;
    const isDown = from !== null && event.buttons !== 0;
    const hand = { from: (isDown ? from.at : last?.at) ?? null, level };
    // With Shift a figure is even, with Alt it grows from its middle.
    const place = snap(placeAt(event), isLine ? event : { shiftKey: false, altKey: false }, isLine ? hand : {});
    setNear(place);
    if (!isDown) return;
    from.isPulled ||= Math.hypot(event.clientX - from.client.x, event.clientY - from.client.y) > PULL;
    if (!from.isPulled) return;
    if (figure === 'line') drawing.pull(place.at, event.altKey);
    else if (!isLine) {
      const span = draggedBox(from.at, place.at, event.shiftKey, event.altKey);
      setDragged(figure === 'rectangle' ? rectanglePath(span) : ellipseIn(span));
    }
  };

  const up = () => {
    press.current = null;
    if (dragged) drawing.figure(source, dragged);
    setDragged(null);
  };

  const next = last && near && !press.current ? withCorner(line, near.at) : line;
  const path = dragged ?? pathOfLines([next]);
  return (
    <g data-drawing={line.points.length}>
      <PointerArea
        frame={frame}
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={up}
        onPointerLeave={() => setNear(null)}
      />
      <g className="pointer-events-none">
        {(dragged === null || !isFilled) && (
          <path
            d={printPath(path, DIGITS)}
            fill="none"
            className="stroke-tide/20"
            strokeWidth={(isWall ? thickness : penWidth(source, width)) / source.scale}
            strokeLinejoin={isWall ? 'miter' : 'round'}
            strokeLinecap={isWall ? 'butt' : 'round'}
            visibility={isFilled && figure === 'line' ? 'hidden' : undefined}
          />
        )}
        <path d={printPath(path, DIGITS)} fill="none" className="stroke-tide" strokeWidth={1.5 * pixel} />
        {line.points.map(({ at, into, out }, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: points are only added and taken back at the end
          <g key={i} className="stroke-tide" strokeWidth={pixel}>
            {i + 1 === line.points.length &&
              [into, out].map(
                (spot, k) =>
                  spot && (
                    <g key={k === 0 ? 'into' : 'out'}>
                      <line x1={at[0]} y1={at[1]} x2={spot[0]} y2={spot[1]} />
                      <circle cx={spot[0]} cy={spot[1]} r={3 * pixel} className="fill-sheet" />
                    </g>
                  ),
              )}
            <rect
              x={at[0] - 3.5 * pixel}
              y={at[1] - 3.5 * pixel}
              width={7 * pixel}
              height={7 * pixel}
              className={i === 0 ? 'fill-tide' : 'fill-sheet'}
            />
          </g>
        ))}
        {near && <SnapMark near={near} pixel={pixel} />}
      </g>
    </g>
  );
}
