// SmallElevation.tsx — a stack from the side, heights to scale within its card: for projects that nobody has drawn yet.
import type { ProjectSummary } from '../../core/index.ts';

const ELEVATION = { width: 260, height: 96, bars: 14 } as const;

export function SmallElevation({ stack }: { stack: ProjectSummary['stack'] }) {
  const bars = stack.slice(0, ELEVATION.bars);
  const low = Math.min(0, ...bars.map(({ base }) => base));
  const high = Math.max(low + 1e-9, ...bars.map(({ base, depth }) => base + depth));
  const scale = (ELEVATION.height - 2) / (high - low);
  const pitch = ELEVATION.width / Math.max(bars.length, 6);
  return (
    <svg aria-hidden className="size-full px-6 py-4" viewBox={`0 0 ${ELEVATION.width} ${ELEVATION.height}`}>
      {bars.map(({ colour, base, depth }, i) => (
        <rect
          // biome-ignore lint/suspicious/noArrayIndexKey: bars have no other identity than their place
          key={i}
          x={i * pitch + pitch * 0.12}
          width={pitch * 0.76}
          y={ELEVATION.height - 1 - (base + depth - low) * scale}
          height={Math.max(1, depth * scale)}
          fill={colour}
          className="stroke-ink/40"
          strokeWidth={0.6}
        />
      ))}
      <path d={`M0 ${ELEVATION.height - 1 + low * scale}H${ELEVATION.width}`} className="stroke-rule" />
    </svg>
  );
}
