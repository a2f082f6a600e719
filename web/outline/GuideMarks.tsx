// GuideMarks.tsx — lines that the chosen shapes have come to while they are placed: sides and middles of others, and of the sheet.
import type { Matrix, OutlineShape } from '../../core/index.ts';
import { areaOf } from './choosing.ts';
import type { FlatEye } from './eye.ts';
import { type Guides, guidesMet } from './placing.ts';

interface GuideMarksProps {
  shapes: readonly OutlineShape[];
  placed: Matrix;
  guides: Guides;
  frame: FlatEye['frame'];
  pixel: number;
}

export function GuideMarks({ shapes, placed, guides, frame: { x, y, width, height }, pixel }: GuideMarksProps) {
  const area = areaOf(shapes);
  if (!area) return null;
  const met = guidesMet(area, placed, guides);
  return (
    <g
      className="pointer-events-none fill-none stroke-tide"
      strokeWidth={pixel}
      data-guides={met.x.length + met.y.length}
    >
      {met.x.map((at) => (
        <path key={`x ${at}`} d={`M${at} ${y}v${height}`} />
      ))}
      {met.y.map((at) => (
        <path key={`y ${at}`} d={`M${x} ${at}h${width}`} />
      ))}
    </g>
  );
}
