// DragMark.tsx — the box, line or cut that is being drawn to choose or to part.
import { areaBetween, type Place } from './choosing.ts';

interface DragMarkProps {
  line: readonly Place[];
  shape: 'box' | 'lasso' | 'line';
  pixel: number;
}

export function DragMark({ line, shape, pixel }: DragMarkProps) {
  const style = {
    className: 'pointer-events-none fill-tide/10 stroke-tide',
    strokeWidth: pixel,
    strokeDasharray: `${4 * pixel} ${3 * pixel}`,
  };
  const [from, to] = [line[0]!, line.at(-1)!];
  if (shape === 'line') return <path d={`M${from.x} ${from.y}L${to.x} ${to.y}`} {...style} strokeWidth={2 * pixel} />;
  if (shape === 'lasso') return <polygon points={line.map(({ x, y }) => `${x},${y}`).join(' ')} {...style} />;
  const { minX, minY, maxX, maxY } = areaBetween(from, to);
  return <rect x={minX} y={minY} width={maxX - minX} height={maxY - minY} {...style} />;
}
