// LengthLine.tsx — a line over a length, with a stroke across each of its ends.
import type { Place } from '../store/source-view.ts';

interface LengthLineProps {
  from: Place;
  to: Place;
  pixel: number;
}

/** Half the length of the strokes at its ends, in pixels of the screen. */
const TICK = 8;

export function LengthLine({ from, to, pixel }: LengthLineProps) {
  const length = Math.hypot(to.x - from.x, to.y - from.y) || 1;
  const [nx, ny] = [(-(to.y - from.y) / length) * TICK * pixel, ((to.x - from.x) / length) * TICK * pixel];
  const tick = ({ x, y }: Place) => `M${x - nx} ${y - ny}L${x + nx} ${y + ny}`;
  const d = `M${from.x} ${from.y}L${to.x} ${to.y}${tick(from)}${tick(to)}`;
  return (
    <g className="pointer-events-none">
      <path d={d} fill="none" className="stroke-sheet" strokeWidth={5 * pixel} />
      <path d={d} fill="none" className="stroke-tide" strokeWidth={2 * pixel} />
    </g>
  );
}
