// Pictures of one bit: what lies behind the stairs.
import { describe, expect, it } from 'vitest';
import { regionsArea } from '../outline/measure.ts';
import { sharedArea } from '../outline/overlap.ts';
import { regionsOf } from '../outline/regions.ts';
import type { Ring } from '../outline/types.ts';
import { ellipsePath } from '../path/arc.ts';
import { flatten } from '../path/flatten.ts';
import { renderCoverage } from '../picture/coverage.ts';
import { ring } from '../testing/shapes.ts';
import { inkContours, traceInk } from './ink.ts';

/** Rendered black or white, without greys. */
function bits(shape: Ring, size = 160) {
  const grey = renderCoverage([shape], size, size);
  return { ...grey, values: grey.values.map((v) => (v < 0.5 ? 0 : 1)) };
}

describe('one bit', () => {
  it('is told from greys by the pixels along its edges', () => {
    const square = ring(20.4, 20.4, 100.4, 30.4, 90.4, 110.4, 10.4, 100.4);
    expect(inkContours(bits(square), 0.5).stairs).toHaveLength(1);
    expect(inkContours(renderCoverage([square], 160, 160), 0.5).stairs).toBeNull();
  });

  it('a turned square: four lines, each within a third of a pixel of its side', () => {
    const corners = [
      [20, 31],
      [121, 17],
      [137, 118],
      [36, 132],
    ] as const;
    const { path } = traceInk(bits(ring(...corners.flat())));
    const ends = path.flatMap((s) => (s[0] === 'L' ? [[s[1], s[2]] as const] : []));
    expect(path.filter(([letter]) => letter === 'C')).toEqual([]);
    expect(ends).toHaveLength(4);
    for (const [x, y] of ends) {
      expect(Math.min(...corners.map(([u, v]) => Math.hypot(x - u, y - v)))).toBeLessThan(0.6);
    }
  });

  it('a circle: few pieces and nearly its area', () => {
    const circle = flatten(ellipsePath(80.3, 79.6, 55, 55), 0.001)[0]!;
    const { path, pieces } = traceInk(bits(circle));
    expect(pieces).toBeLessThanOrEqual(12);
    const [traced, drawn] = [regionsOf(flatten(path, 0.01), 'evenodd'), regionsOf([circle], 'nonzero')];
    const shared = sharedArea(traced, drawn);
    expect(shared / (regionsArea(traced) + regionsArea(drawn) - shared)).toBeGreaterThan(0.995);
  });

  it('single pixels and lines of one pixel stay what they are', () => {
    const values = new Float32Array(400).fill(1);
    values[105] = 0;
    for (let x = 3; x < 17; x++) values[12 * 20 + x] = 0;
    const { outlines, path } = traceInk({ width: 20, height: 20, values }, { detail: 0 });
    expect(outlines).toBe(2);
    expect(regionsArea(regionsOf(flatten(path, 0.01), 'evenodd'))).toBeCloseTo(15, -0.5);
  });
});
