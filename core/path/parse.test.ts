import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parsePath } from './parse.ts';
import type { Path } from './types.ts';

const path = (data: string): Path => {
  const { path: segments, error } = parsePath(data);
  expect(error).toBeUndefined();
  return segments;
};

/** Equal within rounding. */
function expectSame(a: Path, b: Path): void {
  expect(a.map(([letter]) => letter)).toEqual(b.map(([letter]) => letter));
  const numbers = (p: Path) => p.flatMap(([, ...values]) => values as number[]);
  for (const [i, value] of numbers(a).entries()) expect(value).toBeCloseTo(numbers(b)[i]!, 9);
}

describe('path data', () => {
  it('reads compact numbers: signs and points end the one before (SVG 2 §9.3.9)', () => {
    expect(path('M.5.5-1-1')).toEqual([
      ['M', 0.5, 0.5],
      ['L', -1, -1],
    ]);
    expect(path('M1e1-2.5e-1L0,0')).toEqual([
      ['M', 10, -0.25],
      ['L', 0, 0],
    ]);
  });

  it('repeats the command, after M as a line', () => {
    expect(path('m1 1 2 0 0 2')).toEqual([
      ['M', 1, 1],
      ['L', 3, 1],
      ['L', 3, 3],
    ]);
    expect(path('M0 0H1 2 3')).toHaveLength(4);
  });

  it('reads arc flags without separators (SVG 2 §9.3.9: a flag is one character)', () => {
    expectSame(path('M0 0a5 5 0 0110 0'), path('M0 0A5 5 0 0 1 10 0'));
    expectSame(path('M0 0a5,5 0 1,0-10,0'), path('M0 0 A 5 5 0 1 0 -10 0'));
  });

  const PAIRS: [string, string][] = [
    ['M5 6l1 2', 'M5 6L6 8'],
    ['M5 6h3', 'M5 6H8'],
    ['M5 6v3', 'M5 6V9'],
    ['M5 6c1 0 2 1 3 3', 'M5 6C6 6 7 7 8 9'],
    ['M5 6c1 0 2 1 3 3s2 2 3 0', 'M5 6C6 6 7 7 8 9S10 11 11 9'],
    ['M5 6q1 3 4 0', 'M5 6Q6 9 9 6'],
    ['M5 6q1 3 4 0t4 0', 'M5 6Q6 9 9 6T13 6'],
    ['M5 6a2 3 20 1 1 4 1', 'M5 6A2 3 20 1 1 9 7'],
    ['M5 6l1 2zm2 2l1 1', 'M5 6L6 8ZM7 8L8 9'],
  ];
  it.each(PAIRS)('%s equals %s', (relative, absolute) => expectSame(path(relative), path(absolute)));

  it('reflects the control point only after a curve of the same kind (SVG 2 §9.3.6, §9.3.7)', () => {
    expectSame(path('M0 0C0 1 1 1 1 0S2-1 2 0'), path('M0 0C0 1 1 1 1 0C1-1 2-1 2 0'));
    expectSame(path('M0 0L1 0S2 1 3 0'), path('M0 0L1 0C1 0 2 1 3 0'));
    expectSame(path('M0 0L1 0T3 0'), path('M0 0L1 0Q1 0 3 0'));
    expectSame(path('M0 0C0 1 1 1 1 0T3 0'), path('M0 0C0 1 1 1 1 0Q1 0 3 0'));
  });

  it('starts the next subpath where the last one closed', () => {
    expect(path('M1 2h3v3zl1 1')).toEqual([['M', 1, 2], ['L', 4, 2], ['L', 4, 5], ['Z'], ['M', 1, 2], ['L', 2, 3]]);
  });

  it('keeps what stands before an error and says where it is (SVG 2 §9.5.4)', () => {
    const { path: kept, error } = parsePath('M0 0L10 10L20 X');
    expect(kept).toHaveLength(2);
    expect(error).toEqual({ offset: 14, message: 'L needs 2 numbers, found “X”' });
    expect(parsePath('L0 0').error?.message).toBe('path data must start with M');
    expect(parsePath('M0 0#').error?.offset).toBe(4);
    expect(parsePath('M0').error?.message).toContain('the data ends');
  });

  it('never hangs or throws', () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(...'MmLlCcAaZz0123456789.-+eE, ') }), (text) => {
        parsePath(text);
      }),
    );
  });

  it('raises a quadratic to the cubic that is the same curve', () => {
    const [, cubic] = path('M0 0Q3 6 6 0') as [unknown, ['C', number, number, number, number, number, number]];
    const at = (t: number, [, x1, y1, x2, y2, x, y]: typeof cubic) => {
      const u = 1 - t;
      return [
        3 * u * u * t * x1 + 3 * u * t * t * x2 + t ** 3 * x,
        3 * u * u * t * y1 + 3 * u * t * t * y2 + t ** 3 * y,
      ];
    };
    for (const t of [0.2, 0.5, 0.9]) {
      const [x, y] = at(t, cubic);
      expect(x).toBeCloseTo(2 * (1 - t) * t * 3 + t * t * 6, 12);
      expect(y).toBeCloseTo(2 * (1 - t) * t * 6, 12);
    }
  });
});
