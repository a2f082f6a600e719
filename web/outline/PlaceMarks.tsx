// PlaceMarks.tsx — the box round the chosen shapes: corners that scale them, and a knob that turns them.
import type { PointerEvent } from 'react';
import type { Matrix, OutlineShape } from '../../core/index.ts';
import { areaOf } from './choosing.ts';
import { cornersOf, middleOf, type Placing, printed, scaledTo, turnedTo } from './placing.ts';

/** In pixels of the screen. */
const HALF = 5;
const KNOB_OFF = 26;
const HIT = 12;

const CORNERS = ['top left', 'top right', 'bottom right', 'bottom left'] as const;

interface PlaceMarksProps {
  shapes: readonly OutlineShape[];
  placed: Matrix | null;
  pixel: number;
  onHold: (event: PointerEvent, map: Placing) => void;
}

export function PlaceMarks({ shapes, placed, pixel, onHold }: PlaceMarksProps) {
  const area = areaOf(shapes);
  if (!area) return null;
  const { minX, minY, maxX, maxY } = area;
  const middle = middleOf(area);
  const knob = { x: middle.x, y: minY - KNOB_OFF * pixel };
  const hit = { width: 2 * HIT * pixel, height: 2 * HIT * pixel, fill: 'transparent' };
  return (
    <g transform={placed ? printed(placed) : undefined} data-place-box>
      <g className="pointer-events-none fill-none stroke-tide" strokeWidth={pixel}>
        <rect
          x={minX}
          y={minY}
          width={maxX - minX}
          height={maxY - minY}
          strokeDasharray={`${3 * pixel} ${3 * pixel}`}
        />
        <path d={`M${middle.x} ${minY}V${knob.y}`} />
      </g>
      {cornersOf(area).map(({ x, y }, corner) => (
        <g key={CORNERS[corner]} className={corner % 2 === 0 ? 'cursor-nwse-resize' : 'cursor-nesw-resize'}>
          <rect
            x={x - HALF * pixel}
            y={y - HALF * pixel}
            width={2 * HALF * pixel}
            height={2 * HALF * pixel}
            className="fill-sheet stroke-tide"
            strokeWidth={1.5 * pixel}
          />
          <rect
            x={x - HIT * pixel}
            y={y - HIT * pixel}
            {...hit}
            data-place-corner={corner}
            onPointerDown={(event) =>
              onHold(event, (to, { altKey }, guides) => scaledTo(area, corner, to, altKey, guides))
            }
          />
        </g>
      ))}
      <g className="cursor-grab">
        <circle cx={knob.x} cy={knob.y} r={HALF * pixel} className="fill-sheet stroke-tide" strokeWidth={1.5 * pixel} />
        <rect
          x={knob.x - HIT * pixel}
          y={knob.y - HIT * pixel}
          {...hit}
          data-place-turn
          onPointerDown={(event) =>
            onHold(event, (to, { shiftKey, altKey }) =>
              turnedTo(middle, knob, to, shiftKey ? 'always' : altKey ? 'never' : 'near'),
            )
          }
        />
      </g>
    </g>
  );
}
