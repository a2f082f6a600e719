// Areas of strokes with round ends, which have closed forms.
import { describe, expect, it } from 'vitest';
import { roundStroke, type Stroke } from '../drawing.ts';
import { ellipsePath } from '../path/arc.ts';
import type { Path } from '../path/types.ts';
import { outlineOf } from './combine.ts';
import { regionsArea } from './measure.ts';
import { strokePaths, strokeRegions } from './stroke.ts';

const line = (...places: (readonly [number, number])[]): Path =>
  places.map(([x, y], i) => [i === 0 ? 'M' : 'L', x, y] as const);

describe('a stroke', () => {
  it('along a line covers w·L + πw²/4', () => {
    const area = regionsArea(strokeRegions(line([3, 4], [33, 44]), roundStroke(6), 0.001));
    expect(area).toBeCloseTo(6 * 50 + (Math.PI * 36) / 4, 1);
  });

  it('of no length is a dot of its width', () => {
    expect(regionsArea(strokeRegions(line([5, 5], [5, 5]), roundStroke(4), 0.0005))).toBeCloseTo(4 * Math.PI, 1);
  });

  it('round a circle covers 2πrw, with its hole left open', () => {
    const regions = strokeRegions(ellipsePath(20, 20, 15, 15), roundStroke(4), 0.001);
    expect(regions.map(({ holes }) => holes.length)).toEqual([1]);
    expect(regionsArea(regions)).toBeCloseTo(2 * Math.PI * 15 * 4, 0);
  });

  it('round a right angle covers the bars, less the square they share, and a quarter more at the corner', () => {
    const area = regionsArea(strokeRegions(line([0, 0], [20, 0], [20, 20]), roundStroke(2), 0.0005));
    // Two bars of 20 × 2 share 1 × 1; the corner's outer quarter and two half discs come to it.
    expect(area).toBeCloseTo(2 * 40 - 1 + (Math.PI / 4) * 1 + Math.PI, 1);
  });

  it('round a circle smaller than the pen leaves no hole', () => {
    // Every place nearer than 3 to a circle of radius 1: a disc of radius 4.
    const regions = strokeRegions(ellipsePath(0, 0, 1, 1), roundStroke(6), 0.0005);
    expect(regions.map(({ holes }) => holes.length)).toEqual([0]);
    expect(regionsArea(regions)).toBeCloseTo(16 * Math.PI, 1);
  });

  it('has butt, square and mitred ends and corners as SVG 2 §13.5 draws them', () => {
    const area = (path: Path, style: Partial<Stroke>) =>
      regionsArea(strokeRegions(path, { ...roundStroke(2), ...style }, 0.001));
    const bar = line([0, 0], [10, 0]);
    expect(area(bar, { cap: 'butt' })).toBeCloseTo(20, 4);
    expect(area(bar, { cap: 'square' })).toBeCloseTo(24, 4);
    expect(area(line([3, 3], [3, 3]), { cap: 'square' })).toBeCloseTo(4, 4);
    expect(area(line([3, 3], [3, 3]), { cap: 'butt' })).toBe(0);
    const corner = line([0, 0], [10, 0], [10, 10]);
    expect(area(corner, { cap: 'butt', join: 'mitre' })).toBeCloseTo(40, 4);
    expect(area(corner, { cap: 'butt', join: 'bevel' })).toBeCloseTo(39.5, 4);
    // A mitre at a right angle is √2 widths long.
    expect(area(corner, { cap: 'butt', join: 'mitre', mitreLimit: 1.41 })).toBeCloseTo(39.5, 4);
  });

  it('has dashes as long as they are asked for, along lines and curves', () => {
    const dashed = (path: Path, dashes: number[], dashOffset = 0) =>
      strokeRegions(path, { ...roundStroke(1), cap: 'butt', dashes, dashOffset }, 0.0005);
    const bars = dashed(line([0, 0], [20, 0]), [3, 2]);
    expect(bars).toHaveLength(4);
    expect(regionsArea(bars)).toBeCloseTo(12, 4);
    // Begun 4 into “3 on, 2 off”: 1 off, then 3 on …
    expect(
      dashed(line([0, 0], [5, 0]), [3, 2], 4).map(({ outer }) => Math.min(...outer.filter((_, i) => i % 2 === 0))),
    ).toEqual([1]);
    const ring = dashed(ellipsePath(0, 0, 10, 10), [Math.PI, Math.PI]);
    expect(ring).toHaveLength(10);
    // A tenth of a ring of half the circumference each: 2πrw / 2.
    expect(regionsArea(ring)).toBeCloseTo(10 * Math.PI, 2);
  });

  it('keeps curves as curves when it is made an outline', () => {
    const path = outlineOf(strokePaths(ellipsePath(0, 0, 10, 10), roundStroke(2), 0.0005), 'nonzero');
    // Two rings of eight arcs.
    expect(path.filter(([letter]) => letter === 'C')).toHaveLength(16);
    expect(path.some(([letter]) => letter === 'L')).toBe(false);
  });

  it('that crosses itself and turns back is one region', () => {
    const regions = strokeRegions(line([0, 0], [30, 0], [30, 20], [15, 20], [15, -10], [15, 20]), roundStroke(3), 0.01);
    expect(regions).toHaveLength(1);
  });

  it.each([0.01, 0.3, 1, 100])(
    'thinner than a tolerance of %s, closed on itself and turning back, has all its places',
    (tolerance) => {
      // Found in a drawing that was refused because the box of this line was not a number.
      const path: Path = [...line([238.8, 227], [238.8, 226.7], [238.5, 226.7], [238.5, 226.9], [238.8, 226.9]), ['Z']];
      const stroke: Stroke = { ...roundStroke(0.1), cap: 'butt', join: 'mitre' };
      const numbers = strokePaths(path, stroke, tolerance)
        .flat(2)
        .filter((v) => typeof v === 'number');
      expect(numbers.length).toBeGreaterThan(0);
      expect(numbers.every(Number.isFinite)).toBe(true);
    },
  );
});
