// shapes.ts — basic shapes as paths (SVG 2 chapter 10).
import { lengthToPx, parseLength } from '../../base/units.ts';
import { arcToCubics, ellipsePath } from '../../path/arc.ts';
import { type ParsedPath, parsePath } from '../../path/parse.ts';
import type { Path, Segment } from '../../path/types.ts';
import { numbersOf } from './transform.ts';

export const SHAPE_NAMES: ReadonlySet<string> = new Set([
  'path',
  'rect',
  'circle',
  'ellipse',
  'line',
  'polyline',
  'polygon',
]);

export interface Viewport {
  readonly width: number;
  readonly height: number;
}

/** The path of a shape element in its own coordinates; empty when it draws nothing. */
export function shapePath(name: string, properties: ReadonlyMap<string, string>, viewport: Viewport): ParsedPath {
  const diagonal = Math.hypot(viewport.width, viewport.height) / Math.SQRT2;
  const read = (key: string, percentOf: number): number | undefined => {
    const length = parseLength(properties.get(key) ?? '');
    return length ? lengthToPx(length, percentOf) : undefined;
  };
  const x = (key: string) => read(key, viewport.width) ?? 0;
  const y = (key: string) => read(key, viewport.height) ?? 0;
  switch (name) {
    case 'path':
      return parsePath(unwrapPath(properties.get('d') ?? ''));
    case 'rect': {
      const rx = read('rx', viewport.width);
      const ry = read('ry', viewport.height);
      return { path: rectPath(x('x'), y('y'), x('width'), y('height'), rx ?? ry ?? 0, ry ?? rx ?? 0) };
    }
    case 'circle': {
      const r = read('r', diagonal) ?? 0;
      return { path: r > 0 ? ellipsePath(x('cx'), y('cy'), r, r) : [] };
    }
    case 'ellipse': {
      const rx = read('rx', viewport.width);
      const ry = read('ry', viewport.height);
      const [a, b] = [rx ?? ry ?? 0, ry ?? rx ?? 0];
      return { path: a > 0 && b > 0 ? ellipsePath(x('cx'), y('cy'), a, b) : [] };
    }
    case 'line':
      return {
        path: [
          ['M', x('x1'), y('y1')],
          ['L', x('x2'), y('y2')],
        ],
      };
    default:
      return { path: polyline(numbersOf(properties.get('points') ?? ''), name === 'polygon') };
  }
}

/** `d` may come from a style rule as `path("…")`. */
function unwrapPath(value: string): string {
  return /^path\(\s*["'](.*)["']\s*\)$/s.exec(value)?.[1] ?? value;
}

function rectPath(x: number, y: number, width: number, height: number, rx: number, ry: number): Path {
  if (!(width > 0 && height > 0)) return [];
  const r = Math.min(Math.max(rx, 0), width / 2);
  const s = Math.min(Math.max(ry, 0), height / 2);
  const right = x + width;
  const bottom = y + height;
  if (r === 0 || s === 0) return [['M', x, y], ['L', right, y], ['L', right, bottom], ['L', x, bottom], ['Z']];
  const corner = (x0: number, y0: number, x1: number, y1: number) =>
    arcToCubics(x0, y0, { rx: r, ry: s, rotationDeg: 0, largeArc: false, sweep: true }, x1, y1);
  return [
    ['M', x + r, y],
    ['L', right - r, y],
    ...corner(right - r, y, right, y + s),
    ['L', right, bottom - s],
    ...corner(right, bottom - s, right - r, bottom),
    ['L', x + r, bottom],
    ...corner(x + r, bottom, x, bottom - s),
    ['L', x, y + s],
    ...corner(x, y + s, x + r, y),
    ['Z'],
  ];
}

function polyline(values: readonly number[], closed: boolean): Path {
  const path: Segment[] = [];
  for (let i = 0; i + 1 < values.length; i += 2) path.push([i === 0 ? 'M' : 'L', values[i]!, values[i + 1]!]);
  if (closed && path.length > 0) path.push(['Z']);
  return path;
}
