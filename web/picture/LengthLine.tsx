// LengthLine.tsx — the line over a known length.
import type { Place } from '../store/source-view.ts';

export function LengthLine({ from, to, viewBox, pixel }: { from: Place; to: Place; viewBox: string; pixel: number }) {
  const length = Math.hypot(to.x - from.x, to.y - from.y) || 1;
  const [nx, ny] = [(-(to.y - from.y) / length) * 8 * pixel, ((to.x - from.x) / length) * 8 * pixel];
  const tick = ({ x, y }: Place) => `M${x - nx} ${y - ny}L${x + nx} ${y + ny}`;
  const d = `M${from.x} ${from.y}L${to.x} ${to.y}${tick(from)}${tick(to)}`;
  return (
    <svg
      className="pointer-events-none absolute inset-0 size-full"
      viewBox={viewBox}
      role="img"
      aria-label="The line over a known length"
    >
      <path d={d} fill="none" className="stroke-sheet" strokeWidth={5 * pixel} />
      <path d={d} fill="none" className="stroke-tide" strokeWidth={2 * pixel} />
    </svg>
  );
}
