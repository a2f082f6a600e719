// Lines divided by an area: nothing is lost, nothing is bent, and every part lies on its side.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ellipsePath } from '../path/arc.ts';
import { contoursOf } from '../path/cubic.ts';
import { lengthOf } from '../path/length.ts';
import { parsePath } from '../path/parse.ts';
import { printPath } from '../path/print.ts';
import { cutByArea } from './divide.ts';

const square = parsePath('M0 0L10 0L10 10L0 10Z').path;
const cut = (d: string) => cutByArea(parsePath(d).path, square).map((part) => printPath(part, 6));
const lengthOfAll = (path: ReturnType<typeof parsePath>['path']) =>
  contoursOf(path).reduce((sum, { pieces }) => sum + pieces.reduce((s, piece) => s + lengthOf(piece), 0), 0);

describe('a line divided by an area', () => {
  it('is cut where it crosses the boundary', () => {
    expect(cut('M-5 5L15 5')).toEqual(['M0 5L10 5', 'M-5 5L0 5M10 5L15 5']);
    expect(cut('M2 2L8 8')).toEqual(['M2 2L8 8', '']);
    expect(cut('M20 2L28 8')).toEqual(['', 'M20 2L28 8']);
  });

  it('is not cut at its start where it is closed', () => {
    const [inside, outside] = cut('M5 5L15 5L15 8L5 8Z');
    expect(inside).toBe('M10 8L5 8L5 5L10 5');
    expect(outside).toBe('M10 5L15 5L15 8L10 8');
  });

  it('keeps its length, and half a circle stays a half', () => {
    const circle = ellipsePath(10, 5, 3, 3);
    const [inside, outside] = cutByArea(circle, square);
    expect(lengthOfAll(inside)).toBeCloseTo(3 * Math.PI, 2);
    const number = fc.double({ min: -5, max: 15, noNaN: true });
    fc.assert(
      fc.property(fc.array(number, { minLength: 8, maxLength: 8 }), (v) => {
        const { path } = parsePath(`M${v[0]} ${v[1]}C${v.slice(2).join(' ')}`);
        // Lengths are sums over places, and less exact where a curve turns back.
        const parts = cutByArea(path, square);
        expect(lengthOfAll(parts[0]) + lengthOfAll(parts[1])).toBeCloseTo(lengthOfAll(path), 3);
      }),
      { numRuns: 300 },
    );
    expect(outside.length).toBeGreaterThan(0);
  });
});
