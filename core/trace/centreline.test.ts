// Strokes of known course and width, rendered with exact coverage and traced back to single lines.
import { describe, expect, it } from 'vitest';
import type { Ring } from '../outline/types.ts';
import { ellipsePath } from '../path/arc.ts';
import { flatten } from '../path/flatten.ts';
import { renderCoverage } from '../picture/coverage.ts';
import { reversed, ring } from '../testing/shapes.ts';
import { traceCentrelines } from './centreline.ts';

const DEFAULTS = { level: 0.5, detail: 4, corner: (25 * Math.PI) / 180, smooth: null };
const trace = (rings: readonly Ring[], size = 128) => traceCentrelines(renderCoverage(rings, size, size), DEFAULTS);
const circle = (cx: number, cy: number, r: number) => flatten(ellipsePath(cx, cy, r, r), 0.0005)[0]!;

/** A straight bar with square ends. */
function bar(x0: number, y0: number, x1: number, y1: number, width: number): Ring {
  const length = Math.hypot(x1 - x0, y1 - y0);
  const [nx, ny] = [(-(y1 - y0) / length) * (width / 2), ((x1 - x0) / length) * (width / 2)];
  return ring(x0 + nx, y0 + ny, x1 + nx, y1 + ny, x1 - nx, y1 - ny, x0 - nx, y0 - ny);
}
const united = (...rings: Ring[]) => rings;

describe('centrelines', () => {
  it.each([
    [20.3, 40.7, 110.2, 40.7, 7],
    [20.3, 30.7, 100.2, 90.1, 5],
    [60.5, 12, 64, 115, 3],
  ])('a bar from %f, %f to %f, %f, %f wide: one line along its middle', (x0, y0, x1, y1, width) => {
    const [only, ...others] = trace([bar(x0, y0, x1, y1, width)]);
    expect(others).toEqual([]);
    expect(only!.width).toBeCloseTo(width, 1);
    expect(only!.path.map(([letter]) => letter).join('')).toBe('ML');
    const length = Math.hypot(x1 - x0, y1 - y0);
    for (const [, x, y] of only!.path as [string, number, number][]) {
      const off = ((x - x0) * (y1 - y0) - (y - y0) * (x1 - x0)) / length;
      expect(Math.abs(off)).toBeLessThan(0.05);
    }
    // Half a width short of either end, as round ends need it.
    const [start, end] = only!.path as unknown as [[string, number, number], [string, number, number]];
    expect(Math.hypot(end[1] - start[1], end[2] - start[2])).toBeCloseTo(length - width, 0);
  });

  it('a ring: a closed circle at its middle radius', () => {
    const [only, ...others] = trace([circle(64.3, 63.8, 43), reversed(circle(64.3, 63.8, 37))]);
    expect(others).toEqual([]);
    expect(only!.width).toBeCloseTo(6, 1);
    expect(only!.path.at(-1)![0]).toBe('Z');
    for (const [x, y] of pairs(flatten(only!.path, 0.01)[0]!)) {
      expect(Math.abs(Math.hypot(x - 64.3, y - 63.8) - 40)).toBeLessThan(0.1);
    }
  });

  it('an angle: one stroke with its corner where the middles meet', () => {
    const [only, ...others] = trace([ring(20, 20, 27, 20, 27, 93, 100, 93, 100, 100, 20, 100)]);
    expect(others).toEqual([]);
    const nearest = Math.min(...pairs(flatten(only!.path, 0.01)[0]!).map(([x, y]) => Math.hypot(x - 23.5, y - 96.5)));
    expect(nearest).toBeLessThan(0.3);
    expect(only!.pieces).toBeLessThanOrEqual(3);
  });

  it('a cross: two strokes that go through', () => {
    const strokes = trace(
      united(ring(60, 10, 66, 10, 66, 60, 116, 60, 116, 66, 66, 66, 66, 116, 60, 116, 60, 66, 10, 66, 10, 60, 60, 60)),
    );
    expect(strokes).toHaveLength(2);
    for (const { path, width } of strokes) {
      expect(width).toBeCloseTo(6, 1);
      expect(path.map(([letter]) => letter).join('')).toBe('ML');
    }
  });

  it('a branch ends on the middle of what it meets', () => {
    const strokes = trace([ring(10, 40, 110, 40, 110, 46, 63, 46, 63, 110, 57, 110, 57, 46, 10, 46)]);
    expect(strokes).toHaveLength(2);
    const ends = strokes.map(({ path }) => path.map((segment) => segment.slice(-2) as [number, number]));
    const branch = ends.find(([start, end]) => Math.abs(start![0] - end![0]) < 5)!;
    expect(Math.min(...branch.map(([, y]) => y))).toBeCloseTo(43, 1);
  });

  it('a dot, and nothing of a speck', () => {
    const [only, ...others] = trace([circle(40.5, 40.5, 5), circle(90, 90, 0.8)]);
    expect(others).toEqual([]);
    expect(only!.width).toBeCloseTo(10, 0);
  });
});

function pairs(points: Float64Array): [number, number][] {
  return Array.from({ length: points.length / 2 }, (_, i) => [points[2 * i]!, points[2 * i + 1]!]);
}
