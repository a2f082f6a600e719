// SnapMark.tsx — where the next point would go, and what it snaps to.
import type { SnapKind, Snapped } from '../../core/index.ts';

const WORDS: Record<SnapKind, string> = {
  point: 'point',
  edge: 'edge',
  angle: 'angle',
  alignment: 'level',
  grid: 'grid',
};

export function SnapMark({ near: { at, to }, pixel }: { near: Snapped; pixel: number }) {
  const [x, y] = at;
  return (
    <g className="pointer-events-none">
      <circle
        cx={x}
        cy={y}
        r={(to === 'point' ? 6 : 3.5) * pixel}
        className={to ? 'fill-tide/20 stroke-tide' : 'fill-none stroke-ink/50'}
        strokeWidth={1.25 * pixel}
      />
      {to && (
        <text x={x + 10 * pixel} y={y - 8 * pixel} fontSize={11 * pixel} className="fill-tide">
          {WORDS[to]}
        </text>
      )}
    </g>
  );
}
