import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ringArea } from '../outline/measure.ts';
import { ellipsePath } from './arc.ts';
import { distanceToSegment, flatten } from './flatten.ts';
import { multiply, rotation, scaling, transformPath, translation } from './matrix.ts';
import { parsePath } from './parse.ts';
import { printPath } from './print.ts';

const flat = (data: string, tolerance = 0.01) => flatten(parsePath(data).path, tolerance);

describe('flattening', () => {
  it('keeps corners, closes open subpaths and drops the repeated last point', () => {
    expect(flat('M0 0h2v2h-2z')).toEqual([Float64Array.of(0, 0, 2, 0, 2, 2, 0, 2)]);
    expect(flat('M0 0h2v2h-2L0 0')).toEqual([Float64Array.of(0, 0, 2, 0, 2, 2, 0, 2)]);
    expect(flat('M0 0h2v2')).toEqual([Float64Array.of(0, 0, 2, 0, 2, 2)]);
    expect(flat('M0 0L1 1')).toEqual([]);
  });

  it('refuses a tolerance that is not positive, NaN too', () => {
    for (const tolerance of [0, -1, Number.NaN]) expect(() => flat('M0 0h1v1z', tolerance)).toThrow(/tolerance/);
  });

  it('keeps every chord within the tolerance of the curve, densely measured', () => {
    const coordinate = fc.double({ min: -50, max: 50, noNaN: true });
    const cubics = fc.tuple(coordinate, coordinate, coordinate, coordinate, coordinate, coordinate);
    fc.assert(
      fc.property(cubics, fc.constantFrom(1, 0.1, 0.01), ([x1, y1, x2, y2, x3, y3], tolerance) => {
        const [points] = flatten(
          [
            ['M', 0, 0],
            ['C', x1, y1, x2, y2, x3, y3],
            ['L', 200, 200],
          ],
          tolerance,
        );
        fc.pre(points !== undefined);
        for (let t = 0; t <= 1; t += 1 / 64) {
          const u = 1 - t;
          const x = 3 * u * u * t * x1 + 3 * u * t * t * x2 + t ** 3 * x3;
          const y = 3 * u * u * t * y1 + 3 * u * t * t * y2 + t ** 3 * y3;
          let gap = Infinity;
          for (let i = 0; i + 3 < points!.length; i += 2) {
            gap = Math.min(
              gap,
              distanceToSegment(x, y, points![i]!, points![i + 1]!, points![i + 2]!, points![i + 3]!),
            );
          }
          expect(gap).toBeLessThanOrEqual(tolerance * 1.05 + 1e-9);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('spends about as many chords on a circle as the sagitta asks for', () => {
    // A chord of angle α strays r(1 − cos(α/2)): n = π / acos(1 − tolerance/r).
    for (const tolerance of [0.1, 0.01, 0.001]) {
      const [circle] = flatten(ellipsePath(0, 0, 10, 10), tolerance);
      const least = Math.PI / Math.acos(1 - tolerance / 10);
      expect(circle!.length / 2).toBeGreaterThanOrEqual(Math.floor(least));
      expect(circle!.length / 2).toBeLessThan(least * 1.35 + 8);
      expect(Math.abs(ringArea(circle!) - 100 * Math.PI)).toBeLessThan(20 * Math.PI * tolerance);
    }
  });

  it('walks a curve to the same points in either direction', () => {
    const there = flat('M0 0C10 20 30-20 40 5L40 50')[0]!;
    const back = flat('M40 5C30-20 10 20 0 0L40 50')[0]!;
    const points = (ring: Float64Array) =>
      Array.from({ length: ring.length / 2 }, (_, i) => `${ring[2 * i]},${ring[2 * i + 1]}`).sort();
    expect(points(there)).toEqual(points(back));
  });

  it('keeps extremes, so that bounds of the chords are bounds of the curve', () => {
    const [circle] = flatten(ellipsePath(0, 0, 10, 10), 1);
    expect(Math.max(...circle!)).toBeCloseTo(10, 9);
    expect(Math.min(...circle!)).toBeCloseTo(-10, 9);
    // y = 3·4·t(1−t)·… peaks at t = ½ with three quarters of the handle's height.
    const [bump] = flat('M0 0C0 8 10 8 10 0Z', 5);
    expect(Math.max(...bump!.filter((_, i) => i % 2 === 1))).toBeCloseTo(6, 9);
  });

  it('survives curves without length and cusps', () => {
    expect(flat('M5 5C5 5 5 5 5 5L6 5L6 6Z')[0]!.length).toBeGreaterThanOrEqual(6);
    expect(flat('M0 0C10 10 0 10 10 0Z').every((points) => points.every(Number.isFinite))).toBe(true);
  });
});

describe('maps', () => {
  it('applies the inner map first', () => {
    const turnThenMove = multiply(translation(10, 0), rotation(Math.PI / 2));
    const [[, x, y]] = transformPath([['M', 1, 0]], turnThenMove) as [['M', number, number]];
    expect([x, y]).toEqual([10, 1]);
    expect(transformPath(parsePath('M0 0C1 0 1 1 2 2Z').path, scaling(2, 3))).toEqual(
      parsePath('M0 0C2 0 2 3 4 6Z').path,
    );
  });

  it('prints what it can read again', () => {
    const data = 'M0.5 1L2 3C4 5 6 7.25 8 9Z';
    expect(printPath(parsePath(data).path)).toBe(data);
  });
});
