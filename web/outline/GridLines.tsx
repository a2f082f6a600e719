// GridLines.tsx — the grid that points snap to, while a tool may use it and it is not too fine to be seen.
import type { Source } from '../../core/index.ts';
import { useDrawing } from '../store/drawing.ts';
import { useOutline } from '../store/outline.ts';
import type { FlatEye } from './eye.ts';
import { SNAPPING } from './snapping.ts';

interface GridLinesProps {
  source: Source;
  frame: FlatEye['frame'];
  /** User units in a pixel of the screen. */
  pixel: number;
}

/** Lines nearer than this many pixels are left out. */
const FINEST = 5;

export function GridLines({ source, frame, pixel }: GridLinesProps) {
  const grid = useDrawing((state) => state.snaps.grid);
  const tool = useOutline((state) => state.tool);
  const width = grid === null ? 0 : grid / source.scale;
  if (!SNAPPING.includes(tool) || width < FINEST * pixel) return null;
  const [x, y] = source.origin;
  return (
    <>
      <defs>
        <pattern id="grid" x={x} y={y} width={width} height={width} patternUnits="userSpaceOnUse">
          <path d={`M${width} 0H0V${width}`} fill="none" className="stroke-ink/20" strokeWidth={pixel} />
        </pattern>
      </defs>
      <rect {...frame} fill="url(#grid)" className="pointer-events-none" />
    </>
  );
}
