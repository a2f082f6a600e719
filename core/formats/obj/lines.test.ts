// Lines of numbers against the digits that the language itself gives.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Lines } from './lines.ts';

const written = (act: (lines: Lines) => void): string => {
  const lines = new Lines();
  act(lines);
  return new TextDecoder().decode(lines.take());
};
const expected = (v: number) => String(Number(Math.fround(v).toPrecision(9)));
const numbers = (values: readonly number[]) =>
  written((lines) => lines.tuples('v', values, 1))
    .trim()
    .split('\n')
    .map((line) => line.slice(2));

describe('numbers in lines', () => {
  it('are written with nine digits at the most, and none too many', () => {
    fc.assert(
      fc.property(fc.array(fc.float({ noNaN: true, noDefaultInfinity: true }), { minLength: 1 }), (values) => {
        expect(numbers(values)).toEqual(values.map(expected));
      }),
    );
    fc.assert(
      fc.property(fc.array(fc.double({ min: -2000, max: 2000, noNaN: true }), { minLength: 1 }), (values) => {
        expect(numbers(values)).toEqual(values.map(expected));
      }),
      { numRuns: 500 },
    );
  });

  it.each([
    0,
    -0,
    1,
    -1,
    10,
    100,
    0.1,
    0.5,
    0.25,
    1e-4,
    9.9999999e-5,
    0.001,
    0.00999999977,
    0.0999999,
    0.99999999,
    999999,
    999999.94,
    1e6,
    1e9,
    1e21,
    123456.789,
    0.1 + 0.2,
    8388607.5,
    1.0000001,
    0.33333334,
    -7.0710678,
    1e-30,
    3.4e38,
  ])('%s', (v) => {
    expect(numbers([v])).toEqual([expected(v)]);
  });

  it('come back as the same float32', () => {
    fc.assert(
      fc.property(fc.float({ noNaN: true, noDefaultInfinity: true }), (v) => {
        expect(Math.fround(Number(numbers([v])[0]))).toBe(v + 0);
      }),
    );
  });

  it('stand beside texts, whatever is in them, and corners', () => {
    const text = written((lines) => {
      lines.text('o Zürich ☾\n');
      lines.tuples('vt', [0.5, 1], 2);
      lines.text('f');
      lines.corner(1, 0, 12);
      lines.corner(1234567, 10, 99);
    });
    expect(text).toBe('o Zürich ☾\nvt 0.5 1\nf 1//12 1234567/10/99');
  });

  it('grow as long as they have to', () => {
    const many = Float64Array.from({ length: 60_000 }, (_, i) => i / 7);
    expect(numbers([...many])).toEqual(Array.from(many, expected));
  });
});
